/**
 * The sheet of hues for several controls of a kit, which are tried where they stand on the Wall.
 *
 * @typedef {import("../ui/types.js").Edit} Edit
 * @typedef {{kit: string, trying: import("./trying.js").Trying, take: (html: string) => void,
 *   written: (kept: boolean) => void}} Wall
 */
import { all, byId } from "../ui/dom.js";
import { morphInner } from "../ui/morph.js";
import { Newest } from "../ui/newest.js";
import { ask, JSON_TYPE, wordsOf } from "../ui/page.js";
import { Recolouring } from "./recolouring.js";

class KitHues {
  /** @param {HTMLElement} box @param {Wall} wall */
  constructor(box, wall) {
    this.box = box;
    this.wall = wall;
    this.newest = new Newest();
    this.hues = new Recolouring(box, {
      preview: (edit) => this.#preview(edit),
      contrast: (edit) => this.#send("/contrast", { edit }),
      keep: (how, edits, name) => this.#send(`/${how}`, { edits, name }),
      kept: (_, text) => this.#written(text, false),
      again: (more) => this.#again(more),
      fault: (words) => this.#fault(words),
    });
    box.addEventListener("submit", (event) => {
      if (event.target !== this.hues.form) return;
      event.preventDefault();
      this.#recolour();
    });
    // Controls that are scrolled into view are drawn with the hue, too.
    byId("wall").addEventListener("scroll", () => this.hues.form && this.#preview(this.hues.chosen), true);
  }

  /** @returns {string[]} the ticked controls */
  get ticked() {
    const { form } = this.hues;
    return form ? new FormData(form).getAll("control").map(String) : [];
  }

  /** @param {Edit|null} edit */
  #preview(edit) {
    const { ticked } = this;
    const { trying } = this.wall;
    trying.only(ticked);
    if (edit && ticked.length) trying.show({}, {}, { edit, only: ticked });
    else trying.end(false);
  }

  /** @param {string} where @param {object} more */
  #send(where, more) {
    const { colourway } = this.wall.trying;
    const way = colourway === "all" ? {} : { colourway };
    const body = JSON.stringify({ controls: this.ticked, ...way, ...more });
    const address = `/kits/${this.wall.kit}/recolour${where}${location.search}`;
    return ask(address, { method: "POST", body, headers: JSON_TYPE });
  }

  /** @param {Object<string, string>} more @returns {Promise<boolean>} whether it is there */
  async #again(more) {
    const query = new URLSearchParams({ ...Object.fromEntries(new URLSearchParams(location.search)), ...more });
    const answer = await this.newest.of(ask(`/kits/${this.wall.kit}/recolour?${query}`));
    if (!answer) return false;
    const text = await answer.text();
    if (!this.hues.form) return false;
    if (answer.ok) morphInner(this.box, text);
    else this.#fault(wordsOf(text));
    return answer.ok;
  }

  async #recolour() {
    await this.hues.settled;
    const { chosen, form } = this.hues;
    if (!chosen || !form) {
      this.#fault("Choose a hue first.");
      return;
    }
    const free = waiting(form);
    const answer = await this.#send("", { edit: chosen });
    const text = await answer.text();
    free();
    if (answer.ok) this.#written(text, true);
    else this.#fault(wordsOf(text));
  }

  /** @param {string} html of the Wall @param {boolean} kept what was tried is what it shows */
  #written(html, kept) {
    this.hues.begin();
    this.wall.written(kept);
    this.wall.take(html);
  }

  /** @param {string} words */
  #fault(words) {
    this.hues.form?.querySelector(".fault")?.replaceChildren(words);
  }
}

/** The button says that it is at work. @param {HTMLFormElement} form @returns {() => void} it is done */
function waiting(form) {
  const [button] = all(".pill.go", form);
  if (!(button instanceof HTMLButtonElement)) return () => {};
  const words = button.textContent ?? "";
  button.textContent = "Recolouring …";
  button.disabled = true;
  return () => {
    button.textContent = words;
    button.disabled = false;
  };
}

/** @param {HTMLElement} box that the form is in @param {Wall} wall */
export const startHues = (box, wall) => new KitHues(box, wall).hues;
