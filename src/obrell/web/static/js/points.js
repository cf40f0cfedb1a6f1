/** The points of a path or a line on the stage, and the pen that draws new ones. */
import { short, svg, toCanvas } from "./marks.js";

const NEAR_PX = 9;
const key = (contour, index) => `${contour}/${index}`;
const pair = (name) => name.split("/").map(Number);

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

  move(dx, dy) {
    this.marks.bench.post({ kind: "move-points", part: this.marks.bench.part.id, points: this.list, dx, dy });
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

/** The pen: every press is one saved point; the next is shown before it is made. */
export class Pen {
  constructor(marks) {
    this.marks = marks;
    this.first = null;
    [this.going, this.drawn] = [null, null];
    /** Where the next point goes when the pen is led by keys. */
    this.spot = null;
    marks.stage.element.addEventListener("pointermove", (event) => this.#hover(event));
  }

  end() {
    if (this.going || this.first) this.marks.stage.preview(null);
    [this.first, this.going, this.spot, this.drawn] = [null, null, null, null];
  }

  /** Arrow keys lead the pen from the middle of the canvas, Enter puts a point. */
  lead(dx, dy) {
    const [width, height] = this.marks.now.canvas;
    const from = this.spot || { x: Math.round(width / 2), y: Math.round(height / 2) };
    this.spot = { x: from.x + dx, y: from.y + dy };
    if (this.first || this.going) this.marks.stage.preview(this.#edit(this.spot, false));
    else this.marks.draw();
  }

  key(name) {
    if (name === "Enter" && this.spot) this.#next(() => this.#putByKey());
    else if (name === "Backspace" && this.going) this.#back();
    else this.marks.take("");
  }

  async #putByKey() {
    const run = this.#run;
    const knot = run?.knots.length >= 3 && run.knots[this.going.atStart ? run.knots.length - 1 : 0];
    const [x, y] = knot ? toCanvas(this.#part, knot[0], knot[1]) : [];
    if (knot && Math.hypot(x - this.spot.x, y - this.spot.y) < 0.5) await this.#close();
    else await this.#keep({ ...this.spot }, false);
  }

  #close() {
    const { part, contour } = this.going;
    return this.marks.bench.post({ kind: "close-path", part, contour }).then(() => this.marks.take(""));
  }

  /** After an undo the path, or its last point, may be gone. */
  async #back() {
    await this.marks.bench.step("undo");
    this.drawn = null;
    if (this.going && !this.marks.bench.partOf(this.going.part)) this.end();
  }

  draw() {
    if (this.spot && this.marks.tool === "pen") {
      const [x, y] = this.marks.stage.toScreen(this.spot.x, this.spot.y);
      this.marks.svg.append(svg("path", { class: "spot", d: `M${x - 9} ${y}h18M${x} ${y - 9}v18` }));
    }
    if (this.first) {
      const [x, y] = this.marks.stage.toScreen(this.first.x, this.first.y);
      this.marks.svg.append(svg("circle", { class: "knot", cx: x, cy: y, r: 5 }));
    }
    const stretch = this.marks.stage.edit && this.#newest();
    if (!stretch) return;
    const [from, to] = stretch;
    const [x, y] = this.marks.stage.toScreen(...to);
    this.marks.svg.append(svg("text", { x, y: y - 18 }, measured(to[0] - from[0], to[1] - from[1])));
  }

  /** The path that is drawn, as the last answer had it. */
  get #part() {
    return this.going && (this.drawn || this.marks.bench.partOf(this.going.part));
  }

  get #run() {
    return this.#part?.contours[this.going.contour];
  }

  /** The two ends of the segment that is being drawn, on the canvas, as the stage shows it. */
  #newest() {
    const { parts } = this.marks.now;
    const part = this.going ? parts.find((one) => one.id === this.going.part) : parts[parts.length - 1];
    const run = part?.contours?.[this.going?.contour ?? 0];
    if (!run || run.closed || !(this.going || this.first)) return null;
    const ends = this.going?.atStart ? run.knots.slice(0, 2).reverse() : run.knots.slice(-2);
    return ends.map(([x, y]) => toCanvas(part, x, y));
  }

  #place(event) {
    const [x, y] = this.marks.stage.toLogical(event).map((value) => this.marks.whole(value));
    return { x, y };
  }

  #near(event, part, knot) {
    const [x, y] = this.marks.stage.toScreen(...toCanvas(part, knot[0], knot[1]));
    const box = this.marks.stage.element.getBoundingClientRect();
    return Math.hypot(event.clientX - box.left - x, event.clientY - box.top - y) < NEAR_PX;
  }

  /** The far end of the run that is drawn, when the pointer is on it. */
  #closing(event) {
    const run = this.#run;
    if (!run || run.knots.length < 3) return false;
    const knot = run.knots[this.going.atStart ? run.knots.length - 1 : 0];
    return this.#near(event, this.#part, knot);
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

  #edit(knot, constrained) {
    if (this.first) return { kind: "pen-start", first: this.first, second: knot, constrained };
    const { part, contour, atStart } = this.going;
    return { kind: "pen-next", part, contour, at_start: atStart, knot, constrained };
  }

  #hover(event) {
    if (this.marks.tool !== "pen" || this.held || (!this.first && !this.going)) return;
    if (!this.#closing(event)) this.marks.stage.preview(this.#edit(this.#place(event), event.shiftKey));
    else this.marks.stage.preview({ kind: "close-path", part: this.going.part, contour: this.going.contour });
  }

  press(event) {
    const { stage } = this.marks;
    this.spot = null;
    if (!this.going && !this.first && !this.saving) {
      this.going = this.#openEnd(event);
      if (this.going) return;
    }
    const knot = this.#place(event);
    const constrained = event.shiftKey;
    this.held = true;
    const move = (at) => {
      const [x, y] = stage.toLogical(at);
      const [dx, dy] = [this.marks.whole(x - knot.x), this.marks.whole(y - knot.y)];
      const far = Math.hypot(dx, dy) * stage.zoom > 3;
      Object.assign(
        knot,
        far ? { in_x: -dx, in_y: -dy, out_x: dx, out_y: dy } : { in_x: 0, in_y: 0, out_x: 0, out_y: 0 },
      );
      if (this.first || this.going) stage.preview(this.#edit(knot, constrained));
    };
    window.addEventListener("pointermove", move);
    window.addEventListener(
      "pointerup",
      () => {
        window.removeEventListener("pointermove", move);
        this.held = false;
        this.#next(() => (this.going && this.#closing(event) ? this.#close() : this.#keep(knot, constrained)));
      },
      { once: true },
    );
  }

  /** Points are saved one after the other, however fast they are put, each on the state the last one left,
   * which is shown only once the press is over. */
  #next(action) {
    const settled = () => new Promise((done) => setTimeout(done, 0));
    const saving = (this.saving || Promise.resolve())
      .then(settled)
      .then(action)
      .finally(() => {
        if (this.saving === saving) this.saving = null;
      });
    this.saving = saving;
  }

  async #keep(knot, constrained) {
    if (!this.first && !this.going) {
      this.first = knot;
      this.marks.draw();
      return;
    }
    const started = Boolean(this.first);
    const state = await this.marks.bench.post(this.#edit(knot, constrained));
    if (started && state) [this.first, this.going] = [null, { part: state.fresh[0], contour: 0, atStart: false }];
    if (state && this.going) this.drawn = state.scene.parts.find((part) => part.id === this.going.part);
  }
}
