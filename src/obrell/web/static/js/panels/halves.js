/**
 * Before and after the open effect, or the selection's whole look, or rest and the state that is drawn, in two halves.
 *
 * @typedef {import("../ui/types.js").Bench} Bench
 */
import { all, byId, closest } from "../ui/dom.js";
import { follow } from "../ui/drags.js";
import { typing } from "../ui/page.js";
import { hiding, meant } from "./meant.js";

const LEAST_SHARE = 0.02;
/** @type {Object<string, number>} */
const NUDGES = { ArrowLeft: -1, ArrowRight: 1 };

/** The art before and after the open effect, or the selection's whole look, in two halves with a line to drag. */
class Halves {
  /** @param {Bench} bench */
  constructor(bench) {
    this.bench = bench;
    this.stage = bench.stage;
    this.before = /** @type {HTMLCanvasElement} */ (byId("before"));
    this.line = byId("halves-line");
    this.button = byId("halves");
    this.on = false;
    this.share = 0.5;
    this.waiting = false;
    this.#listen();
  }

  #listen() {
    this.button.addEventListener("click", () => this.toggle());
    this.stage.addEventListener("look", () => {
      if (this.on) setTimeout(() => this.#capture(), 150);
      this.#place();
    });
    this.bench.element.addEventListener("shown", () => this.on && setTimeout(() => this.#capture(), 50));
    this.line.addEventListener("pointerdown", (event) => {
      event.stopPropagation();
      follow(event, { move: (at) => this.#drag(at) });
    });
    this.line.addEventListener("keydown", (event) => {
      const way = NUDGES[event.key];
      if (!way) return;
      event.stopPropagation();
      event.preventDefault();
      this.#moveTo(this.share + way * (event.shiftKey ? 0.1 : 0.01));
    });
    document.addEventListener("keydown", (event) => {
      const elsewhere = typing(event) || closest(event, "dialog") || event.ctrlKey || event.metaKey;
      if (event.key === "v" && !elsewhere) this.toggle();
    });
  }

  /** @param {PointerEvent} at */
  #drag(at) {
    const own = this.stage.element.getBoundingClientRect();
    this.#moveTo((at.clientX - own.left) / own.width);
  }

  /** @param {number} share */
  #moveTo(share) {
    this.share = Math.min(1 - LEAST_SHARE, Math.max(LEAST_SHARE, share));
    this.#place();
  }

  #place() {
    const { before, line, stage } = this;
    const at = Math.round(stage.element.clientWidth * this.share);
    line.style.left = `${at}px`;
    line.setAttribute("aria-valuenow", String(Math.round(this.share * 100)));
    line.hidden = before.hidden = !this.on;
    const box = stage.art.canvas.getBoundingClientRect();
    const own = stage.element.getBoundingClientRect();
    before.style.clipPath = `inset(0 ${Math.max(0, box.right - own.left - at)}px 0 0)`;
    stage.art.canvas.style.clipPath = this.on ? `inset(0 0 0 ${Math.max(0, at - (box.left - own.left))}px)` : "";
  }

  /** Ask for the art without the effect once, and keep that picture beside the art. */
  #capture() {
    const { stage } = this;
    const rest = this.#besideRest();
    this.#name(rest);
    const bare = rest ? null : hiding(meant(this.bench));
    if (!this.on || this.waiting || stage.edit || !(bare || rest)) return;
    this.waiting = true;
    stage.tried = rest ? "rest" : "";
    stage.preview(bare);
    const wanted = stage.seq + (stage.again ? 1 : 0);
    /** @param {Event} event */
    const kept = (event) => {
      const { detail } = /** @type {CustomEvent<{seq: number}>} */ (event);
      if (!(stage.edit || stage.tried) || detail.seq < wanted) return;
      stage.removeEventListener("frame", kept);
      this.#keep();
    };
    stage.addEventListener("frame", kept);
  }

  /** Whether rest is what the state that is drawn stands beside: while nothing is selected in it. */
  #besideRest() {
    const { state, selected } = this.bench.state;
    return state !== "rest" && !selected.length;
  }

  /** @param {boolean} rest */
  #name(rest) {
    const [one, other] = all("i", this.line);
    one.textContent = rest ? "rest" : "before";
    other.textContent = rest ? this.bench.state.stateName.toLowerCase() : "after";
  }

  #keep() {
    const { before, stage } = this;
    before.width = stage.art.canvas.width;
    before.height = stage.art.canvas.height;
    before.getContext("2d")?.drawImage(stage.art.canvas, 0, 0);
    before.style.cssText = stage.art.canvas.style.cssText;
    before.className = stage.art.canvas.className;
    this.waiting = false;
    stage.tried = "";
    stage.preview(null);
    this.#place();
  }

  toggle() {
    this.on = !this.on;
    this.button.setAttribute("aria-pressed", String(this.on));
    if (this.on) this.#capture();
    this.#place();
  }
}

/** @param {Bench} bench */
export function startHalves(bench) {
  new Halves(bench);
}
