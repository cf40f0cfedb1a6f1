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

/** One more of several, or one less. @param {HTMLElement[]} tiles @param {HTMLElement} tile */
const toggled = (tiles, tile) => (tiles.includes(tile) ? tiles.filter((one) => one !== tile) : [...tiles, tile]);

/** A name for each: those that were typed with commas between, else the one that was typed, with the hue.
 * @param {string} typed @param {HTMLElement[]} tiles */
function namesOf(typed, tiles) {
  const names = typed.split(",").map((one) => one.trim());
  if (tiles.length === 1) return [typed];
  if (names.length === tiles.length) return names;
  return tiles.map((tile) => `${typed} ${tile.textContent?.trim() || tile.title}`);
}

export class Recolouring {
  /** @param {Bench} bench @param {HTMLElement} place @param {Panel} panel */
  constructor(bench, place, panel) {
    this.bench = bench;
    this.place = place;
    this.panel = panel;
    /** @type {Edit|null} */
    this.chosen = null;
    /** Tiles that are chosen, the one that is seen last. @type {HTMLElement[]} */
    this.tiles = [];
    /** Counts what was asked for: the newest answer wins. */
    this.turn = 0;
    place.addEventListener("pointerover", (event) => this.#hover(event));
    place.addEventListener("focusin", (event) => this.#hover(event));
    place.addEventListener("pointerout", (event) => {
      if (closest(event, "[data-recolour]")) bench.stage.preview(this.chosen);
    });
    place.addEventListener("click", (event) => {
      const tile = closest(event, "[data-recolour]");
      if (tile) this.#choose(event.shiftKey ? toggled(this.tiles, tile) : [tile]);
      const keep = closest(event, "[data-keep]")?.dataset.keep;
      if (keep) this.#keepAs(keep);
    });
    place.addEventListener("change", ({ target }) => {
      if (target instanceof HTMLSelectElement && this.tiles.length) this.#choose(this.tiles);
      if (target instanceof HTMLInputElement && this.#form?.contains(target) && target.name !== "name") this.#again();
    });
  }

  /** Nothing is chosen yet. */
  begin() {
    this.chosen = null;
    this.tiles = [];
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

  /** @param {HTMLElement[]} tiles */
  #choose(tiles) {
    this.tiles = tiles;
    const last = tiles[tiles.length - 1];
    this.chosen = last ? this.#meant(last) : null;
    for (const tile of all("[data-recolour]", this.place))
      tile.setAttribute("aria-pressed", String(tiles.includes(tile)));
    this.bench.stage.preview(this.chosen);
    if (last) this.#contrast();
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
    const edits = this.tiles.map((tile) => this.#meant(tile));
    const names = namesOf(name, this.tiles);
    const { seen } = bench.stage;
    // Colourways are made one after the other, new controls together.
    const bodies =
      how === "control" ? [{ edits, names }] : edits.map((edit, number) => ({ edit, name: names[number], seen }));
    for (const body of bodies) {
      const answer = await ask(`${bench.api.base}/recolour/${how}`, {
        method: "POST",
        body: JSON.stringify(body),
        headers: JSON_TYPE,
      });
      const text = await answer.text();
      if (!answer.ok) {
        this.panel.fault(wordsOf(text));
        return;
      }
      if (how === "colourway") bench.stage.colourway = JSON.parse(text).id;
    }
    this.panel.close();
    const made = names.map((one) => `“${one}”`).join(", ");
    say(`Made the ${how}${names.length > 1 ? "s" : ""} ${made}.`);
    bench.refresh();
    bench.stage.request();
  }
}
