/**
 * Hues of the very art: hovered they are seen on the stage, pressed they are chosen, kept in one of three ways.
 *
 * @typedef {import("../ui/types.js").Bench} Bench
 * @typedef {import("../ui/types.js").Edit} Edit
 * @typedef {{again: (more: Object<string, string>) => Promise<boolean>, close: () => void,
 *   fault: (words: string) => void}} Panel
 */
import { all, byId, closest } from "../ui/dom.js";
import { ask, JSON_TYPE, say, wordsOf } from "../ui/page.js";

export class Recolouring {
  /** @param {Bench} bench @param {HTMLElement} place @param {Panel} panel */
  constructor(bench, place, panel) {
    this.bench = bench;
    this.place = place;
    this.panel = panel;
    /** @type {Edit|null} */
    this.chosen = null;
    /** @type {HTMLElement|null} */
    this.tile = null;
    /** Counts what was asked for: the newest answer wins. */
    this.turn = 0;
    place.addEventListener("pointerover", (event) => this.#hover(event));
    place.addEventListener("focusin", (event) => this.#hover(event));
    place.addEventListener("pointerout", (event) => {
      if (closest(event, "[data-recolour]")) bench.stage.preview(this.chosen);
    });
    place.addEventListener("click", (event) => {
      const tile = closest(event, "[data-recolour]");
      if (tile) this.#choose(tile);
      const keep = closest(event, "[data-keep]")?.dataset.keep;
      if (keep) this.#keepAs(keep);
    });
    place.addEventListener("change", ({ target }) => {
      if (target instanceof HTMLSelectElement && this.tile) this.#choose(this.tile);
      if (target instanceof HTMLInputElement && this.#form?.contains(target) && target.name !== "name") this.#again();
    });
  }

  /** Nothing is chosen yet. */
  begin() {
    this.chosen = null;
    this.tile = null;
    this.turn += 1;
  }

  get #form() {
    const form = this.place.querySelector("#recolour-form");
    return form instanceof HTMLFormElement ? form : null;
  }

  /** @param {Event} event */
  #hover(event) {
    const tile = closest(event, "[data-recolour]");
    if (tile) this.bench.stage.preview(this.#meant(tile));
  }

  /** What a tile does, as the form says it is done. @param {HTMLElement} tile @returns {Edit} */
  #meant(tile) {
    const way = String(new FormData(this.#form ?? undefined).get("way") ?? "turn");
    if (way === "turn") return JSON.parse(tile.dataset.recolour ?? "null");
    return { ...JSON.parse(tile.dataset.tint ?? "null"), mode: way };
  }

  /** @param {HTMLElement} tile */
  #choose(tile) {
    this.tile = tile;
    this.chosen = this.#meant(tile);
    for (const other of all("[data-recolour]", this.place)) other.setAttribute("aria-pressed", String(other === tile));
    this.bench.stage.preview(this.chosen);
    this.#contrast();
  }

  /** What it does to what is read. */
  async #contrast() {
    this.turn += 1;
    const { turn, bench } = this;
    const body = JSON.stringify({ edit: this.chosen, seen: bench.stage.seen });
    const answer = await ask(`${bench.api.base}/contrast`, { method: "POST", body, headers: JSON_TYPE });
    const text = await answer.text();
    if (turn !== this.turn || !this.#form) return;
    if (answer.ok) byId("contrasts").innerHTML = text;
    else this.panel.fault(wordsOf(text));
  }

  /** Other groups, another strength, another aim: the sheet is asked for anew. */
  async #again() {
    const form = this.#form;
    if (!form) return;
    const data = new FormData(form);
    const groups = data.getAll("group").join(",");
    const more = { groups, strength: String(data.get("strength")), target: String(data.get("target")) };
    this.begin();
    this.bench.stage.preview(null);
    await this.panel.again(more);
  }

  /** @param {string} how */
  async #keepAs(how) {
    const name = String(new FormData(this.#form ?? undefined).get("name") ?? "").trim();
    if (!this.chosen || !name) {
      this.panel.fault(this.chosen ? "Name it first." : "Choose a hue first.");
      return;
    }
    const { bench } = this;
    const seen = bench.stage.seen;
    const said = how === "control" ? { edits: [this.chosen], names: [name] } : { edit: this.chosen, name, seen };
    const answer = await ask(`${bench.api.base}/recolour/${how}`, {
      method: "POST",
      body: JSON.stringify(said),
      headers: JSON_TYPE,
    });
    const text = await answer.text();
    if (!answer.ok) {
      this.panel.fault(wordsOf(text));
      return;
    }
    this.panel.close();
    say(how === "control" ? `Made the control “${name}”.` : `Made the colourway “${name}”.`);
    if (how === "colourway") bench.stage.colourway = JSON.parse(text).id;
    bench.refresh();
    bench.stage.request();
  }
}
