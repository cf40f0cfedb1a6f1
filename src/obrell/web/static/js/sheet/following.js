/**
 * The upper part of the colour chooser: the swatches of the kit, a ladder for one of them, and by how much a colour
 * that follows it differs.
 *
 * @typedef {import("./colour_field.js").Colour} Colour
 * @typedef {{swatch: string, tint?: number, chroma?: number, hue?: number, own?: string|null}} LinkTo
 * @typedef {Colour & {link: LinkTo}} Followed
 * @typedef {{id: string, name: string, colour: string, ladder: {tint: number, colour: string, words: string}[]}} Swatch
 */
import { all, byId } from "../ui/dom.js";
import { ask, wordsOf } from "../ui/page.js";
import { SwatchItself } from "./swatch_itself.js";

const FINEST = 10;

/** @param {string} colour @param {string} words @param {boolean} pressed @param {() => void} act */
function chip(colour, words, pressed, act) {
  const button = document.createElement("button");
  button.style.background = colour;
  button.title = words;
  button.setAttribute("aria-label", words);
  button.setAttribute("aria-pressed", String(pressed));
  button.addEventListener("click", act);
  return button;
}

export class Following {
  /**
   * @param {import("../ui/types.js").Bench} bench
   * @param {{asked: (coming: Promise<any>) => void,
   *   follow: (colour: Colour) => void, leave: () => void, colour: () => Promise<string>,
   *   fault: (words: string) => void}} does
   */
  constructor(bench, does) {
    this.kit = bench.kit;
    /** The colourway that is shown. */
    this.way = () => bench.stage.colourway;
    this.does = does;
    this.itself = new SwatchItself(bench, (swatches) => this.#again(swatches), does.fault);
    /** How the colour follows. @type {LinkTo|null} */
    this.link = null;
    /** How it did before it was its own. @type {LinkTo|null} */
    this.remembered = null;
    /** @type {Swatch[]} */
    this.swatches = [];
    /** Counts what was asked for: the newest answer wins. */
    this.turn = 0;
    /** What can be followed instead of a colour of its own. @type {LinkTo|null} */
    this.offered = null;
    byId("follow-not").addEventListener("click", () => this.does.leave());
    byId("follow-so").addEventListener("click", () => this.offered && this.take(this.offered));
    for (const row of all("[data-adjust]")) this.#listen(row);
    byId("name-swatch").addEventListener("submit", (event) => this.#name(event));
  }

  /** A swatch made of the colour as it looks, which it follows then. @param {Event} event */
  async #name(event) {
    event.preventDefault();
    const form = /** @type {HTMLFormElement} */ (byId("name-swatch"));
    const body = new FormData(form);
    body.set("colour", await this.does.colour());
    const way = new URLSearchParams({ colourway: this.way() });
    const answer = await ask(`/kits/${this.kit}/swatches/named?${way}`, { method: "POST", body });
    const text = await answer.text();
    this.does.fault(answer.ok ? "" : wordsOf(text));
    if (!answer.ok) return;
    const made = JSON.parse(text);
    form.reset();
    this.swatches = made.swatches;
    await this.take({ swatch: made.id });
  }

  /** @param {HTMLElement} row */
  #listen(row) {
    const name = row.dataset.adjust ?? "";
    row.addEventListener("input", ({ target }) => {
      if (target instanceof HTMLInputElement && target.type === "range") this.#adjust(name, Number(target.value));
    });
    row.addEventListener("change", ({ target }) => {
      if (!(target instanceof HTMLInputElement) || target.type === "range") return;
      const value = Number(target.value.replace("−", "-").replace(",", "."));
      if (Number.isFinite(value)) this.#adjust(name, value);
      else this.does.fault(`“${target.value}” is not a number.`);
    });
    row.querySelector("button")?.addEventListener("click", () => this.#adjust(name, 0));
  }

  /** @param {LinkTo|null} link as it stands in the sheet */
  begin(link) {
    this.offered = null;
    this.link = link?.own ? null : link;
    this.remembered = link?.own ? link : null;
    this.turn += 1;
    this.#show();
  }

  /** @param {Swatch[]} swatches of the kit */
  offer(swatches) {
    this.swatches = swatches;
    this.#show();
  }

  /** What is followed looks otherwise now. @param {Swatch[]} swatches */
  #again(swatches) {
    this.offer(swatches);
    return this.link ? this.take(this.link) : Promise.resolve();
  }

