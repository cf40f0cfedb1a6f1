/**
 * Live values: typed, dragged sideways, changed by keys and wheel. Enter keeps, Escape restores.
 * What a typed text means is decided by the server.
 */
import { dragged } from "../ui/drags.js";
import { startDials } from "./dials.js";
import { Typed } from "./typed.js";

const DRAG_FROM_PX = 3;
const PX_PER_STEP = 2;
const SETTLE_MS = 700;
const STEPS = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1 };
/** Keys that begin a number. */
const BEGINS = /^[0-9.(+*/\-−]$/;

/** A number as people read it: up to two decimals, and three where it has no more. */
function shownNumber(value) {
  const fine = Math.round(value * 1e3) / 1e3;
  return String(Math.abs(fine - value) < 1e-9 ? fine : Math.round(value * 100) / 100);
}

const number = (node) => Number(node.dataset.value);
const factorOf = (event) => (event.shiftKey ? 10 : 1) * (event.altKey ? 0.1 : 1);

/** A value within the limits that came with its field; where its least is not allowed, a tenth of a step. */
function limited(node, value) {
  const { least = -Infinity, most = Infinity, step } = node.dataset;
  const fine = Math.min(Number(most), Math.max(Number(least), Math.round(value * 1e6) / 1e6));
  return "above" in node.dataset && fine <= Number(least) ? Number(least) + Number(step) * 0.1 : fine;
}

class Values {
  constructor(bench) {
    this.bench = bench;
    this.sheet = document.getElementById("sheet");
    this.settle = 0;
    this.changing = null;
    /** The value that the wheel changes: the one that was taken hold of last, until it is kept. */
    this.wheeled = "";
    const dials = {
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
      if (target.matches(".num")) this.wheeled = target.id;
    });
    sheet.addEventListener("focusout", ({ target }) => {
      if (target.closest(".num") && this.changing) this.keep();
    });
    sheet.addEventListener("input", (event) => this.#input(event));
    sheet.addEventListener("change", (event) => this.#change(event));
  }

  /** Write a value into every slot and slider of its path. */
  #write(path, value) {
    for (const node of this.sheet.querySelectorAll(`[data-path="${CSS.escape(path)}"]`)) {
      if (node.matches(".num")) {
        node.dataset.value = value;
        node.textContent = shownNumber(value * node.dataset.factor + Number(node.dataset.shift || 0));
        node.setAttribute("aria-valuenow", node.textContent);
      } else if (node.matches("[type=range]")) node.value = value;
      else if (node.matches(".dial")) node.querySelector(".hand").setAttribute("transform", `rotate(${value})`);
    }
  }

  /** Show a value on the stage without saving it. */
  preview(node, value) {
    const { path } = node.dataset;
    if (this.changing?.path !== path) this.changing = { path, before: Number(node.dataset.before ?? number(node)) };
    this.changing.value = value;
    this.#write(path, value);
    this.bench.stage.preview(this.bench.setting(path, value));
  }

  keep() {
    clearTimeout(this.settle);
    if (!this.changing) return;
    const { path, value, before } = this.changing;
    this.changing = null;
    if (value !== before) this.bench.set(path, value);
    else this.bench.stage.preview(null);
  }

  restore() {
    clearTimeout(this.settle);
    if (!this.changing) return;
    this.#write(this.changing.path, this.changing.before);
    this.changing = null;
    this.bench.stage.preview(null);
  }

  #nudge(node, steps, event) {
    this.preview(node, limited(node, number(node) + steps * Number(node.dataset.step) * factorOf(event)));
    clearTimeout(this.settle);
    this.settle = setTimeout(() => this.keep(), SETTLE_MS);
  }

  #type(node, first) {
    this.keep();
    new Typed(this.bench, node, first);
  }

  /** Pressed, a number can be typed; dragged sideways, it changes. */
  #press(event) {
    const node = event.target.closest(".num");
    if (!node || event.button !== 0) return;
    event.preventDefault();
    node.focus({ preventScroll: true });
    const from = number(node);
    const move = (at) => {
      const steps = Math.round((at.clientX - event.clientX) / PX_PER_STEP);
      this.preview(node, limited(node, from + steps * Number(node.dataset.step) * factorOf(at)));
    };
    const done = (moved) => (moved ? this.keep() : this.#type(node));
    dragged(this.bench, event, move, done, { from: DRAG_FROM_PX, back: () => this.restore() });
  }

  #key(event) {
    const node = event.target.closest(".num");
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

  /** Enter keeps what is being changed, or opens the number to be typed; the wheel lets go of it then. */
  #enter(node) {
    this.wheeled = "";
    if (this.changing) this.keep();
    else this.#type(node);
  }

  #wheel(event) {
    const node = event.target.closest(".num");
    if (!node || document.activeElement !== node || this.wheeled !== node.id) return;
    event.preventDefault();
    this.#nudge(node, Math.sign(event.deltaX + event.deltaY) * -1, event);
  }

  #input(event) {
    const slider = event.target.closest("[type=range]");
    if (slider) {
      const node = document.getElementById(slider.dataset.for);
      this.preview(node, limited(node, Number(slider.value)));
    }
    const words = event.target.closest(".words");
    if (words?.value) {
      this.bench.stage.preview({ kind: "set", changes: [{ path: words.dataset.path, value: words.value }] });
    }
  }

  async #change({ target: field }) {
    if (field.matches("[type=range]")) this.keep();
    else if (field.matches("select.v")) {
      if (field.value === "differ") return;
      this.bench.set(field.dataset.path, field.value === "None" ? null : field.value);
    } else if (field.matches("input[data-path], textarea[data-path]") && field.dataset.path) {
      const kept = await this.bench.set(field.dataset.path, field.value.trim());
      if (!kept) document.getElementById(field.id)?.classList.add("bad");
    }
  }
}

/** Names and words: Enter keeps, Escape restores. */
function keyOfText(bench) {
  return (event) => {
    const field = event.target;
    if (!field.matches("input.entitle, .words")) return;
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

/** @param {object} bench */
export function startValues(bench) {
  new Values(bench);
}
