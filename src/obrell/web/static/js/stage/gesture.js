/** One gesture for all drags: followed with an edit, held to a way by keys, dropped by Escape. */

const DRAG_FROM_PX = 3;
/** @type {("keydown"|"keyup")[]} */
const KEYS = ["keydown", "keyup"];

/**
 * @typedef {{toLogical: (at: PointerEvent) => [number, number], preview: (edit: object|null) => void}} Stage
 * @typedef {{stage: Stage, post: (edit: object) => Promise<unknown>}} Bench
 * @typedef {(x: number, y: number, at: PointerEvent|KeyboardEvent) => object|null} Edit from the distance moved in
 *   logical px, and the keys that are held
 */

/**
 * Follow the pointer with an edit: shown while it moves, posted when it lets go, dropped by Escape.
 *
 * @param {Bench} bench
 * @param {PointerEvent} event
 * @param {Edit} edit
 * @param {(moved: boolean) => void} after
 */
export function follow(bench, event, edit, after) {
  new Gesture(bench, event, edit, after).begin();
}

class Gesture {
  /** @param {Bench} bench @param {PointerEvent} event @param {Edit} edit @param {(moved: boolean) => void} after */
  constructor(bench, event, edit, after) {
    this.bench = bench;
    this.stage = bench.stage;
    this.event = event;
    this.edit = edit;
    this.after = after;
    this.last = event;
    this.moved = false;
    this.start = this.stage.toLogical(event);
  }

  begin() {
    window.addEventListener("pointermove", this.#move);
    window.addEventListener("pointerup", this.#up);
    for (const name of KEYS) window.addEventListener(name, this.#key, true);
  }

  #end() {
    window.removeEventListener("pointermove", this.#move);
    window.removeEventListener("pointerup", this.#up);
    for (const name of KEYS) window.removeEventListener(name, this.#key, true);
  }

  /** The edit as it stands. @param {PointerEvent|KeyboardEvent} keys */
  #shown(keys) {
    const [x, y] = this.stage.toLogical(this.last);
    return this.edit(x - this.start[0], y - this.start[1], keys);
  }

  /** @param {PointerEvent} at */
  #move = (at) => {
    this.last = at;
    const far = Math.hypot(at.clientX - this.event.clientX, at.clientY - this.event.clientY);
    if (!this.moved && far < DRAG_FROM_PX) return;
    this.moved = true;
    this.stage.preview(this.#shown(at));
  };

  /** @param {KeyboardEvent} at */
  #key = (at) => {
    if (at.key === "Escape") {
      at.stopPropagation();
      this.#end();
      this.stage.preview(null);
      this.after(false);
    } else if (this.moved && (at.key === "Shift" || at.key === "Alt")) {
      at.preventDefault();
      this.stage.preview(this.#shown(at));
    }
  };

  /** @param {PointerEvent} at */
  #up = (at) => {
    this.#end();
    this.last = at;
    const made = this.moved ? this.#shown(at) : null;
    if (made) this.bench.post(made).then(() => this.after(true));
    else this.after(false);
  };
}