  /** The colour is its own from now on; how it followed is remembered. */
  leave() {
    this.remembered = this.link ?? this.remembered;
    this.link = null;
    this.turn += 1;
    this.#show();
  }

  /** What is stored of a colour. @param {string} colour as it looks @returns {string|LinkTo} */
  value(colour) {
    if (this.link) return { ...this.link, own: null };
    return this.remembered ? { ...this.remembered, own: colour } : colour;
  }

  /** @param {string} name @param {number} value */
  #adjust(name, value) {
    if (this.link) this.take({ ...this.link, [name]: Math.round(value * FINEST) / FINEST });
  }

  /** Follow so. @param {LinkTo} link */
  take(link) {
    const asked = this.#ask(link);
    this.does.asked(asked);
    return asked;
  }

  /** @param {LinkTo} link @returns {Promise<Followed|import("./colour_field.js").Refused>} */
  async #ask(link) {
    this.turn += 1;
    const { turn } = this;
    const asked = new URLSearchParams({ link: JSON.stringify({ ...link, own: null }), colourway: this.way() });
    const answer = await ask(`/kits/${this.kit}/followed?${asked}`);
    const text = await answer.text();
    const refused = answer.ok ? "" : wordsOf(text);
    const colour = answer.ok ? JSON.parse(text) : null;
    const followed = colour ? { ...colour, link: { ...link, own: null } } : { refused };
    if (turn !== this.turn) return followed;
    this.does.fault(refused);
    if (refused) return followed;
    this.link = followed.link;
    this.does.follow(colour);
    this.#show();
    return followed;
  }

  #show() {
    const now = this.link ?? this.remembered ?? this.offered;
    byId("follow-swatches").replaceChildren(
      ...this.swatches.map(({ id, name, colour }) =>
        chip(colour, name, this.link?.swatch === id, () => this.take({ swatch: id })),
      ),
    );
    const chosen = this.swatches.find(({ id }) => id === now?.swatch) ?? this.swatches[0];
    byId("follow-ladder").replaceChildren(
      ...(chosen?.ladder ?? []).map(({ tint, colour, words }) =>
        chip(colour, words, this.#stands(tint), () => this.take({ ...this.link, swatch: chosen?.id ?? "", tint })),
      ),
    );
    const values = /** @type {HTMLFieldSetElement} */ (byId("follow-values"));
    values.disabled = !this.link;
    byId("follow-name").textContent = this.link && chosen ? `follows ${chosen.name}` : "";
    byId("follow-not").hidden = !this.link;
    this.itself.stand((this.link && chosen) || null);
    for (const row of all("[data-adjust]")) this.#write(row);
    this.#offerAgain(chosen);
  }

  /** @param {number} tint */
  #stands(tint) {
    return this.link !== null && (this.link.tint ?? 0) === tint;
  }

  /** @param {HTMLElement} row */
  #write(row) {
    const name = /** @type {"tint"|"chroma"|"hue"} */ (row.dataset.adjust);
    for (const field of row.querySelectorAll("input")) {
      if (field.type === "range" || document.activeElement !== field) field.value = String(this.link?.[name] ?? 0);
    }
  }

  /** A colour that did follow can do so again. @param {Swatch|undefined} chosen */
  #offerAgain(chosen) {
    const again = !this.link && this.remembered && chosen;
    this.#offers(again ? `Follow ${chosen.name} again, as before` : "", "");
    if (again) this.offered = this.remembered;
  }

  /** @param {string} words @param {string} remains */
  #offers(words, remains) {
    byId("follow-so").hidden = !words;
    byId("follow-so").textContent = words;
    byId("follow-remains").textContent = remains;
  }

  /** Which swatch is the nearest to a colour of its own, and how far it is. @param {string} colour */
  async nearest(colour) {
    if (this.link || this.remembered) return;
    const { turn } = this;
    const answer = await ask(`/kits/${this.kit}/nearest?${new URLSearchParams({ colour, colourway: this.way() })}`);
    if (!answer.ok || turn !== this.turn) return;
    const { link, words, remains } = await answer.json();
    if (!link) return;
    this.offered = link;
    this.#show();
    this.#offers(`Follow ${words}`, remains === "0" ? "looks the same" : `${remains} off`);
  }
}
