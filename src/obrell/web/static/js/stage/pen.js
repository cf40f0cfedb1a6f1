/**
 * The pen: paths drawn point by point.
 *
 * @typedef {import("./types.js").Edit} Edit
 * @typedef {import("./types.js").Held} Held
 * @typedef {import("./types.js").Knot} Knot
 * @typedef {import("./types.js").Marks} Marks
 * @typedef {import("./types.js").ScenePart} ScenePart
 * @typedef {{x: number, y: number, in_x?: number, in_y?: number, out_x?: number, out_y?: number}} Spot
 * @typedef {{part: string, contour: number, atStart: boolean}} Going the end that is drawn on at
 */
import { follow } from "../ui/drags.js";
import { svg } from "../ui/svg.js";
import { measured, toCanvas } from "./plane.js";

const NEAR_PX = 9;

/** @param {Marks["stage"]} stage @param {PointerEvent} event @param {[number, number]} place of the canvas */
function isNear(stage, event, place) {
  const [x, y] = stage.toScreen(...place);
  const box = stage.element.getBoundingClientRect();
  return Math.hypot(event.clientX - box.left - x, event.clientY - box.top - y) < NEAR_PX;
}

/** @param {Marks} marks @param {PointerEvent} event @returns {Spot} */
function placeOf(marks, event) {
  const [x, y] = marks.stage.toLogical(event).map((value) => marks.whole(value));
  return { x, y };
}

/** Where the pen is when it is led by keys. @param {Marks} marks @param {Spot} spot */
function drawSpot(marks, spot) {
  const [x, y] = marks.stage.toScreen(spot.x, spot.y);
  marks.svg.append(svg("path", { class: "spot", d: `M${x - 9} ${y}h18M${x} ${y - 9}v18` }));
}

/** An open end of the selected path under the pointer. @param {Marks} marks @param {PointerEvent} event
 * @returns {Going|null} */
function openEnd({ bench, stage }, event) {
  const { part } = bench;
  if (!part) return null;
  /** @param {Knot} knot */
  const near = ([x, y]) => isNear(stage, event, toCanvas(part, x, y));
  for (const [contour, run] of (part.contours ?? []).entries()) {
    if (run.closed) continue;
    if (near(run.knots[0])) return { part: part.id, contour, atStart: true };
    if (near(run.knots[run.knots.length - 1])) return { part: part.id, contour, atStart: false };
  }
  return null;
}

/** The two ends of the segment that is being drawn, on the canvas, as the stage shows it.
 * @param {ScenePart[]} parts @param {Going|null} going none for a path that begins */
function newest(parts, going) {
  const part = going ? parts.find((one) => one.id === going.part) : parts[parts.length - 1];
  const run = part?.contours?.[going ? going.contour : 0];
  if (!part || !run || run.closed) return null;
  const ends = going?.atStart ? run.knots.slice(0, 2).reverse() : run.knots.slice(-2);
  return ends.map(([x, y]) => toCanvas(part, x, y));
}

/** The pen: every press is one saved point; the next is shown before it is made. */
export class Pen {
  /** @param {Marks} marks */
  constructor(marks) {
    this.marks = marks;
    /** @type {Spot|null} */
    this.first = null;
    /** @type {Going|null} */
    this.going = null;
    /** The path as the last answer had it. @type {ScenePart|null} */
    this.drawn = null;
    /** Where the next point goes when the pen is led by keys. @type {Spot|null} */
    this.spot = null;
    this.held = false;
    /** Where the pointer has gone since it put a point. @type {PointerEvent|null} */
    this.over = null;
    /** @type {Promise<unknown>|null} */
    this.saving = null;
    marks.stage.element.addEventListener("pointermove", (event) => this.#hover(event));
  }

  /** The pen is laid down: what was put by then is kept first. */
  end() {
    if (this.saving) this.#next(async () => this.#clear());
    else this.#clear();
  }

  #clear() {
    if (this.going || this.first) this.marks.stage.preview(null);
    this.first = null;
    this.going = null;
    this.spot = null;
    this.drawn = null;
  }

  /**
   * Arrow keys lead the pen from the middle of the canvas, Enter puts a point.
   *
   * @param {number} dx @param {number} dy
   */
  lead(dx, dy) {
    const [width, height] = this.marks.now.canvas;
    this.over = null;
    const from = this.spot || { x: Math.round(width / 2), y: Math.round(height / 2) };
    this.spot = { x: from.x + dx, y: from.y + dy };
    if (this.first || this.going) this.marks.stage.preview(this.#edit(this.spot, { led: true }));
    else this.marks.draw();
  }

  /** @param {string} name Enter or Backspace */
  key(name) {
    const spot = this.spot && { ...this.spot };
    if (name === "Enter" && spot) this.#next(() => this.#putByKey(spot));
    else if (name === "Backspace" && this.going) this.#back();
    else this.marks.take("");
  }

  /** @param {Spot} spot where the pen was when the key was pressed; it may be led on meanwhile */
  async #putByKey(spot) {
    const far = this.#farEnd;
    if (far && Math.hypot(far[0] - spot.x, far[1] - spot.y) < 0.5) await this.#close();
    else await this.#keep(spot, { led: true });
  }

