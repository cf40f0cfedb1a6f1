/**
 * Hues of the very art: hovered they are tried, pressed they are chosen, kept in one of three ways.
 *
 * @typedef {import("../ui/types.js").Edit} Edit
 * @typedef {{
 *   preview: (edit: Edit|null) => void,
 *   contrast: (edit: Edit) => Promise<Response>,
 *   keep: (how: string, edits: Edit[], name: string) => Promise<Response>,
 *   kept: (how: string, text: string) => void,
 *   again: (more: Object<string, string>) => Promise<boolean>,
 *   fault: (words: string) => void,
 * }} Place where the art is tried, and what is done there: a Bench, or a Wall
 */
import { all, closest } from "../ui/dom.js";
import { wordsOf } from "../ui/page.js";

/** One more of several, or one less. @param {HTMLElement[]} tiles @param {HTMLElement} tile */
const toggled = (tiles, tile) => (tiles.includes(tile) ? tiles.filter((one) => one !== tile) : [...tiles, tile]);

/** What a tile does. @param {HTMLElement} tile @returns {Edit} */
const meant = (tile) => JSON.parse(tile.dataset.recolour ?? "null");

/** The hue or the swatch that it says. @param {HTMLElement} tile */
const nameOf = (tile) => tile.textContent?.trim() || tile.title;

/** What the sheet is asked for by. @param {HTMLFormElement} form @returns {Object<string, string>} */
function asked(form) {
  const data = new FormData(form);
  /** @type {Object<string, string>} */
  const lists = { controls: data.getAll("control").join(",") };
  // When no control was ticked there are no groups in the form: the usual ones are asked for.
  if (form.elements.namedItem("group")) lists.groups = data.getAll("group").join(",");
  const rest = Object.fromEntries(["strength", "target", "way"].map((name) => [name, String(data.get(name) ?? "")]));
  return { ...lists, ...rest };
}

export class Recolouring {
  /** @param {HTMLElement} box that the form is in @param {Place} place */
  constructor(box, place) {
    this.box = box;
    this.place = place;
    /** @type {Edit|null} */
    this.chosen = null;
    /** Tiles that are chosen, the one that is seen last. @type {HTMLElement[]} */
    this.tiles = [];
    /** The words of those tiles, and their places among all. @type {{name: string, at: number}[]} */
    this.picked = [];
    /** Counts what was asked for: the newest answer wins. */
    this.turn = 0;
    /** The sheet that is asked for anew, until it is there. @type {Promise<void>} */
    this.settled = Promise.resolve();
    box.addEventListener("pointerover", (event) => this.#hover(event));
    box.addEventListener("focusin", (event) => this.#hover(event));
    box.addEventListener("pointerout", (event) => {
      if (closest(event, "[data-recolour]")) place.preview(this.chosen);
    });
    box.addEventListener("click", (event) => this.#click(event));
    box.addEventListener("change", ({ target }) => {
      const field = target instanceof HTMLInputElement || target instanceof HTMLSelectElement ? target : null;
      if (field && this.form?.contains(field) && field.name !== "name") this.#again();
    });
  }

  /** Nothing is chosen yet. */
  begin() {
    this.chosen = null;
    this.tiles = [];
    this.picked = [];
    this.turn += 1;
  }

  get form() {
    const form = this.box.querySelector("#recolour-form");
    return form instanceof HTMLFormElement ? form : null;
  }

  /** @param {Event} event */
  #hover(event) {
    const tile = closest(event, "[data-recolour]");
    if (tile) this.place.preview(meant(tile));
  }

  /** @param {MouseEvent} event */
  #click(event) {
    const tile = closest(event, "[data-recolour]");
    if (tile) this.#choose(event.shiftKey ? toggled(this.tiles, tile) : [tile]);
    const keep = closest(event, "[data-keep]")?.dataset.keep;
    if (keep) this.#keepAs(keep);
    const tick = closest(event, "[data-tick]")?.dataset.tick;
    if (tick) this.#tick(tick === "all");
  }

  /** All controls, or none. @param {boolean} on */
  #tick(on) {
    for (const box of all("[name=control]", this.box)) if (box instanceof HTMLInputElement) box.checked = on;
    this.#again();
  }

  /** @param {HTMLElement[]} tiles */
  #choose(tiles) {
    const { offered } = this;
    this.tiles = tiles;
    this.picked = tiles.map((tile) => ({ name: nameOf(tile), at: offered.indexOf(tile) }));
    const last = tiles[tiles.length - 1];
    this.chosen = last ? meant(last) : null;
    for (const tile of offered) tile.setAttribute("aria-pressed", String(tiles.includes(tile)));
    this.place.preview(this.chosen);
    if (this.chosen) this.#contrast(this.chosen);
  }

  /** What it does to what is read. @param {Edit} edit */
  async #contrast(edit) {
    this.turn += 1;
    const { turn } = this;
    const answer = await this.place.contrast(edit);
    const text = await answer.text();
    const said = this.form?.querySelector("#contrasts");
    if (turn !== this.turn || !said) return;
    if (answer.ok) said.innerHTML = text;
    else this.place.fault(wordsOf(text));
  }

  /** Other groups, another strength, another aim: the sheet is asked for anew, and what was chosen stays so where it
   * is still there. */
  #again() {
    const { form } = this;
    if (form) this.settled = this.#anew(form);
  }

  /** @param {HTMLFormElement} form */
  async #anew(form) {
    if (!(await this.place.again(asked(form)))) return;
    const now = this.offered;
    // Other controls have other hues: where the same hue is not offered, the one in its place is chosen. Read only now,
    // so that a hue pressed while the answer was on its way is among them.
    const found = this.picked.map(({ name, at }) => now.find((tile) => nameOf(tile) === name) ?? now[at]);
    this.#choose(found.filter(Boolean));
  }

  /** All tiles that are there. @returns {HTMLElement[]} */
  get offered() {
    return all("[data-recolour]", this.box);
  }

  /** @param {string} how */
  async #keepAs(how) {
    await this.settled;
    const { form } = this;
    const name = String(new FormData(form ?? undefined).get("name") ?? "").trim();
    if (!form || !this.chosen || !name) {
      this.place.fault(this.chosen ? "Name it first." : "Choose a hue first.");
      return;
    }
    const answer = await this.place.keep(how, this.tiles.map(meant), name);
    const text = await answer.text();
    if (answer.ok) this.place.kept(how, text);
    else this.place.fault(wordsOf(text));
  }
}
