/** Places of parts on the canvas, there and back, turned and mirrored. */
import assert from "node:assert/strict";
import { test } from "node:test";
import {
  around,
  between,
  corners,
  outward,
  short,
  toCanvas,
  toOwn,
} from "../../src/obrell/web/static/js/stage/plane.js";

const near = (got, wanted) =>
  got.forEach((value, at) => assert.ok(Math.abs(value - wanted[at]) < 1e-9, `${got} is not ${wanted}`));
const PARTS = [0, 30, 90, 180, 271.5].flatMap((turn) =>
  [false, true].map((mirrored) => ({ x: 40, y: -7, turn, mirrored, frame: [-10, -5, 12, 20] })),
);

test("from a part's own space to the canvas and back is where it began", () => {
  for (const part of PARTS)
    for (const place of [
      [0, 0],
      [3, 4],
      [-10, 20],
    ])
      near(toOwn(part, ...toCanvas(part, ...place)), place);
});

test("its own middle is where it stands, and no length changes", () => {
  for (const part of PARTS) {
    near(toCanvas(part, 0, 0), [part.x, part.y]);
    const [x, y] = toCanvas(part, 3, 4);
    assert.ok(Math.abs(Math.hypot(x - part.x, y - part.y) - 5) < 1e-9);
  }
});

test("a quarter turn is clockwise, as CSS has it; a mirror is left to right before that", () => {
  near(toCanvas({ x: 0, y: 0, turn: 90, mirrored: false }, 1, 0), [0, 1]);
  near(toCanvas({ x: 0, y: 0, turn: 0, mirrored: true }, 1, 2), [-1, 2]);
  near(toCanvas({ x: 0, y: 0, turn: 90, mirrored: true }, 1, 0), [0, -1]);
});

test("a frame's box holds its corners and touches some on every side", () => {
  for (const part of PARTS) {
    const [left, top, right, bottom] = around(part);
    const points = corners(part);
    for (const [x, y] of points) assert.ok(x >= left && x <= right && y >= top && y <= bottom);
    assert.ok(points.some(([x]) => x === left) && points.some(([x]) => x === right));
    assert.ok(points.some(([, y]) => y === top) && points.some(([, y]) => y === bottom));
  }
});

test("shares of a frame lead from its corners to its middle", () => {
  const square = [
    [0, 0],
    [10, 0],
    [10, 10],
    [0, 10],
  ];
  near(between(square, 0, 0), [0, 0]);
  near(between(square, 1, 1), [10, 10]);
  near(between(square, 0.5, 0), [5, 0]);
  near(between(square, 0.5, 0.5), [5, 5]);
});

test("out of a side is a unit vector away from the middle", () => {
  const square = [
    [0, 0],
    [10, 0],
    [10, 10],
    [0, 10],
  ];
  [
    [0, -1],
    [1, 0],
    [0, 1],
    [-1, 0],
  ].forEach((wanted, side) => near(outward(square, side), wanted));
  near(
    outward(
      [
        [3, 3],
        [3, 3],
        [3, 3],
        [3, 3],
      ],
      0,
    ),
    [0, 0],
  );
});

test("numbers are shown with two places at most", () => {
  assert.deepEqual([1, 1.005, 2.345, -0.1249, 1e3].map(short), ["1", "1", "2.35", "-0.12", "1000"]);
});
