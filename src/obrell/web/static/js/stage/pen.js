/** The pen: paths drawn point by point. */
import { follow } from "../ui/drags.js";
import { svg } from "../ui/svg.js";
import { short, toCanvas } from "./plane.js";

const NEAR_PX = 9;

/** Length and direction of a stretch, as it is shown beside the pointer. */
const measured = (dx, dy) => {
  const degrees = ((Math.atan2(dx, -dy) * 180) / Math.PI + 360) % 360;
  return `${short(Math.hypot(dx, dy))} at ${short(Math.round(degrees * 10) / 10)}°`;
};

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
    const spot = this.spot && { ...this.spot };
    if (name === "Enter" && spot) this.#next(() => this.#putByKey(spot));
    else if (name === "Backspace" && this.going) this.#back();
    else this.marks.take("");
  }

  /** @param {{x: number, y: number}} spot where the pen was when the key was pressed; it may be led on meanwhile */
  async #putByKey(spot) {
    const run = this.#run;
    const knot = run?.knots.length >= 3 && run.knots[this.going.atStart ? run.knots.length - 1 : 0];
    const [x, y] = knot ? toCanvas(this.#part, knot[0], knot[1]) : [];
    if (knot && Math.hypot(x - spot.x, y - spot.y) < 0.5) await this.#close();
    else await this.#keep(spot, false);
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
    const keep = () => {
      this.held = false;
      this.#next(() => (this.going && this.#closing(event) ? this.#close() : this.#keep(knot, constrained)));
    };
    follow(event, { move, done: keep, back: keep });
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
