/**
 * Live values: typed, dragged sideways, changed by keys and wheel. Enter keeps, Escape restores.
 * What a typed text means is decided by the server.
 *
 * @typedef {import("../ui/types.js").Sheeted} Bench
 * @typedef {{shiftKey: boolean, altKey: boolean}} Keys
 */
import { all, byId, chosen, closest } from "../ui/dom.js";
import { dragged } from "../ui/drags.js";
import { startDials } from "./dials.js";
import { setting } from "./setting.js";
import { Typed } from "./typed.js";
import { sumAt, untilAnswered, writeWaiting } from "./unanswered.js";

const DRAG_FROM_PX = 3;
const PX_PER_STEP = 2;
const SETTLE_MS = 700;
/** @type {Object<string, number>} */
const STEPS = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1 };
/** Keys that begin a number. */
const BEGINS = /^[0-9.(+*/\-−]$/;

/** A number as people read it: up to two decimals, and three where it has no more. @param {number} value */
function shownNumber(value) {
  const fine = Math.round(value * 1e3) / 1e3;
  return String(Math.abs(fine - value) < 1e-9 ? fine : Math.round(value * 100) / 100);
}

/** @param {HTMLElement} node */
const number = (node) => Number(node.dataset.value);
/** @param {Keys} event */
const factorOf = (event) => (event.shiftKey ? 10 : 1) * (event.altKey ? 0.1 : 1);

/** A value within the limits that came with its field; where its least is not allowed, a tenth of a step.
 * @param {HTMLElement} node @param {number} value */
function limited(node, value) {
  const { least = "-Infinity", most = "Infinity", step } = node.dataset;
  const fine = Math.min(Number(most), Math.max(Number(least), Math.round(value * 1e6) / 1e6));
  return "above" in node.dataset && fine <= Number(least) ? Number(least) + Number(step) * 0.1 : fine;
}

export class Values {
  /** @param {Bench} bench */
  constructor(bench) {
    this.bench = bench;
    this.sheet = byId("sheet");
    this.settle = 0;
    /** What is being changed, and what it was.
     * @type {{path: string, before: number, value: number, text: string}|null} */
    this.changing = null;
    /** The value that the wheel changes: the one that was taken hold of last, until it is kept. */
    this.wheeled = "";
    const dials = {
      /** @param {HTMLElement} node @param {number} value */
      preview: (node, value) => this.preview(node, limited(node, value)),
      keep: () => this.keep(),
      restore: () => this.restore(),
    };
    startDials(bench, dials);
    this.#listen();
  }

  #listen() {
    const { sheet } = this;
    sheet.addEventListener("pointerdown", (event) => this.#press(event));
    sheet.addEventListener("keydown", (event) => this.#key(event));
    sheet.addEventListener("keydown", keyOfText(this.bench));
    sheet.addEventListener("wheel", (event) => this.#wheel(event), { passive: false });
    sheet.addEventListener("focusin", ({ target }) => {
      // What gets the focus back because the sheet was written anew was not taken hold of.
      if (target instanceof Element && target.matches(".num") && !this.bench.swapping) this.wheeled = target.id;
    });
    this.bench.element.addEventListener("shown", () => writeWaiting());
    sheet.addEventListener("focusout", (event) => {
      if (closest(event, ".num") && this.changing) this.keep();
    });
    sheet.addEventListener("input", (event) => this.#input(event));
    sheet.addEventListener("change", (event) => this.#change(event));
  }

  /** Write a value into every slot and slider of its path. @param {string} path @param {number} value */
  #write(path, value) {
    for (const node of all(`[data-path="${CSS.escape(path)}"]`, this.sheet)) {
      if (node.matches(".num")) {
        node.dataset.value = String(value);
        node.textContent = this.#shown(node, value);
        node.setAttribute("aria-valuenow", node.textContent);
      } else if (node instanceof HTMLInputElement && node.type === "range") node.value = String(value);
      else if (node.matches(".dial")) node.querySelector(".hand")?.setAttribute("transform", `rotate(${value})`);
    }
  }

  /** Show a value on the stage without saving it. @param {HTMLElement} node @param {number} value */
  preview(node, value) {
    const { path = "" } = node.dataset;
    const before = this.changing?.path === path ? this.changing.before : Number(node.dataset.before ?? number(node));
    // An answer that arrives meanwhile would show the old value.
    if (!this.changing) this.bench.hold(true);
    this.changing = { path, before, value, text: this.#shown(node, value) };
    this.#write(path, value);
    this.bench.stage.preview(setting(this.bench, path, value));
  }

  keep() {
    clearTimeout(this.settle);
    if (!this.changing) return;
    const { path, value, before, text } = this.changing;
    this.changing = null;
    if (value !== before) untilAnswered(this.bench, path, text, this.bench.set(path, value));
    else this.bench.stage.preview(null);
    this.bench.hold(false);
  }

  /** A value as it is read. @param {HTMLElement} node @param {number} value */
  #shown(node, value) {
    const { factor, shift } = node.dataset;
    return shownNumber(value * Number(factor ?? 1) + Number(shift || 0));
  }

  restore() {
    clearTimeout(this.settle);
    if (!this.changing) return;
    this.#write(this.changing.path, this.changing.before);
    this.changing = null;
    this.bench.stage.preview(null);
    this.bench.hold(false);
  }

  /** @param {HTMLElement} node @param {number} steps @param {Keys} event */
  #nudge(node, steps, event) {
    const sum = sumAt(node.dataset.path ?? "");
    if (sum) {
      // It is turned from what the sum comes to.
      const { id } = node;
      const [shiftKey, altKey] = [event.shiftKey, event.altKey];
      sum.then(() => this.#nudge(byId(id), steps, { shiftKey, altKey })).catch(() => {});
      return;
    }
    this.preview(node, limited(node, number(node) + steps * Number(node.dataset.step) * factorOf(event)));
    clearTimeout(this.settle);
    this.settle = window.setTimeout(() => this.keep(), SETTLE_MS);
  }

  /** @param {HTMLElement} node @param {string} [first] what is typed instead of it */
  #type(node, first) {
    this.keep();
    const left = () => {
      this.wheeled = "";
    };
    new Typed(this.bench, node, { first, left });
  }

  /** Pressed, a number can be typed; dragged sideways, it changes. @param {PointerEvent} event */
  #press(event) {
    const node = closest(event, ".num");
    if (!node || event.button !== 0) return;
    event.preventDefault();
    node.focus({ preventScroll: true });
    const from = number(node);
    /** @param {PointerEvent} at */
    const move = (at) => {
      const steps = Math.round((at.clientX - event.clientX) / PX_PER_STEP);
      this.preview(node, limited(node, from + steps * Number(node.dataset.step) * factorOf(at)));
    };
    /** @param {boolean} moved */
    const done = (moved) => (moved ? this.keep() : this.#type(node));
    dragged(this.bench, event, move, done, { from: DRAG_FROM_PX, back: () => this.restore() });
  }

  /** @param {KeyboardEvent} event */
  #key(event) {
    const node = closest(event, ".num");
    if (!node) return;
    const steps = STEPS[event.key];
    if (steps) this.#nudge(node, steps, event);
    else if (event.key === "Enter") this.#enter(node);
    else if (event.key === "Escape" && this.changing) this.restore();
    else if (BEGINS.test(event.key) && !event.ctrlKey && !event.metaKey) this.#type(node, event.key);
    else return;
    event.preventDefault();
    event.stopPropagation();
  }

  /** Enter keeps what is being changed, or opens the number to be typed; the wheel lets go of it then.
   * @param {HTMLElement} node */
  #enter(node) {
    this.wheeled = "";
    if (this.changing) this.keep();
    else this.#type(node);
  }

  /** @param {WheelEvent} event */
  #wheel(event) {
    const node = closest(event, ".num");
    if (!node || document.activeElement !== node || this.wheeled !== node.id) return;
    event.preventDefault();
    this.#nudge(node, Math.sign(event.deltaX + event.deltaY) * -1, event);
  }

  /** @param {Event} event */
  #input({ target: field }) {
    if (!(field instanceof HTMLInputElement || field instanceof HTMLTextAreaElement)) return;
    if (field.type === "range" && field.dataset.for) {
      const node = byId(field.dataset.for);
      this.preview(node, limited(node, Number(field.value)));
    }
    const { path = "" } = field.dataset;
    if (field.matches(".words") && field.value)
      this.bench.stage.preview({ kind: "set", changes: [{ path, value: field.value }] });
  }

  /** @param {Event} event */
  async #change({ target: field }) {
    if (field instanceof HTMLSelectElement) {
      if (field.matches(".v") && field.value !== "differ" && field.dataset.path)
        this.bench.set(field.dataset.path, chosen(field));
    } else if (field instanceof HTMLInputElement && field.type === "range") field.dataset.for && this.keep();
    else if (isText(field) && field.dataset.path) {
      const [path, text] = [field.dataset.path, field.value.trim()];
      const kept = await untilAnswered(this.bench, path, text, this.bench.set(path, text));
      if (!kept) document.getElementById(field.id)?.classList.add("bad");
    }
  }
}

/** @param {EventTarget|null} field @returns {field is HTMLInputElement|HTMLTextAreaElement} */
function isText(field) {
  return field instanceof HTMLInputElement || field instanceof HTMLTextAreaElement;
}

/** Names and words: Enter keeps, Escape restores. @param {Bench} bench */
function keyOfText(bench) {
  /** @param {KeyboardEvent} event */
  return (event) => {
    const field = event.target;
    if (!isText(field) || !field.matches("input.entitle, .words")) return;
    event.stopPropagation();
    if (event.key === "Enter" && !event.shiftKey) {
      event.preventDefault();
      field.blur();
    }
    if (event.key === "Escape") {
      field.value = field.defaultValue;
      bench.stage.preview(null);
      field.blur();
    }
  };
}

/** @param {Bench} bench */
export function startValues(bench) {
  new Values(bench);
}
