/**
 * A number typed over: the field lies over its place, so that its row keeps its size. Enter keeps, Escape restores.
 * What is kept stands there at once, and the keys are free again, whenever the answer comes; what is refused is opened
 * again.
 */
import { saidBy } from "../ui/dom.js";
import { unsettled } from "../ui/api.js";
import { typing } from "../ui/page.js";
import { scopeOf } from "./setting.js";
import { untilAnswered } from "./unanswered.js";

/** @param {HTMLElement} node the number @param {string} text */
function fieldFor(node, text) {
  const input = document.createElement("input");
  input.className = "v typing";
  input.id = node.id;
  input.value = text;
  input.setAttribute("aria-label", node.getAttribute("aria-label") ?? "");
  return input;
}

export class Typed {
  /**
   * @param {import("../ui/types.js").Sheeted} bench
   * @param {HTMLElement} node
   * @param {{first?: string, left?: () => void}} [more] what is typed instead of it; what is done once it is left
   */
  constructor(bench, node, { first, left = () => {} } = {}) {
    this.bench = bench;
    this.node = node;
    this.left = left;
    this.id = node.id;
    this.before = node.textContent?.trim() ?? "";
    /** Whether what stands there may be older than what was just done: then the same text can mean something. */
    this.old = unsettled();
    this.input = fieldFor(node, first ?? this.before);
    this.place = document.createElement("span");
    this.place.className = "typed-over";
    this.done = false;
    this.#open(first === undefined);
    this.input.addEventListener("keydown", (event) => this.#key(event));
    this.input.addEventListener("blur", () => this.#finish(!this.input.classList.contains("bad"), false));
    this.input.addEventListener("input", () => this.#typed());
  }

  #typed() {
    this.input.classList.remove("bad");
    this.input.dataset.typed = "yes";
  }

  /** @param {boolean} whole whether all of it is typed over */
  #open(whole) {
    this.node.removeAttribute("id");
    this.node.replaceWith(this.place);
    this.place.append(this.node, this.input);
    this.input.focus({ preventScroll: true });
    if (whole) this.input.select();
    this.bench.hold(true);
  }

  /** @param {KeyboardEvent} event */
  #key(event) {
    event.stopPropagation();
    if (event.key === "Enter") this.#finish(true, true);
    if (event.key !== "Escape") return;
    this.bench.complain("");
    this.#finish(false, true);
  }

  /** @param {boolean} save @param {boolean} stay whether the keys go on going to this value */
  #finish(save, stay) {
    if (this.done) return;
    this.done = true;
    const text = this.input.value.trim();
    const meant = text !== this.before || (this.input.dataset.typed && this.old);
    const answer = save && meant ? this.#send(text) : null;
    this.#close(stay);
    if (answer) this.#answered(answer, text);
  }

  /** @param {boolean} stay */
  #close(stay) {
    this.node.id = this.id;
    this.place.replaceWith(this.node);
    if (stay) this.node.focus({ preventScroll: true });
    this.left();
    this.bench.hold(false);
  }

  /** @param {string} text */
  #send(text) {
    const { bench } = this;
    bench.complain("");
    const { path = "", shift, factor } = this.node.dataset;
    const shown = { shift: Number(shift || 0), negated: Number(factor) < 0 };
    return untilAnswered(
      bench,
      path,
      text,
      bench.send({ kind: "type", path, text, ...shown, ...scopeOf(bench, path) }),
    );
  }

  /** @param {Promise<unknown>} answer @param {string} text */
  async #answered(answer, text) {
    const { bench } = this;
    try {
      await answer;
      bench.stage.request();
    } catch (error) {
      bench.complain(saidBy(error));
      this.#again(text);
    }
  }

  /** What was refused is opened again, to be mended; unless something else is typed by then. @param {string} text */
  #again(text) {
    const now = document.getElementById(this.id);
    if (!now) return;
    now.textContent = this.before;
    now.classList.remove("pending");
    if (typing({ target: document.activeElement })) {
      now.classList.add("bad");
      return;
    }
    const typed = new Typed(this.bench, now, { first: text, left: this.left });
    typed.before = this.before;
    typed.input.classList.add("bad");
  }
}
