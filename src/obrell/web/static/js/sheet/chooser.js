/**
 * The colour chooser: stands beside a colour of the sheet, shows on the art what is chosen, keeps it or puts it back.
 *
 * @typedef {import("../ui/types.js").Bench} Bench
 * @typedef {import("../ui/types.js").Edit} Edit
 * @typedef {import("./colour_field.js").Colour} Colour
 * @typedef {import("./colour_field.js").Read} Read
 * @typedef {import("./following.js").LinkTo} LinkTo
 * @typedef {import("./pick.js").Pick} Pick
 */
import { all, byId, closest } from "../ui/dom.js";
import { typing } from "../ui/page.js";
import { ColourField, hexOf } from "./colour_field.js";
import { Fade } from "./fade.js";
import { Following } from "./following.js";
import { offered } from "./offers.js";
import { editOf } from "./pick.js";
import { Readable } from "./readable.js";
import { stand } from "./standing.js";
import { paintedAt, seenAt, takeInto } from "./taking.js";

/** What keeps the chooser open when it is pressed: the ramp whose stops it goes along. */
const BESIDE = ".rail, .stops .colour, [data-ramp=add], [data-ramp=copy]";

/** What is typed in a field of a box is taken up, as it is when the field is left. @param {HTMLElement} box */
function leaveField(box) {
  const field = document.activeElement;
  if (field instanceof HTMLInputElement && box.contains(field)) field.blur();
}

/** The colour of the next stop of a gradient, or of the one before. @param {string} id of a slot @param {1|-1} way */
function besides(id, way) {
  const slots = all(".stops .colour").filter((slot) => slot.closest(".ramp")?.contains(byId(id)));
  return slots[slots.findIndex((slot) => slot.id === id) + way];
}

/** What was chosen so far, and what it was. @param {Chooser} chooser @returns {Pick} */
function pickOf({ path, slot, bench, valueBefore, field, colour, following, fade }) {
  const { link, remembered } = following;
  const parts = path.includes("*") ? bench.state.selected : [];
  const [before, text, opacity] = [field.doubtful ? "" : valueBefore, field.hex.value, fade.state];
  return { path, slot, parts, before, text, colour, link, remembered, opacity };
}

export class Chooser {
  /** @param {Bench} bench */
  constructor(bench) {
    this.bench = bench;
    this.box = byId("chooser");
    this.fade = new Fade(() => this.#preview());
    this.field = new ColourField(this.box, (colour) => this.#chosen(colour));
    this.following = new Following(bench, {
      asked: (coming) => this.field.waitFor(coming),
      follow: (colour) => this.#followed(colour),
      colour: async () => {
        await this.field.reading;
        return this.colour;
      },
      leave: () => this.#left(),
      fault: (words) => this.field.blame(words),
    });
    this.readable = new Readable(() => this.open, bench);
    this.open = false;
    /** When what was kept last is answered. @type {Promise<void>} */
    this.keeping = Promise.resolve();
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

  /** Open at once, with the colour as it stands in the sheet: what is typed next is typed over it, whatever the server
   * says when. @param {HTMLElement} button the colour's slot in the sheet */
  show(button) {
    this.keep();
    this.#begin(button);
    return this.#offer(button.id);
  }

  /** @param {HTMLElement} button */
  #begin(button) {
    this.path = button.dataset.path ?? "";
    this.slot = button.id;
    this.before = button.dataset.colour ?? "";
    this.colour = this.before;
    this.following.begin(JSON.parse(button.dataset.link ?? "null"));
    this.valueBefore = JSON.stringify(this.following.value(this.before));
    this.fade.begin(this.path);
    this.open = true;
    this.box.hidden = false;
    stand(this.box, button);
    byId("colour-old").style.background = this.before;
    button.focus({ preventScroll: true });
    this.field.begin(this.before);
    this.readable.onBench(this.#edit(), this.field.hsv[0]);
  }

  /** Colours to begin with. @param {string} slot */
  async #offer(slot) {
    const swatches = await offered(this.bench, (colour) => this.field.read("hex", colour));
    if (swatches) this.following.offer(swatches);
    const button = document.getElementById(slot);
    if (this.open && this.slot === slot && button) stand(this.box, button);
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
    this.field.waitFor();
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
    this.readable.onBench(this.#edit(), this.field.hsv[0]);
    this.bench.stage.preview(this.#edit());
  }

  #close() {
    this.open = false;
    this.readable.end();
    this.field.forget();
    this.box.hidden = true;
    document.getElementById(this.slot)?.focus({ preventScroll: true });
  }

  /** Close, and keep what was chosen once all of it is read. @returns {Promise<void>} when it is kept */
  keep() {
    if (!this.open) return this.keeping;
    leaveField(this.box);
    const [pick, { reading }] = [pickOf(this), this.field];
    this.following.itself.finish().then((refused) => refused && this.bench.complain(refused));
    this.#close();
    this.keeping = this.bench.post(reading.then((read) => this.#read(pick, read))).then(() => {});
    return this.keeping;
  }

  /** @param {Pick} pick @param {Read} read @returns {Edit|null} what is kept */
  #read(pick, read) {
    if (!read || !("refused" in read)) return editOf(pick, read);
    this.#again(pick, read.refused);
    return null;
  }

  /** What is no colour is there again to be mended; unless something else is chosen or typed by then.
   * @param {Pick} pick @param {string} words */
  #again({ slot, text }, words) {
    const button = document.getElementById(slot);
    if (this.open || !button || typing({ target: document.activeElement })) return this.bench.complain(words);
    this.bench.stage.preview(null);
    this.#begin(button);
    this.field.forget();
    this.field.hex.value = text;
    this.field.fault.textContent = words;
  }

  restore() {
    this.following.itself.end();
    this.#close();
    this.bench.stage.preview(null);
  }

  /** The next press on the stage takes a colour there.
   * @param {(bench: Bench, event: PointerEvent) => Promise<string>} colourAt */
  async #take(colourAt) {
    this.taking = true;
    await takeInto(this.field, this.bench, colourAt);
    this.taking = false;
  }

  /** @param {KeyboardEvent} event */
  #key(event) {
    event.stopPropagation();
    if (event.key === "Escape") this.restore();
    if (event.key === "Enter" && !closest(event, "button")) this.#enter(event);
    const next = event.key === "Tab" && event.target === this.field.hex && besides(this.slot, event.shiftKey ? -1 : 1);
    if (!next) return;
    event.preventDefault();
    this.show(next);
  }

  /** Keep what is typed; what is no colour stays, to be mended. @param {KeyboardEvent} event */
  async #enter(event) {
    if (closest(event, "form")) return;
    event.preventDefault();
    const { hex } = this.field;
    if (event.target !== hex) leaveField(this.box);
    else if (hex.value === this.colour || hexOf(hex.value)) {
      await this.keep();
      return;
    } else this.field.read("hex", hex.value);
    const [{ reading }, { slot }] = [this.field, this];
    const read = await reading;
    if (this.open && this.slot === slot && !(read && "refused" in read)) await this.keep();
  }
}
