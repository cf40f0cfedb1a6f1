/**
 * The colour chooser: stands beside a colour of the sheet, shows on the art what is chosen, keeps it or puts it back.
 *
 * @typedef {import("../ui/types.js").Bench} Bench
 * @typedef {import("../ui/types.js").Edit} Edit
 * @typedef {import("./colour_field.js").Colour} Colour
 */
import { all, byId, saidBy } from "../ui/dom.js";
import { ask } from "../ui/page.js";
import { ColourField } from "./colour_field.js";
import { Fade } from "./fade.js";
import { Following } from "./following.js";
import { Readable } from "./readable.js";
import { stand } from "./standing.js";
import { paintedAt, pressOn, seenAt } from "./taking.js";

/** What keeps the chooser open when it is pressed: the ramp whose stops it goes along. */
const BESIDE = ".rail, .stops .colour, [data-ramp=add], [data-ramp=copy]";

/** @param {string[]} colours @param {HTMLElement} place @param {(colour: string) => void} take */
function offer(colours, place, take) {
  place.replaceChildren(
    ...colours.map((colour) => {
      const button = document.createElement("button");
      button.style.background = colour;
      button.title = colour;
      button.setAttribute("aria-label", colour);
      button.addEventListener("click", () => take(colour));
      return button;
    }),
  );
}

export class Chooser {
  /** @param {Bench} bench */
  constructor(bench) {
    this.bench = bench;
    this.box = byId("chooser");
    this.fade = new Fade(() => this.#preview());
    this.field = new ColourField(this.box, (colour) => this.#chosen(colour));
    this.following = new Following(bench.kit, () => bench.stage.colourway, {
      follow: (colour) => this.#followed(colour),
      colour: async () => {
        await this.field.reading;
        return this.colour;
      },
      leave: () => this.#left(),
      fault: (words) => {
        this.field.fault.textContent = words;
      },
    });
    this.readable = new Readable(bench);
    this.open = false;
    this.taking = false;
    this.path = "";
    this.slot = "";
    this.before = "";
    this.colour = "";
    /** What was stored of it, as JSON. */
    this.valueBefore = "";
    this.#listen();
  }

  #listen() {
    byId("sheet").addEventListener("click", ({ target }) => {
      const button = target instanceof Element && target.closest(".colour");
      if (button instanceof HTMLElement) this.show(button);
    });
    byId("colour-keep").addEventListener("click", () => this.keep());
    byId("colour-back").addEventListener("click", () => this.restore());
    byId("from-art").addEventListener("click", () => this.#take(seenAt));
    byId("from-part").addEventListener("click", () => this.#take(paintedAt));
    this.box.addEventListener("keydown", (event) => this.#key(event));
    document.addEventListener(
      "pointerdown",
      ({ target }) => {
        const beside = target instanceof Element && (this.box.contains(target) || target.closest(BESIDE));
        if (this.open && !this.taking && !beside) this.keep();
      },
      true,
    );
  }

  /** @param {HTMLElement} button the colour's slot in the sheet */
  async show(button) {
    const { id } = button;
    await this.keep();
    // What was kept may have written the sheet anew.
    const now = byId(id);
    now.focus({ preventScroll: true });
    this.path = now.dataset.path ?? "";
    this.slot = id;
    this.before = now.dataset.colour ?? "";
    this.colour = this.before;
    this.following.begin(JSON.parse(now.dataset.link ?? "null"));
    this.valueBefore = JSON.stringify(this.following.value(this.before));
    this.fade.begin(this.path);
    this.open = true;
    this.box.hidden = false;
    stand(this.box, now);
    byId("colour-old").style.background = this.before;
    const mine = this.field.turn + 1;
    await this.field.read("hex", this.before);
    if (this.field.turn === mine && !this.taking) {
      this.field.hex.focus();
      this.field.hex.select();
    }
    this.readable.show(this.#edit(), this.field.hsv[0]);
    await this.#offer();
    if (this.open) stand(this.box, now);
  }

  async #offer() {
    const answer = await ask(`/kits/${this.bench.kit}/colours?colourway=${this.bench.stage.colourway}`);
    if (!answer.ok) return;
    const offers = await answer.json();
    /** @param {string} colour */
    const take = (colour) => this.field.read("hex", colour);
    this.following.offer(offers.swatches);
    offer(offers.used, byId("used"), take);
    offer([...offers.whites, ...offers.blacks], byId("neutral"), take);
  }

  /** @param {Colour} colour */
  #chosen({ hex, opacity }) {
    const faded = this.fade.take(opacity, this.field.fault);
    const changed = hex !== this.colour || faded;
    if (hex !== this.colour) this.following.leave();
    this.colour = hex;
    if (this.open) this.following.nearest(hex);
    if (changed && this.open) this.#preview();
  }

  /** It follows a swatch from now on. @param {Colour} colour */
  #followed(colour) {
    if (!this.open) return;
    this.colour = colour.hex;
    this.field.showAs(colour);
    this.#preview();
  }

  /** It stays as it looks, and follows no longer. */
  #left() {
    this.following.leave();
    this.#preview();
  }

  /** @returns {Edit} */
  #edit() {
    const changes = [{ path: this.path, value: /** @type {unknown} */ (this.following.value(this.colour)) }];
    changes.push(...this.fade.changes());
    return { kind: "set", changes, parts: this.path.includes("*") ? this.bench.state.selected : [] };
  }

