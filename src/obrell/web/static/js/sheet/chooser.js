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

/** @param {string} path of a colour @returns {HTMLElement|null} the value of the opacity that goes with it */
function opacityOf(path) {
  const beside = path.replace(/(fill\/)?colour$/, "opacity");
  return document.querySelector(`#sheet .num[data-path="${CSS.escape(beside)}"]`);
}

export class Chooser {
  /** @param {Bench} bench */
  constructor(bench) {
    this.bench = bench;
    this.box = byId("chooser");
    this.opacity = /** @type {HTMLInputElement} */ (byId("opacity"));
    this.field = new ColourField(this.box, (colour) => this.#chosen(colour));
    this.open = false;
    this.taking = false;
    this.path = "";
    this.slot = "";
    this.before = "";
    this.colour = "";
    /** @type {HTMLElement|null} */
    this.fade = null;
    this.fadeBefore = 1;
    this.#listen();
  }

  #listen() {
    byId("sheet").addEventListener("click", ({ target }) => {
      const button = target instanceof Element && target.closest(".colour");
      if (button instanceof HTMLElement) this.show(button);
    });
    this.opacity.addEventListener("input", () => this.#preview());
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
    this.#beginOpacity();
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
    await this.#offer();
    if (this.open) stand(this.box, now);
  }

  #beginOpacity() {
    this.fade = opacityOf(this.path);
    byId("opacity-row").hidden = !this.fade;
    this.opacity.value = this.fade?.dataset.value ?? "1";
    // What the slider says of it: a finer value is kept as it is until the slider is moved.
    this.fadeBefore = Number(this.opacity.value);
    this.#sayOpacity();
  }

  async #offer() {
    const answer = await ask(`/kits/${this.bench.kit}/colours`);
    if (!answer.ok) return;
    const offers = await answer.json();
    /** @param {string} colour */
    const take = (colour) => this.field.read("hex", colour);
    offer(offers.used, byId("used"), take);
    offer([...offers.whites, ...offers.blacks], byId("neutral"), take);
  }

  /** @param {Colour} colour */
  #chosen({ hex, opacity }) {
    const faded = this.#fades(opacity);
    const changed = hex !== this.colour || faded;
    this.colour = hex;
    if (changed && this.open) this.#preview();
  }

  /** Take over the opacity that came with a colour, if any. @param {number|null} opacity @returns {boolean} */
  #fades(opacity) {
    if (opacity === null) return false;
    if (!this.fade && opacity < 1)
      this.field.fault.textContent = "This colour has no opacity of its own; the last digits were left out.";
    if (!this.fade || opacity === Number(this.opacity.value)) return false;
    this.opacity.value = String(opacity);
    return true;
  }

  /** @returns {Edit} */
  #edit() {
    const changes = [{ path: this.path, value: /** @type {unknown} */ (this.colour) }];
    const fade = Number(this.opacity.value);
    if (this.fade && fade !== this.fadeBefore) changes.push({ path: this.fade.dataset.path ?? "", value: fade });
    return { kind: "set", changes, parts: this.path.includes("*") ? this.bench.state.selected : [] };
  }

  #preview() {
    this.#sayOpacity();
    this.bench.stage.preview(this.#edit());
  }

  #sayOpacity() {
    byId("opacity-now").textContent = `${Math.round(Number(this.opacity.value) * 100)} %`;
  }

  #close() {
    this.open = false;
    this.field.forget();
    this.box.hidden = true;
    document.getElementById(this.slot)?.focus({ preventScroll: true });
  }

  async keep() {
    if (!this.open) return;
    await this.field.reading;
    if (!this.open) return;
    const changed = this.colour !== this.before || (this.fade && Number(this.opacity.value) !== this.fadeBefore);
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
    await this.field.read("hex", this.field.hex.value || this.colour);
    return !this.field.fault.textContent;
  }

  /** Keep once the last conversion has come back. */
  async #settled() {
    const { turn } = this.field;
    const fine = await this.#typed();
    if (this.field.turn >= turn && fine) this.keep();
  }
}
