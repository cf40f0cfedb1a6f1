/**
 * Conditions: the screen as it is seen in sunlight, at night, from afar, or by other eyes. The server composes its
 * pixels and works on them; what it sends lies over the screen.
 *
 * @typedef {import("../trial.js").Trial} Trial
 * @typedef {{sun: number, night: number, vision: string, severity: number, distance: number,
 *   grey: boolean}} Conditions
 */
import { all, byId } from "../ui/dom.js";
import { Link } from "../ui/link.js";
import { morphInner } from "../ui/morph.js";
import { ask, trouble } from "../ui/page.js";

const BRIGHTEST_NIGHT = 50;
const DARKEST_NIGHT = 0.05;
/** What a word above the screen sets when it was off: sliders and choices.
 * @type {Object<string, [string, string][]>} */
const USUAL = { sun: [["sun", "300"]], night: [["night", "60"]], vision: [["vision", "deutan"]] };
const KEPT = "obrell/conditions";
/** How long nothing has to change before labels are measured. */
const SOON_MS = 500;
const FIELDS = ["sun", "night", "vision", "severity", "distance", "grey"];

/** @param {string} id */
const field = (id) => /** @type {HTMLInputElement|HTMLSelectElement} */ (byId(id));
/** @param {number} step 0 to 100 */
const nightOf = (step) =>
  step ? Number((BRIGHTEST_NIGHT * (DARKEST_NIGHT / BRIGHTEST_NIGHT) ** ((step - 1) / 99)).toPrecision(2)) : 0;

/** @returns {Conditions} */
function asked() {
  return {
    sun: Number(field("sun").value),
    night: nightOf(Number(field("night").value)),
    vision: field("vision").value,
    severity: Number(field("severity").value) / 100,
    distance: Number(field("distance").value) / 10,
    grey: /** @type {HTMLInputElement} */ (byId("grey")).checked,
  };
}

export class Lens {
  /** @param {Trial} trial */
  constructor(trial) {
    this.trial = trial;
    this.canvas = /** @type {HTMLCanvasElement} */ (byId("lens"));
    this.context = /** @type {CanvasRenderingContext2D} */ (this.canvas.getContext("2d"));
    this.conditions = asked();
    this.sent = "";
    this.seq = 0;
    this.waiting = false;
    this.timer = 0;
    const scheme = location.protocol === "https:" ? "wss" : "ws";
    this.link = new Link(`${scheme}://${location.host}${trial.base}/live`, {
      opened: () => this.#opened(),
      closed: () => {},
      news: (news) => trial.saving.hear(news),
      frame: (header, data, at) => this.#frame(header, data, at),
    });
    byId("conditions").addEventListener("input", () => this.#changed());
    for (const button of all("[data-look]")) button.addEventListener("click", () => this.#toggle(button));
    this.#recall();
  }

  /** Whether it lies over the screen: while that is arranged, what is dragged is seen as it is. */
  get on() {
    return this.asked && !this.trial.arranging.on;
  }

  /** Whether any condition is asked for. */
  get asked() {
    const { sun, night, vision, severity, distance, grey } = this.conditions;
    return Boolean(sun || night || distance || grey || (vision !== "usual" && severity));
  }

  #opened() {
    [this.sent, this.waiting] = ["", false];
    this.trial.wake();
  }

  #recall() {
    const kept = sessionStorage.getItem(KEPT);
    for (const [id, value] of Object.entries(kept ? JSON.parse(kept) : {})) {
      if (id === "grey") /** @type {HTMLInputElement} */ (byId(id)).checked = value;
      else field(id).value = value;
    }
    this.#changed();
  }

  #changed() {
    this.conditions = asked();
    const { sun, night, severity, distance, grey } = this.conditions;
    byId("sun-is").textContent = sun ? `${sun} cd/m²` : "off";
    byId("night-is").textContent = night ? `${night} cd/m²` : "off";
    byId("severity-is").textContent = `${Math.round(severity * 100)} %`;
    byId("how-weak").hidden = this.conditions.vision === "usual";
    byId("distance-is").textContent = distance ? `${distance} m` : "near";
    const { vision } = this.conditions;
    const chosen = { sun: String(sun), night: String(night), distance: String(distance), severity: String(severity) };
    const all = /** @type {HTMLAnchorElement} */ (byId("all-conditions"));
    all.search = String(new URLSearchParams(chosen));
    this.query = new URLSearchParams({ ...chosen, vision, grey: String(grey) });
    this.labels();
    const kept = Object.fromEntries(FIELDS.map((id) => [id, id === "grey" ? grey : field(id).value]));
    sessionStorage.setItem(KEPT, JSON.stringify(kept));
    this.#press();
    this.canvas.hidden = !this.on || !this.canvas.dataset.seen;
    this.trial.wake();
  }

  /** How well labels are read, once nothing is changed for a moment. */
  labels() {
    clearTimeout(this.timer);
    this.timer = window.setTimeout(async () => {
      const answer = await ask(`${this.trial.base}/labels?${this.query}`);
      if (answer.ok) morphInner(byId("labels"), await answer.text());
    }, SOON_MS);
  }

  #press() {
    const { sun, night, vision } = this.conditions;
    /** @type {Object<string, boolean>} */
    const on = { plain: !this.asked, sun: Boolean(sun), night: Boolean(night), vision: vision !== "usual" };
    for (const button of all("[data-look]"))
      button.setAttribute("aria-pressed", String(on[button.dataset.look ?? ""] ?? false));
  }

  /** @param {HTMLElement} button */
  #toggle(button) {
    const look = button.dataset.look ?? "plain";
    if (look === "plain") {
      for (const id of ["sun", "night", "distance"]) field(id).value = "0";
      field("vision").value = "usual";
      /** @type {HTMLInputElement} */ (byId("grey")).checked = false;
    } else if (button.getAttribute("aria-pressed") === "true") field(look).value = look === "vision" ? "usual" : "0";
    else for (const [id, value] of USUAL[look]) field(id).value = value;
    this.#changed();
  }

  /** Ask for what is to be seen, when that is something else than what was asked for last; whether it waits. */
  look() {
    if (!this.on) {
      this.canvas.hidden = true;
      delete this.canvas.dataset.seen;
      this.sent = "";
      return false;
    }
    if (this.waiting || !this.link.open) return true;
    const wish = { density: this.trial.screen.density, conditions: this.conditions, pieces: this.trial.seen() };
    const text = JSON.stringify([wish, this.trial.version]);
    if (text === this.sent) return false;
    this.sent = text;
    this.waiting = true;
    this.seq += 1;
    this.link.send({ seq: this.seq, ...wish });
    return true;
  }

  /** @param {any} header @param {ArrayBuffer} data @param {number} at */
  #frame(header, data, at) {
    this.waiting = false;
    if (header.words) trouble(header.words);
    else this.#put(header.box, header.whole, new Uint8ClampedArray(data, at));
    this.trial.wake();
  }

  /** @param {[number, number, number, number]} box @param {[number, number]} whole
   * @param {Uint8ClampedArray<ArrayBuffer>} pixels */
  #put([left, top, width, height], [wide, high], pixels) {
    const { canvas } = this;
    if (canvas.width !== wide || canvas.height !== high) [canvas.width, canvas.height] = [wide, high];
    if (width && height) this.context.putImageData(new ImageData(pixels, width, height), left, top);
    if (!this.on) return;
    canvas.dataset.seen = String(Number(canvas.dataset.seen ?? 0) + 1);
    canvas.hidden = false;
  }
}
