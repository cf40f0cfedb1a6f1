/**
 * The swatches of a kit on its Wall: their colours in the chooser, their order, where they are followed, new ones.
 *
 * @typedef {import("../sheet/colour_field.js").Colour} Colour
 * @typedef {{kit: string, take: (html: string) => void, trying: import("./trying.js").Trying}} Wall
 */
import { ColourField } from "../sheet/colour_field.js";
import { Readable } from "../sheet/readable.js";
import { stand } from "../sheet/standing.js";
import { all, byId, closest } from "../ui/dom.js";
import { ask, trouble, wordsOf } from "../ui/page.js";

/** A swatch's colour chosen: shown on the whole Wall meanwhile, kept or put back. */
export class SwatchChooser {
  /** @param {Wall} wall */
  constructor(wall) {
    this.wall = wall;
    this.box = byId("chooser");
    this.field = new ColourField(this.box, (colour) => this.#chosen(colour));
    this.readable = new Readable(() => this.open);
    this.swatch = "";
    this.before = "";
    this.colour = "";
    byId("wall").addEventListener("click", (event) => {
      const chip = closest(event, ".swatches .chip");
      if (chip) this.show(chip);
    });
    byId("colour-keep").addEventListener("click", () => this.keep());
    byId("colour-back").addEventListener("click", () => this.restore());
    this.box.addEventListener("keydown", (event) => this.#key(event));
    document.addEventListener(
      "pointerdown",
      ({ target }) => {
        if (this.open && target instanceof Node && !this.box.contains(target)) this.keep();
      },
      true,
    );
  }

  get open() {
    return Boolean(this.swatch);
  }

  /** @param {HTMLElement} chip */
  async show(chip) {
    const { id } = chip;
    await this.keep();
    const now = byId(id);
    this.swatch = now.closest("li")?.dataset.swatch ?? "";
    this.before = now.dataset.colour ?? "";
    this.colour = this.before;
    this.box.hidden = false;
    byId("colour-old").style.background = this.before;
    stand(this.box, now);
    await this.field.read("hex", this.before);
    this.field.hex.focus();
    this.field.hex.select();
    this.#reads();
  }

  /** How well the labels that follow it are read. */
  #reads() {
    const { kit, trying } = this.wall;
    this.readable.show(`/kits/${kit}/readable`, trying.asked({ [this.swatch]: this.colour }));
  }

  /** @param {Colour} colour */
  #chosen({ hex, opacity }) {
    if (opacity !== null && opacity < 1)
      this.field.fault.textContent = "A swatch has no opacity; the last digits were left out.";
    if (!this.open || hex === this.colour) return;
    this.colour = hex;
    this.wall.trying.show({ [this.swatch]: hex });
    this.#reads();
  }

  #close() {
    const chip = document.getElementById(`chip-${this.swatch}`);
    this.swatch = "";
    this.readable.end();
    this.field.forget();
    this.box.hidden = true;
    chip?.focus({ preventScroll: true });
  }

  async keep() {
    if (!this.open) return;
    await this.field.reading;
    if (!this.open) return;
    const { swatch, colour, before } = this;
    this.#close();
    if (colour === before) {
      this.wall.trying.end(false);
      return;
    }
    const answer = await ask(`/kits/${this.wall.kit}/swatches/${swatch}/colour${location.search}`, {
      method: "POST",
      body: new URLSearchParams({ colour }),
    });
    const text = await answer.text();
    if (answer.ok) this.wall.take(text);
    else trouble(wordsOf(text));
    this.wall.trying.end(answer.ok);
  }

  restore() {
    this.#close();
    this.wall.trying.end(false);
  }

  /** @param {KeyboardEvent} event */
  #key(event) {
    event.stopPropagation();
    if (event.key === "Escape") this.restore();
    if (event.key === "Enter" && !(event.target instanceof HTMLButtonElement)) {
      if (event.target instanceof HTMLInputElement) event.target.blur();
      setTimeout(() => this.#typed(), 0);
    }
  }

  /** Keep once the last conversion has come back, if it is a colour. */
  async #typed() {
    await this.field.read("hex", this.field.hex.value || this.colour);
    if (!this.field.fault.textContent) this.keep();
  }
}

/** Rows dragged to their places. @param {(swatch: string, to: number) => void} move */
export function orderByDragging(move) {
  /** @type {HTMLElement|null} */
  let dragged = null;
  const wall = byId("wall");
  const unmark = () => all(".swatches .over").forEach((row) => row.classList.remove("over"));
  wall.addEventListener("dragstart", (event) => {
    dragged = closest(event, ".swatches li");
  });
  wall.addEventListener("dragover", (event) => {
    const row = closest(event, ".swatches li");
    if (!dragged || !row) return;
    event.preventDefault();
    unmark();
    row.classList.add("over");
  });
  wall.addEventListener("dragend", () => {
    dragged = null;
    unmark();
  });
  wall.addEventListener("drop", (event) => {
    const row = closest(event, ".swatches li");
    if (!dragged || !row || row === dragged) return;
    event.preventDefault();
    move(dragged.dataset.swatch ?? "", Number(row.dataset.at));
  });
}

/** A colour pressed among the candidates of a new swatch. @param {Event} event */
export function takeCandidate(event) {
  const chosen = closest(event, "[data-candidate]");
  const form = chosen?.closest("form");
  const field = form?.querySelector("[data-takes-candidate]");
  if (!chosen || !form || !(field instanceof HTMLInputElement)) return;
  field.value = chosen.dataset.candidate ?? "";
  for (const other of all("[data-candidate]", form)) other.setAttribute("aria-pressed", String(other === chosen));
}
