/**
 * What is pulled on the stage: new parts, handles, edges of the canvas.
 *
 * @typedef {import("./types.js").Handle} Handle
 * @typedef {import("./types.js").Held} Held
 * @typedef {import("./types.js").Marks} Marks
 * @typedef {import("./types.js").ScenePart} ScenePart
 */
import { say } from "../ui/page.js";
import { short, toCanvas } from "./plane.js";

/** @param {Held|PointerEvent} keys */
const modifiers = (keys) => ({ constrained: keys.shiftKey, centred: keys.altKey });
/** @type {Object<string, string>} */
const SIDES = {
  n: "upper edge",
  ne: "upper right corner",
  e: "right edge",
  se: "lower right corner",
  s: "lower edge",
  sw: "lower left corner",
  w: "left edge",
  nw: "upper left corner",
};
/** @type {Object<string, (dx: number, dy: number) => number>} */
const OUTWARDS = { left: (dx) => -dx, right: (dx) => dx, top: (_dx, dy) => -dy, bottom: (_dx, dy) => dy };

export class Pulls {
  /** @param {Marks} marks */
  constructor(marks) {
    this.marks = marks;
  }

  /** @param {string} id @returns {ScenePart} a part as it is shown now */
  #shown(id) {
    const { bench, now } = this.marks;
    const part = now.parts.find((one) => one.id === id) ?? bench.partOf(id);
    if (!part) throw new Error(`There is no part ${id}.`);
    return part;
  }

  /** @param {string} id the width and height of a part */
  #size(id) {
    const [left, top, right, bottom] = this.#shown(id).frame;
    return `${short(right - left)} × ${short(bottom - top)}`;
  }

  /** @param {PointerEvent} event */
  drawPart(event) {
    const shape = this.marks.tool;
    const [x, y] = this.marks.stage.toLogical(event).map((value) => this.marks.fine(value));
    this.marks.drawing = true;
    /** @type {import("./types.js").Pull} */
    const edit = (dx, dy, keys) => ({
      kind: "draw",
      shape,
      values: this.marks.values,
      x0: x,
      y0: y,
      x1: this.marks.fine(x + dx),
      y1: this.marks.fine(y + dy),
      ...modifiers(keys),
      snap: this.marks.snap,
    });
    this.marks.follow(event, edit, (moved) => {
      this.marks.drawing = false;
      this.marks.take("");
      const made = moved ? null : edit(0, 0, event);
      if (made) this.marks.bench.post(made);
    });
  }

  /** @param {string} handle @returns {Handle|null} */
  sizing(handle) {
    const { part } = this.marks.bench;
    if (!part) return null;
    /** @type {import("./types.js").Edit|null} */
    let last = null;
    return {
      words: SIDES[handle],
      value: () => this.#size(part.id),
      edit: (dx, dy, keys) => {
        last = {
          kind: "resize",
          part: part.id,
          handle,
          dx: this.marks.fine(dx),
          dy: this.marks.fine(dy),
          ...modifiers(keys),
          snap: keys.led ? null : this.marks.snap,
        };
        return last;
      },
      after: (moved) => moved && last && this.#askForEffects(part.id, last),
    };
  }

  /** @param {string} handle @returns {Handle|null} */
  cropping(handle) {
    const { part } = this.marks.bench;
    if (!part) return null;
    return {
      words: `${SIDES[handle]} of the crop`,
      value: () => this.#size(part.id),
      edit: (dx, dy) => ({
        kind: "crop",
        part: part.id,
        handle,
        dx: this.marks.fine(dx),
        dy: this.marks.fine(dy),
      }),
    };
  }

  /** After a pull, the lengths of effects can be made to scale along. @param {string} id @param {object} edit */
  #askForEffects(id, edit) {
    const { bench } = this.marks;
    const part = bench.state.clip.find((one) => one.id === id);
    if (!part?.effects?.length) return;
    say(`The effects of ${part.name} kept their lengths.`, {
      words: "Scale them along",
      act: async () => {
        await bench.step("undo");
        bench.post({ kind: "resize", ...edit, effects: true });
      },
    });
  }

  /** A grip of the part's own kind, as a ring's inner radius. @param {string} name @returns {Handle|null} */
  gripping(name) {
    const { part } = this.marks.bench;
    const grip = part?.grips?.find(([one]) => one === name);
    if (!part || !grip) return null;
    const [x, y] = toCanvas(part, grip[1], grip[2]);
    return {
      words: grip[3],
      value: () => this.#shown(part.id).grips?.find(([one]) => one === name)?.[4] ?? "",
      edit: (dx, dy, keys) => ({
        kind: "pull-grip",
        part: part.id,
        grip: name,
        x: x + dx,
        y: y + dy,
        ...modifiers(keys),
      }),
    };
  }

  /** @param {string} id @returns {Handle|null} */
  turning(id) {
    const part = this.marks.bench.partOf(id);
    if (!part) return null;
    /** @param {number} x @param {number} y */
    const angleOf = (x, y) => (Math.atan2(x - part.x, part.y - y) * 180) / Math.PI;
    return {
      words: "turn",
      value: () => `${short(this.#shown(id).turn)}°`,
      edit: (dx, dy, keys) => {
        const [x, y] = keys.from ?? [part.x, part.y];
        const by = keys.led ? dx + dy : angleOf(x + dx, y + dy) - angleOf(x, y);
        const degrees = Math.round((part.turn + by) * 10) / 10;
        return { kind: "turn", part: id, degrees, constrained: keys.shiftKey };
      },
    };
  }

  /** @param {string} side @returns {Handle} */
  edge(side) {
    return {
      begin: () => {
        this.marks.sizing = true;
      },
      words: `${side} edge of the canvas`,
      value: () => `${short(this.marks.now.canvas[0])} × ${short(this.marks.now.canvas[1])}`,
      edit: (dx, dy, keys) => ({
        kind: "canvas-edges",
        [side]: Math.round(OUTWARDS[side](dx, dy)),
        centred: keys.altKey,
      }),
      after: () => {
        this.marks.sizing = false;
        this.marks.draw();
      },
    };
  }
}
