/**
 * The field that a colour is chosen in: a plane, a hue, and the colour in every space. All conversions are the
 * server's.
 *
 * @typedef {[number, number, number]} Three
 * @typedef {{hex: string, opacity: number|null, hsv: string[], [space: string]: any}} Colour in all spaces
 * @typedef {{refused: string}} Refused why something is no colour
 * @typedef {Colour|Refused|undefined} Read what was asked for, if anything was
 */
import { unsettled } from "../ui/api.js";
import { all, byId, closest } from "../ui/dom.js";
import { follow } from "../ui/drags.js";
import { ask, wordsOf } from "../ui/page.js";

/** @type {Object<string, [number, number]>} */
const ARROWS = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] };
/** @param {number} value @param {number} most */
const limit = (value, most) => Math.min(most, Math.max(0, value));
/** @param {Element} node @returns {HTMLInputElement[]} */
const fieldsOf = (node) => all("input", node).filter((field) => field instanceof HTMLInputElement);

/** Whether a text is a colour in hexadecimal digits, whole. @param {string} text */
export const hexOf = (text) => /^#?([0-9a-f]{6}|[0-9a-f]{8})$/i.test(text.trim());

/** Follow the pointer over something as shares of its box. @param {HTMLElement} node
 * @param {(x: number, y: number) => void} take */
function dragOver(node, take) {
  node.addEventListener("pointerdown", (event) => {
    /** @param {PointerEvent} at */
    const move = (at) => {
      const box = node.getBoundingClientRect();
      take(limit((at.clientX - box.left) / box.width, 1), limit((at.clientY - box.top) / box.height, 1));
    };
    move(event);
    follow(event, { move });
  });
}

export class ColourField {
  /** @param {HTMLElement} box @param {(colour: Colour) => void} chosen */
  constructor(box, chosen) {
    this.box = box;
    this.chosen = chosen;
    this.hex = /** @type {HTMLInputElement} */ (byId("hex"));
    this.plane = byId("plane");
    this.hue = byId("hue");
    this.fault = /** @type {HTMLElement} */ (box.querySelector(".fault"));
    /** @type {Three} */
    this.hsv = [0, 0, 0];
    /** Whether the colour it opened with may be outdated, and whether something was typed since. */
    this.begun = { old: false, typed: false };
    /** Counts what was asked for: the newest answer wins. */
    this.turn = 0;
    /** What was asked for last comes to. @type {Promise<Read>} */
    this.reading = Promise.resolve(undefined);
    dragOver(this.plane, (x, y) => this.#take([this.hsv[0], x * 100, 100 - y * 100]));
    dragOver(this.hue, (x) => this.#take([x * 360, this.hsv[1], this.hsv[2]]));
    this.hex.addEventListener("change", () => this.read("hex", this.hex.value));
    // A colour that is typed is seen before it is kept.
    this.hex.addEventListener("input", () => {
      if (hexOf(this.hex.value)) this.read("hex", this.hex.value);
    });
    for (const row of all("[data-space]", box)) {
      const value = () => fieldsOf(row).map((field) => field.value);
      row.addEventListener("change", () => this.read(row.dataset.space ?? "", value().join(" ")));
    }
    box.addEventListener("keydown", (event) => this.#key(event));
    box.addEventListener("input", () => {
      this.begun.typed = true;
    });
  }

  /** Ask for a colour in all spaces. @param {string} space @param {string} value */
  read(space, value) {
    this.reading = this.#ask(space, value);
    return this.reading;
  }

  /** What was asked for elsewhere is the newest; nothing when that is nothing. @param {Promise<Read>} [coming] */
  waitFor(coming = Promise.resolve(undefined)) {
    this.reading = coming;
  }

  /** @param {string} words what is wrong; empty when nothing is */
  blame(words) {
    this.fault.textContent = words;
  }

  /** What was asked for is no longer wanted here; whoever waits for it has it. */
  forget() {
    this.turn += 1;
  }

  /** @param {string} space @param {string} value @returns {Promise<Colour|Refused>} */
  async #ask(space, value) {
    this.turn += 1;
    const { turn } = this;
    const answer = await ask(`/colour?${new URLSearchParams({ space, value })}`);
    const text = await answer.text();
    /** @type {Colour|Refused} */
    const colour = answer.ok ? JSON.parse(text) : { refused: wordsOf(text) };
    if (turn !== this.turn) return colour;
    this.fault.textContent = "refused" in colour ? colour.refused : "";
    if ("refused" in colour) return colour;
    if (space !== "hsv") this.#keepHue(colour.hsv.map(Number));
    this.#show(colour);
    this.chosen(colour);
    return colour;
  }

  /** Whether a colour was typed while the one shown may not be the stored one: then it is sent even if it is equal. */
  get doubtful() {
    return this.begun.old && this.begun.typed;
  }

  /** A colour that is begun with: its digits are there to be typed over at once. @param {string} hex */
  begin(hex) {
    this.fault.textContent = "";
    this.begun = { old: unsettled(), typed: false };
    this.hex.value = hex;
    this.hex.focus({ preventScroll: true });
    this.hex.select();
    byId("colour-new").style.background = hex;
    this.read("hex", hex);
  }

  /** A colour that was not chosen here. @param {Colour} colour in all spaces */
  showAs(colour) {
    this.turn += 1;
    this.#keepHue(colour.hsv.map(Number));
    this.#show(colour);
  }

  /** Greys have no hue: the slider stays where it was. @param {number[]} hsv */
  #keepHue([hue, saturation, value]) {
    this.hsv = [saturation && value ? hue : this.hsv[0], value ? saturation : this.hsv[1], value];
  }

  /** @param {Three} hsv */
  #take(hsv) {
    this.hsv = hsv;
    this.#marks();
    this.read("hsv", hsv.map((value) => value.toFixed(3)).join(" "));
  }

  /** @param {Colour} colour */
  #show(colour) {
    if (document.activeElement !== this.hex) this.hex.value = colour.hex;
    for (const row of all("[data-space]", this.box)) {
      fieldsOf(row).forEach((field, index) => {
        if (document.activeElement !== field) field.value = colour[row.dataset.space ?? ""][index];
      });
    }
    byId("colour-new").style.background = colour.hex;
    this.#marks();
  }

  #marks() {
    const [hue, saturation, value] = this.hsv;
    const { plane } = this;
    const knob = /** @type {HTMLElement} */ (plane.firstElementChild);
    plane.style.setProperty("--pure", `hsl(${hue} 100% 50%)`);
    [knob.style.left, knob.style.top] = [`${saturation}%`, `${100 - value}%`];
    plane.setAttribute("aria-valuetext", `saturation ${Math.round(saturation)} %, value ${Math.round(value)} %`);
    const slider = /** @type {HTMLElement} */ (this.hue.firstElementChild);
    slider.style.left = `${hue / 3.6}%`;
    this.hue.setAttribute("aria-valuenow", String(Math.round(hue)));
  }

  /** @param {KeyboardEvent} event */
  #key(event) {
    const step = ARROWS[event.key];
    const by = (event.shiftKey ? 10 : 1) * (event.altKey ? 0.1 : 1);
    const [hue, saturation, value] = this.hsv;
    if (!step) return;
    if (closest(event, "#plane")) {
      this.#take([hue, limit(saturation + step[0] * by, 100), limit(value + step[1] * by, 100)]);
    } else if (closest(event, "#hue")) {
      this.#take([(hue + (step[0] + step[1]) * by + 360) % 360, saturation, value]);
    } else return;
    event.preventDefault();
  }
}