  async #close() {
    if (!this.going) return;
    const { part, contour } = this.going;
    await this.marks.bench.post({ kind: "close-path", part, contour });
    this.marks.take("");
  }

  /** After an undo the path, or its last point, may be gone. */
  async #back() {
    await this.marks.bench.step("undo");
    this.drawn = null;
    if (this.going && !this.marks.bench.partOf(this.going.part)) this.end();
  }

  draw() {
    if (this.spot && this.marks.tool === "pen") drawSpot(this.marks, this.spot);
    if (this.first) {
      const [x, y] = this.marks.stage.toScreen(this.first.x, this.first.y);
      this.marks.svg.append(svg("circle", { class: "knot", cx: x, cy: y, r: 5 }));
    }
    const drawing = this.marks.stage.edit && (this.going || this.first);
    const stretch = drawing ? newest(this.marks.now.parts, this.going) : null;
    if (!stretch) return;
    const [from, to] = stretch;
    const [x, y] = this.marks.stage.toScreen(...to);
    this.marks.svg.append(svg("text", { x, y: y - 18 }, measured(to[0] - from[0], to[1] - from[1])));
  }

  /** The path that is drawn, as the last answer had it. */
  get #part() {
    return this.going ? (this.drawn ?? this.marks.bench.partOf(this.going.part)) : undefined;
  }

  /** The other end of the run that is drawn, on the canvas, when it can be closed there. */
  get #farEnd() {
    const part = this.#part;
    const knots = this.going && part?.contours?.[this.going.contour]?.knots;
    if (!knots || knots.length < 3) return null;
    const [x, y] = knots[this.going?.atStart ? knots.length - 1 : 0];
    return toCanvas(part, x, y);
  }

  /** Whether the pointer is on the far end of the run that is drawn. @param {PointerEvent} event */
  #closing(event) {
    const far = this.#farEnd;
    return far !== null && isNear(this.marks.stage, event, far);
  }

  /** The edit that puts a point. @param {Spot} knot @param {Partial<Held>} keys @returns {Edit|null} */
  #edit(knot, keys) {
    const how = { constrained: Boolean(keys.shiftKey), snap: this.marks.placing(keys) };
    if (this.first) {
      return { kind: "pen-start", first: this.first, second: knot, ...how };
    }
    if (!this.going) return null;
    const { part, contour, atStart } = this.going;
    return { kind: "pen-next", part, contour, at_start: atStart, knot, ...how };
  }

  /** @param {PointerEvent} event */
  #hover(event) {
    if (this.marks.tool !== "pen" || this.held) return;
    this.over = event;
    // A point that is being saved shows what comes after it once it is there.
    if (this.saving || (!this.first && !this.going)) return;
    if (!this.going || !this.#closing(event)) this.marks.stage.preview(this.#edit(placeOf(this.marks, event), event));
    else this.marks.stage.preview({ kind: "close-path", part: this.going.part, contour: this.going.contour });
  }

  /** @param {PointerEvent} event */
  press(event) {
    const { stage } = this.marks;
    this.spot = null;
    this.over = null;
    if (!this.going && !this.first && !this.saving) {
      this.going = openEnd(this.marks, event);
      if (this.going) return;
    }
    const knot = placeOf(this.marks, event);
    this.held = true;
    /** @param {PointerEvent} at */
    const move = (at) => {
      const [x, y] = stage.toLogical(at);
      const [dx, dy] = [this.marks.whole(x - knot.x), this.marks.whole(y - knot.y)];
      const far = Math.hypot(dx, dy) * stage.zoom > 3;
      Object.assign(
        knot,
        far ? { in_x: -dx, in_y: -dy, out_x: dx, out_y: dy } : { in_x: 0, in_y: 0, out_x: 0, out_y: 0 },
      );
      if (this.first || this.going) stage.preview(this.#edit(knot, event));
    };
    const keep = () => {
      this.held = false;
      this.#next(() => (this.going && this.#closing(event) ? this.#close() : this.#keep(knot, event)));
    };
    follow(event, { move, done: keep, back: keep });
  }

  /** Points are saved one after the other, however fast they are put, each on the state the last one left,
   * which is shown only once the press is over. @param {() => Promise<void>} action */
  #next(action) {
    const settled = () => new Promise((done) => setTimeout(done, 0, null));
    const saving = (this.saving || Promise.resolve())
      .then(settled)
      .then(action)
      .finally(() => {
        if (this.saving !== saving) return;
        this.saving = null;
        if (this.over) this.#hover(this.over);
      });
    this.saving = saving;
  }

  /** @param {Spot} knot @param {Partial<Held>} keys */
  async #keep(knot, keys) {
    if (this.first || this.going) await this.#save(knot, keys);
    else {
      this.first = knot;
      this.marks.draw();
    }
  }

  /** @param {Spot} knot @param {Partial<Held>} keys */
  async #save(knot, keys) {
    const started = Boolean(this.first);
    const edit = this.#edit(knot, keys);
    const state = edit && (await this.marks.bench.post(edit));
    if (!state) return;
    if (started && state.fresh) {
      this.first = null;
      this.going = { part: state.fresh[0], contour: 0, atStart: false };
    }
    const id = this.going?.part;
    this.drawn = state.scene.parts.find((part) => part.id === id) ?? null;
  }
}
