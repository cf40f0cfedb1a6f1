/**
 * The panel beside the art in which colours follow swatches or are turned: tried on the stage, written when it is kept.
 *
 * @typedef {import("../ui/types.js").Bench} Bench
 * @typedef {import("../ui/types.js").Edit} Edit
 */
import { byId, closest } from "../ui/dom.js";
import { ask, wordsOf } from "../ui/page.js";
import { linksIn } from "./follow_form.js";

class Aside {
  /** @param {Bench} bench */
  constructor(bench) {
    this.bench = bench;
    this.panel = byId("aside");
    bench.openAside = (name) => this.open(name);
    this.panel.addEventListener("change", () => this.#try());
    this.panel.addEventListener("click", (event) => {
      if (closest(event, "[data-close]")) this.close();
    });
    this.panel.addEventListener("submit", (event) => {
      event.preventDefault();
      this.#keep();
    });
    this.panel.addEventListener("keydown", (event) => {
      event.stopPropagation();
      if (event.key === "Escape") this.close();
    });
  }

  /** @param {string} name of what is asked for */
  async open(name) {
    const { bench, panel } = this;
    const asked = new URLSearchParams({ part: bench.state.selected.join(",") });
    const answer = await ask(`${bench.api.base}/${name}?${asked}`);
    const text = await answer.text();
    if (!answer.ok) {
      bench.complain(wordsOf(text));
      return;
    }
    panel.innerHTML = text;
    panel.hidden = false;
    panel.focus({ preventScroll: true });
    this.#try();
  }

  /** @returns {Edit|null} what is chosen; nothing when nothing is */
  #edit() {
    const form = this.panel.querySelector("form");
    if (!form) return null;
    const links = linksIn(form);
    const parts = (form.dataset.parts ?? "").split(",").filter(Boolean);
    return Object.keys(links).length ? { kind: "follow-swatches", links, parts } : null;
  }

  #try() {
    this.bench.stage.preview(this.#edit());
  }

  async #keep() {
    const edit = this.#edit();
    const fault = this.panel.querySelector(".fault");
    if (!edit) {
      if (fault) fault.textContent = "Nothing is ticked.";
      return;
    }
    this.panel.hidden = true;
    await this.bench.post(edit);
  }

  close() {
    this.panel.hidden = true;
    this.bench.stage.preview(null);
    this.bench.stage.element.focus({ preventScroll: true });
  }
}

/** @param {Bench} bench */
export function startAside(bench) {
  new Aside(bench);
}