  #preview() {
    this.readable.show(this.#edit(), this.field.hsv[0]);
    this.bench.stage.preview(this.#edit());
  }

  #close() {
    this.open = false;
    this.readable.end();
    this.field.forget();
    this.box.hidden = true;
    document.getElementById(this.slot)?.focus({ preventScroll: true });
  }

  async keep() {
    if (!this.open) return;
    await this.field.reading;
    if (!this.open) return;
    const other = JSON.stringify(this.following.value(this.colour)) !== this.valueBefore;
    const changed = other || this.fade.changes().length > 0;
    this.#close();
    if (changed) await this.bench.post(this.#edit());
    else this.bench.stage.preview(null);
  }

  restore() {
    this.#close();
    this.bench.stage.preview(null);
  }

  /** The next press on the stage takes a colour there.
   * @param {(bench: Bench, event: PointerEvent) => Promise<string>} colourAt */
  async #take(colourAt) {
    this.taking = true;
    const press = await pressOn(this.bench.stage.element);
    this.taking = false;
    if (!press) return;
    this.field.hex.blur();
    try {
      await this.field.read("hex", await colourAt(this.bench, press));
    } catch (error) {
      this.field.fault.textContent = saidBy(error);
    }
  }

  /** @param {KeyboardEvent} event */
  #key(event) {
    event.stopPropagation();
    if (event.key === "Escape") this.restore();
    if (event.key === "Enter") {
      if (event.target instanceof HTMLInputElement) event.target.blur();
      setTimeout(() => this.#settled(), 0);
    }
    if (event.key === "Tab" && event.target === this.field.hex && this.#step(event.shiftKey ? -1 : 1))
      event.preventDefault();
  }

  /** From the colour of one stop to the next. @param {1|-1} way @returns {boolean} whether there is one */
  #step(way) {
    const slots = all(".stops .colour").filter((slot) => slot.closest(".ramp")?.contains(byId(this.slot)));
    const next = slots[slots.findIndex((slot) => slot.id === this.slot) + way];
    if (!slots.length || !next) return false;
    this.#typed().then((fine) => (fine ? this.show(next) : undefined));
    return true;
  }

  /** What is typed is read first. @returns {Promise<boolean>} whether it is a colour */
  async #typed() {
    // What is shown of a colour that follows is not typed.
    if (this.field.hex.value !== this.colour) await this.field.read("hex", this.field.hex.value || this.colour);
    return !this.field.fault.textContent;
  }

  /** Keep once the last conversion has come back. */
  async #settled() {
    const { turn } = this.field;
    const fine = await this.#typed();
    if (this.field.turn >= turn && fine) this.keep();
  }
}
