/**
 * Hands: pointer, touch, keys and wheel on the pieces, as the events that machines take.
 *
 * @typedef {import("../trial.js").Trial} Trial
 */
import { closest } from "../ui/dom.js";

const PAGE_STEPS = 10;
/** @type {Object<string, number>} */
const TURNS = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1, PageUp: PAGE_STEPS, PageDown: -PAGE_STEPS };
/** @type {Object<string, number>} */
const ENDS = { Home: 0, End: 1 };

/** Keys that lead to the next of a group (ARIA Authoring Practices, radio group). */
const NEXT = ["ArrowDown", "ArrowRight"];

export class Hands {
  /** @param {Trial} trial */
  constructor(trial) {
    this.trial = trial;
    /** Which piece each pointer holds. @type {Map<number, string>} */
    this.held = new Map();
    const { pieces } = trial;
    pieces.addEventListener("pointerover", (event) => this.#crossed(event, "enter"));
    pieces.addEventListener("pointerout", (event) => this.#crossed(event, "leave"));
    pieces.addEventListener("pointerdown", (event) => this.#press(event));
    window.addEventListener("pointermove", (event) => this.#move(event));
    window.addEventListener("pointerup", (event) => this.#release(event, "release"));
    window.addEventListener("pointercancel", (event) => this.#release(event, "cancel"));
    pieces.addEventListener("keydown", (event) => this.#key(event));
    pieces.addEventListener("keyup", (event) => this.#unkey(event));
    pieces.addEventListener("focusin", (event) => this.#focus(event));
    pieces.addEventListener("focusout", (event) => this.#send(event, "blur"));
    pieces.addEventListener("wheel", (event) => this.#wheel(event), { passive: false });
    window.addEventListener("blur", () => this.#letGo());
    /** Whether a key was used last, and not a pointer: then it shows where keys go. */
    this.byKeys = false;
    window.addEventListener("keydown", () => (this.byKeys = true), { capture: true });
    window.addEventListener("pointerdown", () => (this.byKeys = false), { capture: true });
  }

  /** @param {{target: EventTarget|null}} event */
  #pieceOf(event) {
    return this.trial.arranging.on ? "" : (closest(event, "[data-piece]")?.dataset.piece ?? "");
  }

  /** @param {{target: EventTarget|null}} event @param {string} kind @param {object} [more] */
  #send(event, kind, more) {
    const id = this.#pieceOf(event);
    if (id) this.trial.happen(id, kind, more);
  }

  /** @param {PointerEvent} event @param {string} kind */
  #crossed(event, kind) {
    const hit = closest(event, ".hit");
    const other = event.relatedTarget;
    const holder = this.held.get(event.pointerId);
    const id = this.#pieceOf(event);
    if (!hit || !id || (other instanceof Node && hit.contains(other))) return;
    // Pointers that hold something else pass by; fingers only touch what they press.
    if ((holder ?? id) === id && (event.pointerType !== "touch" || holder)) this.trial.happen(id, kind);
  }

  /** @param {PointerEvent} event */
  #press(event) {
    const id = this.#pieceOf(event);
    if (!id || event.button !== 0 || !closest(event, ".hit")) return;
    const hit = /** @type {HTMLElement} */ (event.target);
    // A finger holds what it presses until it is let go; here it is followed over everything.
    if (hit.hasPointerCapture(event.pointerId)) hit.releasePointerCapture(event.pointerId);
    event.preventDefault();
    document.getElementById(`piece-${id}`)?.focus({ preventScroll: true });
    this.held.set(event.pointerId, id);
    if (event.pointerType === "touch") this.trial.happen(id, "enter");
    this.trial.happen(id, "press", this.trial.placeIn(id, event));
  }

  /** @param {PointerEvent} event */
  #move(event) {
    const id = this.held.get(event.pointerId);
    if (id) this.trial.happen(id, "move", this.trial.placeIn(id, event));
  }

  /** @param {PointerEvent} event @param {string} kind */
  #release(event, kind) {
    const id = this.held.get(event.pointerId);
    if (!id) return;
    this.held.delete(event.pointerId);
    this.trial.happen(id, kind, this.trial.placeIn(id, event));
    if (event.pointerType === "touch") this.trial.happen(id, "leave");
  }

  /** The window is left: nothing is held any more. */
  #letGo() {
    for (const id of this.held.values()) this.trial.happen(id, "cancel");
    this.held.clear();
  }

  /** Keys show where they go; a press does not. @param {FocusEvent} event */
  #focus(event) {
    if (this.byKeys) this.#send(event, "focus");
  }

  /** @param {KeyboardEvent} event */
  #key(event) {
    const id = this.#pieceOf(event);
    if (!id || event.ctrlKey || event.metaKey || !(this.#pressed(id, event) || this.#steered(id, event))) return;
    event.preventDefault();
    event.stopPropagation();
  }

  /** Whether a key presses or gives up. @param {string} id @param {KeyboardEvent} event */
  #pressed(id, { key, repeat }) {
    if (key === "Escape") this.trial.happen(id, "escape");
    else if (key !== " " && key !== "Enter") return false;
    else if (!repeat) this.trial.happen(id, "key");
    return true;
  }

  /** Whether a key turns, or leads through a group. @param {string} id @param {KeyboardEvent} event */
  #steered(id, { key, shiftKey }) {
    if (!this.trial.isTurned(id)) {
      if (key in TURNS) this.trial.alongGroup(id, NEXT.includes(key) ? 1 : -1);
      return key in TURNS;
    }
    if (key in ENDS) this.trial.happen(id, "end", { amount: ENDS[key] });
    else if (key in TURNS) this.trial.happen(id, "turn", { amount: TURNS[key] * (shiftKey ? PAGE_STEPS : 1) });
    return key in ENDS || key in TURNS;
  }

  /** @param {KeyboardEvent} event */
  #unkey(event) {
    if (event.key === " " || event.key === "Enter") this.#send(event, "unkey");
  }

  /** @param {WheelEvent} event */
  #wheel(event) {
    const id = this.#pieceOf(event);
    if (!id || !this.trial.isTurned(id)) return;
    event.preventDefault();
    const amount = -Math.sign(event.deltaX + event.deltaY) * (event.shiftKey ? PAGE_STEPS : 1);
    this.trial.happen(id, "turn", { amount });
  }
}
