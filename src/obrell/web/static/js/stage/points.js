/** The points of a path or a line on the stage. */
import { svg } from "../ui/svg.js";
import { toCanvas } from "./plane.js";

const key = (contour, index) => `${contour}/${index}`;
const pair = (name) => name.split("/").map(Number);

export class Points {
  /** @param {import("./marks.js").Marks} marks */
  constructor(marks) {
    this.marks = marks;
    this.chosen = new Set();
  }

  /** @returns {string} the one chosen point, for the sheet */
  get single() {
    return this.chosen.size === 1 ? [...this.chosen][0] : "";
  }

  clear() {
    this.chosen.clear();
  }

  async choose(names) {
    this.chosen = new Set(names);
    this.marks.draw();
    await this.marks.bench.refresh();
  }

  get list() {
    return [...this.chosen].map(pair);
  }

  screen(part, x, y) {
    return this.marks.stage.toScreen(...toCanvas(part, x, y));
  }

  draw(part) {
    if (!part || part.locked) return;
    if (part.ends) this.#ends(part);
    if (part.contours) part.contours.forEach((contour, number) => this.#contour(part, contour, number));
  }

  #ends(part) {
    part.ends.forEach(([x, y], index) => {
      const [cx, cy] = this.screen(part, x, y);
      this.marks.svg.append(svg("circle", { class: "knot", cx, cy, r: 5, "data-end": index }));
    });
  }

  #contour(part, contour, number) {
    const at = (x, y) => this.screen(part, x, y).join(" ");
    const { knots, closed } = contour;
    const count = knots.length;
    for (let index = 0; index < (closed ? count : count - 1); index += 1) {
      const [a, b] = [knots[index], knots[(index + 1) % count]];
      const d = `M${at(a[0], a[1])}C${at(a[0] + a[4], a[1] + a[5])} ${at(b[0] + b[2], b[1] + b[3])} ${at(b[0], b[1])}`;
      this.marks.svg.append(
        svg("path", { class: "spine", d }),
        svg("path", { class: "vein", d, "data-segment": key(number, index) }),
      );
    }
    knots.forEach((knot, index) => {
      const name = key(number, index);
      const on = this.chosen.has(name);
      const [x, y] = this.screen(part, knot[0], knot[1]);
      if (on) this.#handles(part, knot, name, x, y);
      const shape = knot[6]
        ? svg("circle", { cx: x, cy: y, r: 4.5 })
        : svg("rect", { x: x - 4, y: y - 4, width: 8, height: 8 });
      shape.setAttribute("class", on ? "knot on" : "knot");
      shape.dataset.knot = name;
      this.marks.svg.append(shape);
    });
  }

  #handles(part, knot, name, x, y) {
    for (const [side, dx, dy] of [
      ["in", knot[2], knot[3]],
      ["out", knot[4], knot[5]],
    ]) {
      if (!dx && !dy) continue;
      const [hx, hy] = this.screen(part, knot[0] + dx, knot[1] + dy);
      this.marks.svg.append(
        svg("path", { class: "arm", d: `M${x} ${y}L${hx} ${hy}` }),
        svg("circle", { class: "grip", cx: hx, cy: hy, r: 4, "data-grip": name, "data-side": side }),
      );
    }
  }

  /** @returns {boolean} whether the press was on a point, a handle or a segment */
  press(event) {
    const { knot, grip, side, segment, end } = event.target.dataset;
    const { part } = this.marks.bench;
    if (!part) return false;
    if (end !== undefined) this.#dragEnd(event, part, Number(end));
    else if (knot) this.#dragPoints(event, part, knot);
    else if (grip) this.#dragHandle(event, part, grip, side);
    else if (segment) this.#dragSegment(event, part, segment);
    else return false;
    return true;
  }

  #dragPoints(event, part, name) {
    let names = this.chosen.has(name) ? [...this.chosen] : [name];
    if (event.shiftKey)
      names = this.chosen.has(name) ? [...this.chosen].filter((other) => other !== name) : [...this.chosen, name];
    this.chosen = new Set(names);
    this.marks.draw();
    const [marks, points] = [this.marks, this.list];
    const edit = (dx, dy, at) => ({
      kind: "move-points",
      part: part.id,
      points,
      dx: marks.whole(dx),
      dy: marks.whole(dy),
      constrained: at.shiftKey,
    });
    this.marks.follow(event, edit, (moved) => !moved && this.marks.bench.refresh());
  }

  #dragHandle(event, part, name, side) {
    const point = pair(name);
    const knot = part.contours[point[0]].knots[point[1]];
    const offset = side === "in" ? 2 : 4;
    const [x, y] = toCanvas(part, knot[0] + knot[offset], knot[1] + knot[offset + 1]);
    this.marks.follow(event, (dx, dy, at) => ({
      kind: "move-handle",
      part: part.id,
      point,
      side,
      x: x + dx,
      y: y + dy,
      alone: at.altKey,
      constrained: at.shiftKey,
    }));
  }

  #dragSegment(event, part, name) {
    const point = pair(name);
    const [x, y] = this.marks.stage.toLogical(event);
    this.marks.follow(
      event,
      (dx, dy) => ({ kind: "drag-segment", part: part.id, point, x, y, dx, dy }),
      (moved) => {
        if (!moved) this.choose([name]);
      },
    );
  }

  #dragEnd(event, part, index) {
    this.marks.follow(event, (dx, dy, keys) => ({
      kind: "move-end",
      part: part.id,
      end: index ? "end" : "start",
      dx: this.marks.whole(dx),
      dy: this.marks.whole(dy),
      constrained: keys.shiftKey,
    }));
  }

  /** A double click on a segment adds a point there. @returns {boolean} */
  addAt(event, name) {
    const { part } = this.marks.bench;
    const point = pair(name);
    const [x, y] = this.marks.stage.toLogical(event);
    this.chosen = new Set([key(point[0], point[1] + 1)]);
    this.marks.bench.post({ kind: "add-point", part: part.id, point, x, y });
    return true;
  }

  /** @returns {object} the edit that moves the chosen points */
  moved(dx, dy) {
    return { kind: "move-points", part: this.marks.bench.part.id, points: this.list, dx, dy };
  }

  /** A word of the sheet, for the chosen points. */
  command(name) {
    const { bench } = this.marks;
    const part = bench.part.id;
    const points = this.list;
    if (!points.length || (name === "join" && points.length !== 2)) {
      bench.complain(
        name === "join"
          ? "Choose the two open ends to join: press one, then Shift and press the other."
          : "Choose points first: press one on the stage, with Shift more.",
      );
      return;
    }
    const edits = {
      smooth: { kind: "bend-points", part, points, smooth: true },
      sharp: { kind: "bend-points", part, points, smooth: false },
      cut: { kind: "cut-open", part, point: points[0] },
      join: { kind: "join-ends", part, points },
      remove: { kind: "remove-points", part, points },
    };
    if (name !== "smooth" && name !== "sharp") this.clear();
    bench.post(edits[name]);
  }
}
