/**
 * Frames of what is selected, their handles, and their dimensions as on a technical drawing.
 *
 * @typedef {import("./types.js").Marks} Marks
 * @typedef {import("./types.js").Point} Point
 * @typedef {import("./types.js").ScenePart} ScenePart
 * @typedef {import("./plane.js").Corners} Corners
 */
import { svg } from "../ui/svg.js";
import { BAR_PX, FOOT_PX, RULER_PX } from "./bars.js";
import { handleOf, named, reach } from "./handles.js";
import { between, corners, outward, short, toCanvas } from "./plane.js";

/** How far from the art its dimensions stand. */
const DIMENSION_PX = 16;
const TURN_PX = 22;
/** A side shorter than this on the screen has no handle in its middle, so that its corners stay free. */
const SHORTEST_PX = 34;
/** The corners of something smaller than this stand a little away from it. */
const SMALL_PX = 22;
const AWAY_PX = 6;
/** @type {Object<string, [number, number]>} */
const HANDLES = { nw: [-1, -1], n: [0, -1], ne: [1, -1], e: [1, 0], se: [1, 1], s: [0, 1], sw: [-1, 1], w: [-1, 0] };
const CURSORS = ["ew-resize", "nwse-resize", "ns-resize", "nesw-resize"];

/** @param {Point[]} points */
const outline = (points) => `M${points.map((point) => point.join(" ")).join("L")}Z`;
/** @param {Point} one @param {Point} other */
const far = ([ax, ay], [bx, by]) => Math.hypot(bx - ax, by - ay);

export class Frames {
  /** @param {Marks} marks */
  constructor(marks) {
    this.marks = marks;
  }

