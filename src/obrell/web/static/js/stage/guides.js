/**
 * Guides: pulled out of a ruler, moved, and dragged back onto it.
 *
 * @typedef {import("./types.js").Axis} Axis
 * @typedef {import("./types.js").Handle} Handle
 * @typedef {import("./types.js").Marks} Marks
 */
import { follow } from "../ui/drags.js";
import { RULER_PX } from "./bars.js";
import { short } from "./plane.js";

export class Guides {
  /** @param {Marks} marks */
  constructor(marks) {
    this.marks = marks;
  }

  /** A guide pulled out of a ruler; let go on the ruler it is none. @param {PointerEvent} event @param {Axis} axis */
  pull(event, axis) {
    const { bench, stage } = this.marks;
    /** @param {PointerEvent} now */
    const edit = (now) => {
      const [x, y] = stage.toLogical(now);
      const at = this.marks.whole(axis === "across" ? x : y);
      return {
        kind: "add-guide",
        axis,
        at,
        constrained: now.shiftKey,
        centred: now.altKey,
        snap: this.marks.placing(now),
      };
    };
    follow(event, {
      move: (now) => stage.preview(this.#onRuler(axis, now) ? null : edit(now)),
      done: (now) => {
        stage.preview(null);
        if (!this.#onRuler(axis, now)) bench.post(edit(now));
      },
      back: () => stage.preview(null),
    });
  }

  /** @param {Axis} axis @param {{clientX?: number, clientY?: number}} at */
  #onRuler(axis, { clientX, clientY }) {
    const box = this.marks.stage.element.getBoundingClientRect();
    const far = axis === "across" ? (clientX ?? Infinity) - box.left : (clientY ?? Infinity) - box.top;
    return far < RULER_PX;
  }

  /** @param {string} id @returns {Handle|null} */
  handle(id) {
    const { now } = this.marks;
    const guide = now.guides.find((one) => one.id === id);
    if (!guide) return null;
    const { axis } = guide;
    return {
      words: "guide",
      value: () => `${short(this.marks.now.guides.find((one) => one.id === id)?.at ?? 0)} px ${axis}`,
      edit: (dx, dy, keys) =>
        this.#onRuler(axis, keys)
          ? { kind: "remove-guides", guide: id }
          : {
              kind: "move-guide",
              guide: id,
              by: this.marks.whole(axis === "across" ? dx : dy),
              constrained: keys.shiftKey,
              snap: this.marks.placing(keys),
            },
    };
  }
}
