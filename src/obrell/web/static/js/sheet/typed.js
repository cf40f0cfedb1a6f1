/** A number turned into a text field: Enter keeps, Escape restores, what is refused stays to be mended. */
import { saidBy } from "../ui/dom.js";
import { scopeOf } from "./setting.js";

/** @param {HTMLElement} node the number @param {string} [first] what is typed instead of it */
function fieldFor(node, first) {
  const input = document.createElement("input");
  input.className = "v typing";
  input.id = node.id;
  input.value = first ?? node.textContent?.trim() ?? "";
  input.setAttribute("aria-label", node.getAttribute("aria-label") ?? "");
  return input;
}

export class Typed {
  /** @param {import("../ui/types.js").Sheeted} bench @param {HTMLElement} node @param {string} [first] */
  constructor(bench, node, first) {
    this.bench = bench;
    this.input = fieldFor(node, first);
    this.away = /** @type {HTMLElement} */ (node.cloneNode(true));
    this.done = false;
    node.replaceWith(this.input);
    this.input.focus();
    if (first === undefined) this.input.select();
    bench.hold(true);
    this.input.addEventListener("keydown", (event) => this.#key(event));
    this.input.addEventListener("blur", () => this.#finish(!this.input.classList.contains("bad")));
    this.input.addEventListener("input", () => this.input.classList.remove("bad"));
  }

  /** @param {KeyboardEvent} event */
  #key(event) {
    event.stopPropagation();
    if (event.key === "Enter") this.#finish(true);
    if (event.key !== "Escape") return;
    this.bench.complain("");
    this.#finish(false);
  }

  /** @param {boolean} save */
  async #finish(save) {
    if (this.done) return;
    this.done = true;
    const text = this.input.value.trim();
    if (save && text !== this.away.textContent?.trim()) await this.#save(text);
    else this.#leave(!save);
  }

  /** @param {boolean} focus */
  #leave(focus) {
    this.input.replaceWith(this.away);
    this.bench.hold(false);
    if (focus) this.away.focus();
  }

  /** @param {string} text */
  async #save(text) {
    const { bench } = this;
    bench.complain("");
    try {
      const { path, shift, factor } = this.away.dataset;
      const shown = { shift: Number(shift || 0), negated: Number(factor) < 0 };
      const edit = { kind: "type", path, text, ...shown, ...scopeOf(bench, path ?? "") };
      await bench.send(edit, () => bench.hold(false));
      bench.stage.request();
    } catch (error) {
      bench.complain(saidBy(error));
      this.input.classList.add("bad");
      this.done = false;
    }
  }
}
