/**
 * The marks of points: ends of lines, points of paths, their handles, and the segments between them.
 *
 * @typedef {import("./types.js").Contour} Contour
 * @typedef {import("./types.js").Knot} Knot
 * @typedef {import("./types.js").Marks} Marks
 * @typedef {import("./types.js").ScenePart} ScenePart
 * @typedef {"in"|"out"} Side
 */
import { svg } from "../ui/svg.js";
import { named, reach } from "./handles.js";
import { measured, toCanvas } from "./plane.js";

export const ENDS = ["start", "end"];

/** @param {number} contour @param {number} index */
export const key = (contour, index) => `${contour}/${index}`;
/** @param {Knot} knot @param {Side} side @returns {[number, number]} the way to one of its handles */
export const arm = (knot, side) => (side === "in" ? [knot[2], knot[3]] : [knot[4], knot[5]]);
/** @param {Marks} marks @param {ScenePart} part @param {number} x @param {number} y in its own space */
const screen = (marks, part, x, y) => marks.stage.toScreen(...toCanvas(part, x, y));

/** The two ends of a line. @param {Marks} marks @param {ScenePart} part */
export function drawEnds(marks, part) {
  part.ends?.forEach(([x, y], index) => {
    const [cx, cy] = screen(marks, part, x, y);
    const words = `${ENDS[index]} of the line`;
    const node = named(svg("circle", { class: "knot", cx, cy, r: 5, "data-end": index }), words);
    marks.svg.append(reach(cx, cy, words, { end: String(index) }), node);
  });
  drawLength(marks, part);
}

/**
 * While an end is pulled, or a line drawn: how long it is, and where it goes.
 *
 * @param {Marks} marks @param {ScenePart} part
 */
export function drawLength(marks, part) {
  const { edit } = marks.stage;
  if (!part.ends || !edit || !["move-end", "draw"].includes(edit.kind)) return;
  const [start, end] = part.ends.map(([x, y]) => toCanvas(part, x, y));
  const [x, y] = marks.stage.toScreen(...(edit.end === "start" ? start : end));
  const words = measured(end[0] - start[0], end[1] - start[1]);
  marks.svg.append(svg("text", { class: "between-words", x, y: y - 18 }, words));
}

/** @param {Marks} marks @param {ScenePart} part @param {Contour} contour @param {number} number */
export function drawContour(marks, part, contour, number) {
  drawSegments(marks, part, contour, number);
  const seen = contour.knots.map((knot) => screen(marks, part, knot[0], knot[1]));
  const words = (/** @type {number} */ index) => `point ${index + 1}`;
  // What is reached lies under every point, so that none is hidden by its neighbour.
  seen.forEach(([x, y], index) => marks.svg.append(reach(x, y, words(index), { knot: key(number, index) })));
  contour.knots.forEach((knot, index) => {
    const [x, y] = seen[index];
    const name = key(number, index);
    const on = marks.points.chosen.has(name);
    if (on) drawArms(marks, part, knot, name, x, y);
    const shape = knot[6]
      ? svg("circle", { cx: x, cy: y, r: 4.5 })
      : svg("rect", { x: x - 4, y: y - 4, width: 8, height: 8 });
    shape.setAttribute("class", on ? "knot on" : "knot");
    shape.dataset.knot = name;
    marks.svg.append(named(shape, words(index)));
  });
}

/** @param {Marks} marks @param {ScenePart} part @param {Contour} contour @param {number} number */
function drawSegments(marks, part, { knots, closed }, number) {
  /** @param {number} x @param {number} y */
  const at = (x, y) => screen(marks, part, x, y).join(" ");
  const count = knots.length;
  for (let index = 0; index < (closed ? count : count - 1); index += 1) {
    const [a, b] = [knots[index], knots[(index + 1) % count]];
    const d = `M${at(a[0], a[1])}C${at(a[0] + a[4], a[1] + a[5])} ${at(b[0] + b[2], b[1] + b[3])} ${at(b[0], b[1])}`;
    marks.svg.append(
      svg("path", { class: "spine", d }),
      svg("path", { class: "vein", d, "data-segment": key(number, index) }),
    );
  }
}

/**
 * The handles of a chosen point.
 *
 * @param {Marks} marks @param {ScenePart} part @param {Knot} knot
 * @param {string} name @param {number} x @param {number} y
 */
function drawArms(marks, part, knot, name, x, y) {
  for (const side of /** @type {Side[]} */ (["in", "out"])) {
    const [dx, dy] = arm(knot, side);
    if (!dx && !dy) continue;
    const [hx, hy] = screen(marks, part, knot[0] + dx, knot[1] + dy);
    const words = `handle ${side} of point ${Number(name.split("/")[1]) + 1}`;
    const grip = svg("circle", { class: "grip", cx: hx, cy: hy, r: 4, "data-grip": name, "data-side": side });
    marks.svg.append(
      svg("path", { class: "arm", d: `M${x} ${y}L${hx} ${hy}` }),
      reach(hx, hy, words, { grip: name, side }),
      named(grip, words),
    );
  }
}
