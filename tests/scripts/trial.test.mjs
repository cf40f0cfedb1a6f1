/** Pieces on a panel: where they snap, how they stand when they are laid anew, what time it is for them. */
import assert from "node:assert/strict";
import { mock, test } from "node:test";
import { buttonAt } from "../../src/obrell/web/static/js/trial/fixtures.js";
import { Clock } from "../../src/obrell/web/static/js/trial/clock.js";
import { standingOf } from "../../src/obrell/web/static/js/trial/placed.js";
import { snapped } from "../../src/obrell/web/static/js/trial/snapping.js";

const SCREEN = [400, 300];
const box = (left, top, width, height) => ({ left, top, right: left + width, bottom: top + height });

test("what is dragged goes by as much as the hand where nothing is near", () => {
  const found = snapped([box(60, 60, 50, 20)], [7, 11], [], SCREEN);
  assert.deepEqual(found, { dx: 7, dy: 11, lines: [] });
});

test("its edges and middle go onto those of what stands there and of the screen", () => {
  const other = box(100, 200, 80, 40);
  for (const [own, by, dx] of [
    [box(20, 60, 50, 20), [82, 0], 80],
    [box(20, 60, 50, 20), [108, 0], 110],
    [box(20, 60, 50, 20), [97, 0], 95],
    [box(20, 60, 50, 20), [152, 0], 155],
    [box(60, 60, 50, 20), [-33, 0], -36],
  ])
    assert.equal(snapped([own], by, [other], SCREEN).dx, dx);
});

test("several snap as one, by the box around them", () => {
  const found = snapped([box(10, 10, 20, 20), box(70, 10, 20, 20)], [148, 0], [], SCREEN);
  assert.equal(found.dx, 150);
  assert.deepEqual(found.lines[0], { axis: "x", at: 200 });
});

test("the nearer of two wins, and both ways snap by themselves", () => {
  const near = [box(100, 0, 10, 10), box(103, 0, 10, 10)];
  const found = snapped([box(20, 150, 50, 20)], [82.5, 1], near, SCREEN);
  assert.deepEqual([found.dx, found.dy], [83, 0]);
  assert.deepEqual(found.lines, [
    { axis: "x", at: 103 },
    { axis: "y", at: 150 },
  ]);
});

test("a plain button is found by any place on it", () => {
  const place = { x: 10, y: 20, width: 30, height: 10 };
  const there = [
    { id: "title", plain: false, ...place },
    { id: "ok", plain: true, ...place },
  ];
  for (const at of [
    [10, 20],
    [40, 30],
    [25, 25],
  ])
    assert.equal(buttonAt(there, at)?.id, "ok");
  assert.equal(buttonAt(there, [41, 25]), undefined);
});

const KNOB = { behaviour: "turn", scale: { start: 0, end: 10, step: 1 }, now: { number: 2, share: 0.2, on: false } };

test("a piece that is moved stays turned, and lets go", () => {
  const turned = { ...KNOB.now, number: 7, share: 0.7, on: true, phase: "down", over: true };
  const now = standingOf({ ...KNOB, x: 5 }, { ...KNOB, x: 1 }, turned);
  assert.deepEqual([now.number, now.share, now.on, now.phase, now.over], [7, 0.7, true, "up", false]);
});

test("one that begins otherwise, or is turned along another way, begins anew", () => {
  const turned = { ...KNOB.now, number: 7, share: 0.7 };
  for (const other of [
    { now: { ...KNOB.now, number: 3 } },
    { scale: { ...KNOB.scale, end: 5 } },
    { behaviour: "set" },
  ]) {
    const fresh = { ...KNOB, ...other };
    assert.equal(standingOf(fresh, KNOB, turned).number, fresh.now.number);
  }
  assert.equal(standingOf(KNOB, undefined, undefined).number, 2);
});

test("time goes slower, stands still, and goes on by a frame", () => {
  let real = 1000;
  const clockwork = mock.method(performance, "now", () => real);
  const clock = new Clock();
  real += 100;
  assert.equal(clock.now, 100);
  clock.run(0.25);
  real += 100;
  assert.equal(clock.now, 125);
  clock.step();
  real += 500;
  assert.ok(Math.abs(clock.now - 125 - 1000 / 60) < 1e-9);
  clock.run(1);
  real += 10;
  assert.ok(Math.abs(clock.now - 135 - 1000 / 60) < 1e-9);
  clockwork.mock.restore();
});