  /** @param {ScenePart} part @returns {Corners} */
  #corners(part) {
    const [a, b, c, d] = corners(part).map(([x, y]) => this.marks.stage.toScreen(x, y));
    return [a, b, c, d];
  }

  /** @param {ScenePart} part @param {boolean} alone whether nothing else is selected */
  frame(part, alone) {
    const points = this.#corners(part);
    const d = outline(points);
    // Light under dark: seen on every art, whatever its colour.
    this.marks.svg.append(svg("path", { class: "frame-under", d }), svg("path", { class: "frame", d }));
    if (!alone || part.locked || this.marks.drawing) {
      if (this.marks.drawing) this.#dimensions(part, points);
      return;
    }
    this.#dimensions(part, points);
    if (this.marks.cropping === part.id) this.#whole(part);
    this.#handles(part, points);
    if (!this.marks.gradients.now) this.#turn(part, points);
    for (const [name, x, y, words] of part.grips ?? []) this.#grip(part, name, x, y, words);
  }

  /** @param {ScenePart} part @param {Corners} points */
  #turn(part, points) {
    const [cx, cy] = between(points, 0.5, 0);
    const [nx, ny] = outward(points, 0);
    const at = { cx: cx + nx * TURN_PX, cy: cy + ny * TURN_PX };
    const knob = named(svg("circle", { class: "hd", ...at, r: 5, "data-turn": part.id }), "turn");
    knob.style.cursor = "grab";
    const stem = svg("path", { class: "frame", d: `M${cx} ${cy}l${nx * (TURN_PX - 5)} ${ny * (TURN_PX - 5)}` });
    this.marks.svg.append(stem, reach(at.cx, at.cy, "turn", { turn: part.id }), knob);
  }

  /** A grip of the part's own kind; what it is at is written beside it while it is pulled.
   * @param {ScenePart} part @param {string} name @param {number} x @param {number} y @param {string} words */
  #grip(part, name, x, y, words) {
    const [cx, cy] = this.marks.stage.toScreen(...toCanvas(part, x, y));
    const knob = svg("path", { class: "pull", d: `M${cx} ${cy - 6}l6 6l-6 6l-6 -6z`, "data-pull": name });
    this.marks.svg.append(reach(cx, cy, words, { pull: name }), named(knob, words));
    const { edit } = this.marks.stage;
    if (edit?.kind !== "pull-grip" || edit.grip !== name) return;
    const value = handleOf(this.marks, knob.dataset)?.value() ?? "";
    this.marks.svg.append(svg("text", { class: "between-words", x: cx, y: cy - 16 }, value));
  }

  /** All of a picture that is cropped. @param {ScenePart} part */
  #whole(part) {
    if (!part.picture) return;
    const d = outline(this.#corners({ ...part, frame: part.picture }));
    this.marks.svg.append(svg("path", { class: "whole-picture", d }));
  }

  /** @param {ScenePart} part @param {Corners} points */
  #handles(part, points) {
    const [wide, high] = [far(points[0], points[1]), far(points[1], points[2])];
    const away = Math.min(wide, high) < SMALL_PX ? AWAY_PX : 0;
    for (const [name, [sx, sy]] of Object.entries(HANDLES)) {
      const middle = !sx || !sy;
      if (middle && (part.kind === "text" || (sx ? high : wide) < SHORTEST_PX)) continue;
      this.#handle(part, points, name, away);
    }
  }

  /** @param {ScenePart} part @param {Corners} points @param {string} name @param {number} away px out of the frame */
  #handle(part, points, name, away) {
    const [sx, sy] = HANDLES[name];
    const [right, down] = [outward(points, 1), outward(points, 2)];
    const [px, py] = between(points, (sx + 1) / 2, (sy + 1) / 2);
    const x = px + away * (sx * right[0] + sy * down[0]);
    const y = py + away * (sx * right[1] + sy * down[1]);
    const crops = this.marks.cropping === part.id;
    const words = handleOf(this.marks, /** @type {DOMStringMap} */ ({ handle: name }))?.words ?? name;
    const box = { x: x - 4.5, y: y - 4.5, width: 9, height: 9, rx: 2 };
    const node = named(svg("rect", { class: crops ? "hd crop" : "hd", ...box, "data-handle": name }), words);
    const direction = Math.round(((Math.atan2(sy, sx) * 180) / Math.PI + part.turn) / 45);
    const around = reach(x, y, words, { handle: name });
    for (const one of [around, node]) one.style.cursor = CURSORS[((direction % 4) + 4) % 4];
    this.marks.svg.append(around, node);
  }

  /** Width under the part and height at its right. @param {ScenePart} part @param {Corners} points */
  #dimensions(part, points) {
    const [left, top, right, bottom] = part.frame;
    this.#dimension(points, 2, right - left);
    this.#dimension(points, 1, bottom - top);
  }

  /**
   * How far out along a way a dimension line stands clear of the canvas; 0 where that cannot be seen.
   *
   * @param {Point} from @param {number} nx @param {number} ny
   */
  #beyond([x, y], nx, ny) {
    const [width, height] = this.marks.now.canvas;
    const edges = [
      [0, 0],
      [width, 0],
      [0, height],
      [width, height],
    ].map(([a, b]) => this.marks.stage.toScreen(a, b));
    const away = Math.max(14, ...edges.map(([a, b]) => (a - x) * nx + (b - y) * ny)) + DIMENSION_PX;
    const { clientWidth, clientHeight } = this.marks.stage.element;
    const [toX, toY] = [x + nx * away, y + ny * away];
    const seen =
      toX > RULER_PX && toX < clientWidth - 12 && toY > RULER_PX + BAR_PX && toY < clientHeight - FOOT_PX - 8;
    return seen ? away : 0;
  }

  /** @param {Corners} points @param {number} side @param {number} length logical px */
  #dimension(points, side, length) {
    const [nx, ny] = outward(points, side);
    const [from, to] = [points[side], points[(side + 1) % 4]];
    const away = this.#beyond(from, nx, ny);
    if (!away) return;
    const [ax, ay, bx, by] = [from[0] + nx * away, from[1] + ny * away, to[0] + nx * away, to[1] + ny * away];
    const span = Math.hypot(bx - ax, by - ay);
    const [ux, uy] = [(bx - ax) / (span || 1), (by - ay) / (span || 1)];
    const [mx, my] = [(ax + bx) / 2, (ay + by) / 2];
    const gap = Math.min(24, span / 2 - 6);
    const group = svg("g", {});
    /** @param {number} x @param {number} y */
    const tick = (x, y) => `M${x - nx * (away - 5)} ${y - ny * (away - 5)}L${x + nx * 5} ${y + ny * 5}`;
    let d = tick(ax, ay) + tick(bx, by);
    if (gap > 4) d += `M${ax} ${ay}L${mx - ux * gap} ${my - uy * gap}M${mx + ux * gap} ${my + uy * gap}L${bx} ${by}`;
    group.append(svg("path", { class: "dim", d }));
    /** @param {number} x @param {number} y @param {1|-1} s */
    const head = (x, y, s) => `M${x} ${y}l${s * ux * 8 - uy * 2.6} ${s * uy * 8 + ux * 2.6}l${uy * 5.2} ${-ux * 5.2}z`;
    if (span > 20) group.append(svg("path", { class: "dim-head", d: head(ax, ay, 1) + head(bx, by, -1) }));
    const out = span < 44 ? 12 : 0;
    group.append(svg("text", { x: mx + nx * out, y: my + ny * out }, short(length)));
    this.marks.svg.append(group);
  }
}
