/** Frames of what is selected, their handles, and their dimensions as on a technical drawing. */
import { svg } from "../ui/svg.js";
import { BAR_PX, FOOT_PX, RULER_PX } from "./bars.js";
import { between, corners, outward, short } from "./plane.js";

/** How far from the art its dimensions stand. */
const DIMENSION_PX = 16;
const HANDLES = { nw: [-1, -1], n: [0, -1], ne: [1, -1], e: [1, 0], se: [1, 1], s: [0, 1], sw: [-1, 1], w: [-1, 0] };

export class Frames {
  /** @param {object} marks */
  constructor(marks) {
    this.marks = marks;
  }

  /** @param {boolean} alone whether nothing else is selected */
  frame(part, alone) {
    const points = corners(part).map(([x, y]) => this.marks.stage.toScreen(x, y));
    const d = `M${points.map((point) => point.join(" ")).join("L")}Z`;
    // Light under dark: seen on every art, whatever its colour.
    this.marks.svg.append(svg("path", { class: "frame-under", d }), svg("path", { class: "frame", d }));
    if (!alone || part.locked || this.marks.drawing) {
      if (this.marks.drawing) this.#dimensions(part, points);
      return;
    }
    this.#dimensions(part, points);
    if (this.marks.cropping === part.id) this.#whole(part);
    const names = part.kind === "text" ? ["nw", "ne", "se", "sw"] : Object.keys(HANDLES);
    for (const name of names) this.#handle(part, points, name);
    if (this.marks.gradients.now) return;
    const [cx, cy] = between(points, 0.5, 0);
    const [nx, ny] = outward(points, 0);
    const knob = svg("circle", { class: "hd", cx: cx + nx * 22, cy: cy + ny * 22, r: 5, "data-turn": part.id });
    knob.style.cursor = "grab";
    this.marks.svg.append(svg("path", { class: "frame", d: `M${cx} ${cy}l${nx * 17} ${ny * 17}` }), knob);
  }

  /** All of a picture that is cropped. */
  #whole(part) {
    const points = corners({ ...part, frame: part.picture }).map(([x, y]) => this.marks.stage.toScreen(x, y));
    this.marks.svg.append(
      svg("path", { class: "whole-picture", d: `M${points.map((point) => point.join(" ")).join("L")}Z` }),
    );
  }

  #handle(part, points, name) {
    const [sx, sy] = HANDLES[name];
    const [x, y] = between(points, (sx + 1) / 2, (sy + 1) / 2);
    const node = svg("rect", {
      class: this.marks.cropping === part.id ? "hd crop" : "hd",
      x: x - 4.5,
      y: y - 4.5,
      width: 9,
      height: 9,
      rx: 2,
      "data-handle": name,
    });
    const cursors = ["ew-resize", "nwse-resize", "ns-resize", "nesw-resize"];
    const direction = Math.round(((Math.atan2(sy, sx) * 180) / Math.PI + part.turn) / 45);
    node.style.cursor = cursors[((direction % 4) + 4) % 4];
    this.marks.svg.append(node);
  }

  /** Width under the part and height at its right, as on a technical drawing. */
  #dimensions(part, points) {
    const [left, top, right, bottom] = part.frame;
    this.#dimension(points, 2, right - left);
    this.#dimension(points, 1, bottom - top);
  }

  /** How far out along a way a dimension line stands clear of the canvas; 0 where that cannot be seen. */
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
    const tick = (x, y) => `M${x - nx * (away - 5)} ${y - ny * (away - 5)}L${x + nx * 5} ${y + ny * 5}`;
    let d = tick(ax, ay) + tick(bx, by);
    if (gap > 4) d += `M${ax} ${ay}L${mx - ux * gap} ${my - uy * gap}M${mx + ux * gap} ${my + uy * gap}L${bx} ${by}`;
    group.append(svg("path", { class: "dim", d }));
    const head = (x, y, s) => `M${x} ${y}l${s * ux * 8 - uy * 2.6} ${s * uy * 8 + ux * 2.6}l${uy * 5.2} ${-ux * 5.2}z`;
    if (span > 20) group.append(svg("path", { class: "dim-head", d: head(ax, ay, 1) + head(bx, by, -1) }));
    const out = span < 44 ? 12 : 0;
    group.append(svg("text", { x: mx + nx * out, y: my + ny * out }, short(length)));
    this.marks.svg.append(group);
  }
}
