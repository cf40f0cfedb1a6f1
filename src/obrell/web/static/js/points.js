/** The points of a path or a line on the stage, and the pen that draws new ones. */
import { short, svg } from "./marks.js";

const NEAR_PX = 9;
const key = (contour, index) => `${contour}/${index}`;
const pair = (name) => name.split("/").map(Number);

/** From a part's own space to the canvas and back; vectors when `free`. */
function turned(part, x, y, way = 1, free = false) {
  const angle = (way * part.turn * Math.PI) / 180;
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  const [px, py] = free ? [0, 0] : [part.x, part.y];
  if (way > 0) return [px + cos * x - sin * y, py + sin * x + cos * y];
  return [cos * (x - px) - sin * (y - py), sin * (x - px) + cos * (y - py)];
}

/** Length and direction of a stretch, as it is shown beside the pointer. */
const measured = (dx, dy) => {
  const degrees = ((Math.atan2(dx, -dy) * 180) / Math.PI + 360) % 360;
  return `${short(Math.hypot(dx, dy))} at ${short(Math.round(degrees * 10) / 10)}°`;
};

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
    return this.marks.stage.toScreen(...turned(part, x, y));
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
      this.marks.svg.append(svg("path", { class: "spine", d }), svg("path", { class: "vein", d, "data-segment": key(number, index) }));
    }
    knots.forEach((knot, index) => {
      const name = key(number, index);
      const on = this.chosen.has(name);
      const [x, y] = this.screen(part, knot[0], knot[1]);
      if (on) this.#handles(part, knot, name, x, y);
      const shape = knot[6] ? svg("circle", { cx: x, cy: y, r: 4.5 })
        : svg("rect", { x: x - 4, y: y - 4, width: 8, height: 8 });
      shape.setAttribute("class", on ? "knot on" : "knot");
      shape.dataset.knot = name;
      this.marks.svg.append(shape);
    });
  }

  #handles(part, knot, name, x, y) {
    for (const [side, dx, dy] of [["in", knot[2], knot[3]], ["out", knot[4], knot[5]]]) {
      if (!dx && !dy) continue;
      const [hx, hy] = this.screen(part, knot[0] + dx, knot[1] + dy);
      this.marks.svg.append(svg("path", { class: "arm", d: `M${x} ${y}L${hx} ${hy}` }),
        svg("circle", { class: "grip", cx: hx, cy: hy, r: 4, "data-grip": name, "data-side": side }));
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
    if (event.shiftKey) names = this.chosen.has(name) ? [...this.chosen].filter((other) => other !== name) : [...this.chosen, name];
    this.chosen = new Set(names);
    this.marks.draw();
    const [marks, points] = [this.marks, this.list];
    const edit = (dx, dy, at) => ({
      kind: "move-points", part: part.id, points, dx: marks.whole(dx), dy: marks.whole(dy), constrained: at.shiftKey,
    });
    this.marks.follow(event, edit, (moved) => !moved && this.marks.bench.refresh());
  }

  #dragHandle(event, part, name, side) {
    const point = pair(name);
    const knot = part.contours[point[0]].knots[point[1]];
    const offset = side === "in" ? 2 : 4;
    const [x, y] = turned(part, knot[0] + knot[offset], knot[1] + knot[offset + 1]);
    this.marks.follow(event, (dx, dy, at) => ({
      kind: "move-handle", part: part.id, point, side, x: x + dx, y: y + dy, alone: at.altKey, constrained: at.shiftKey,
    }));
  }

  #dragSegment(event, part, name) {
    const point = pair(name);
    const at = this.#along(part, point, event);
    this.marks.follow(event, (dx, dy) => ({ kind: "drag-segment", part: part.id, point, at, dx, dy }), (moved) => {
      if (!moved) this.choose([name]);
    });
  }

  #dragEnd(event, part, index) {
    this.marks.follow(event, (dx, dy, keys) => ({
      kind: "move-end", part: part.id, end: index ? "end" : "start",
      dx: this.marks.whole(dx), dy: this.marks.whole(dy), constrained: keys.shiftKey,
    }));
  }

  /** The parameter of the place on a segment nearest to the pointer. */
  #along(part, [contour, index], event) {
    const { knots } = part.contours[contour];
    let [a, b] = [knots[index], knots[(index + 1) % knots.length]];
    if (!(a[4] || a[5] || b[2] || b[3])) {
      const [dx, dy] = [(b[0] - a[0]) / 3, (b[1] - a[1]) / 3];
      [a, b] = [[a[0], a[1], 0, 0, dx, dy], [b[0], b[1], -dx, -dy]];
    }
    const [x, y] = turned(part, ...this.marks.stage.toLogical(event), -1);
    let [best, nearest] = [0.5, Infinity];
    for (let t = 0.02; t < 1; t += 0.02) {
      const u = 1 - t;
      const mix = (axis) => u ** 3 * a[axis] + 3 * u * u * t * (a[axis] + a[4 + axis])
        + 3 * u * t * t * (b[axis] + b[2 + axis]) + t ** 3 * b[axis];
      const far = Math.hypot(mix(0) - x, mix(1) - y);
      if (far < nearest) [best, nearest] = [t, far];
    }
    return best;
  }

  /** A double click on a segment adds a point there. @returns {boolean} */
  addAt(event, name) {
    const { part } = this.marks.bench;
    const point = pair(name);
    const at = this.#along(part, point, event);
    this.chosen = new Set([key(point[0], point[1] + 1)]);
    this.marks.bench.post({ kind: "add-point", part: part.id, point, at });
    return true;
  }

  move(dx, dy) {
    this.marks.bench.post({ kind: "move-points", part: this.marks.bench.part.id, points: this.list, dx, dy });
  }

  /** A word of the sheet, for the chosen points. */
  command(name) {
    const { bench } = this.marks;
    const part = bench.part.id;
    const points = this.list;
    if (name === "simplify") {
      this.clear();
      bench.post({ kind: "simplify", part });
      return;
    }
    if (!points.length || (name === "join" && points.length !== 2)) {
      bench.complain(name === "join" ? "Choose the two open ends to join: press one, then Shift and press the other."
        : "Choose points first: press one on the stage, with Shift more.");
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

/** The pen: every press is one saved point; the next is shown before it is made. */
export class Pen {
  constructor(marks) {
    this.marks = marks;
    this.first = null;
    this.going = null;
    marks.stage.element.addEventListener("pointermove", (event) => this.#hover(event));
  }

  end() {
    if (this.going || this.first) this.marks.stage.preview(null);
    [this.first, this.going, this.words] = [null, null, null];
  }

  key(name) {
    if (name === "Backspace" && this.going) this.marks.bench.step("undo").then(() => this.#check());
    else this.marks.take("");
  }

  /** After an undo the path, or its last point, may be gone. */
  #check() {
    if (this.going && !this.marks.bench.partOf(this.going.part)) this.end();
  }

  draw() {
    if (this.first) {
      const [x, y] = this.marks.stage.toScreen(this.first.x, this.first.y);
      this.marks.svg.append(svg("circle", { class: "knot", cx: x, cy: y, r: 5 }));
    }
    if (!this.words) return;
    const [x, y] = this.marks.stage.toScreen(...this.words.at);
    this.marks.svg.append(svg("text", { x, y: y - 18 }, this.words.text));
  }

  get #run() {
    const part = this.going && this.marks.bench.partOf(this.going.part);
    return part?.contours[this.going.contour];
  }

  /** Where the last point is, on the canvas. */
  #last() {
    if (this.first) return [this.first.x, this.first.y];
    const run = this.#run;
    if (!run) return null;
    const knot = run.knots[this.going.atStart ? 0 : run.knots.length - 1];
    return turned(this.marks.bench.partOf(this.going.part), knot[0], knot[1]);
  }

  #place(event) {
    const { stage } = this.marks;
    const last = this.#last();
    let [x, y] = stage.toLogical(event).map((value) => this.marks.whole(value));
    if (event.shiftKey && last) {
      const step = Math.PI / 4;
      const angle = Math.round(Math.atan2(y - last[1], x - last[0]) / step) * step;
      const length = (x - last[0]) * Math.cos(angle) + (y - last[1]) * Math.sin(angle);
      [x, y] = [last[0] + Math.cos(angle) * length, last[1] + Math.sin(angle) * length];
    }
    return { x: Math.round(x * 1e6) / 1e6, y: Math.round(y * 1e6) / 1e6 };
  }

  #near(event, part, knot) {
    const [x, y] = this.marks.stage.toScreen(...turned(part, knot[0], knot[1]));
    const box = this.marks.stage.element.getBoundingClientRect();
    return Math.hypot(event.clientX - box.left - x, event.clientY - box.top - y) < NEAR_PX;
  }

  /** The far end of the run that is drawn, when the pointer is on it. */
  #closing(event) {
    const run = this.#run;
    if (!run || run.knots.length < 3) return false;
    const knot = run.knots[this.going.atStart ? run.knots.length - 1 : 0];
    return this.#near(event, this.marks.bench.partOf(this.going.part), knot);
  }

  /** An open end of the selected path under the pointer. */
  #openEnd(event) {
    const { part } = this.marks.bench;
    for (const [contour, run] of (part?.contours || []).entries()) {
      if (run.closed) continue;
      if (this.#near(event, part, run.knots[0])) return { part: part.id, contour, atStart: true };
      if (this.#near(event, part, run.knots[run.knots.length - 1])) return { part: part.id, contour, atStart: false };
    }
    return null;
  }

  #edit(knot) {
    if (this.first) return { kind: "pen-start", first: this.first, second: knot };
    const { part, contour, atStart } = this.going;
    return { kind: "pen-next", part, contour, at_start: atStart, knot };
  }

  #hover(event) {
    if (this.marks.tool !== "pen" || this.held || (!this.first && !this.going)) return;
    const place = this.#place(event);
    const last = this.#last();
    if (!last) return;
    this.words = { at: [place.x, place.y], text: measured(place.x - last[0], place.y - last[1]) };
    if (!this.#closing(event)) this.marks.stage.preview(this.#edit(place));
    else this.marks.stage.preview({ kind: "close-path", part: this.going.part, contour: this.going.contour });
  }

  press(event) {
    const { bench, stage } = this.marks;
    if (this.going && this.#closing(event)) {
      const { part, contour } = this.going;
      bench.post({ kind: "close-path", part, contour }).then(() => this.marks.take(""));
      return;
    }
    if (!this.going && !this.first) {
      this.going = this.#openEnd(event);
      if (this.going) return;
    }
    const knot = this.#place(event);
    const fresh = !this.going && !this.first;
    this.held = true;
    const move = (at) => {
      const [x, y] = stage.toLogical(at);
      const [dx, dy] = [this.marks.whole(x - knot.x), this.marks.whole(y - knot.y)];
      const far = Math.hypot(dx, dy) * stage.zoom > 3;
      Object.assign(knot, far ? { in_x: -dx, in_y: -dy, out_x: dx, out_y: dy } : { in_x: 0, in_y: 0, out_x: 0, out_y: 0 });
      this.words = { at: [x, y], text: measured(dx, dy) };
      if (!fresh) stage.preview(this.#edit(knot));
    };
    window.addEventListener("pointermove", move);
    window.addEventListener("pointerup", () => {
      window.removeEventListener("pointermove", move);
      this.held = false;
      this.#keep(knot, fresh);
    }, { once: true });
  }

  async #keep(knot, fresh) {
    if (fresh) {
      this.first = knot;
      this.marks.draw();
      return;
    }
    const started = Boolean(this.first);
    const state = await this.marks.bench.post(this.#edit(knot));
    if (started && state) [this.first, this.going] = [null, { part: state.fresh[0], contour: 0, atStart: false }];
  }
}
