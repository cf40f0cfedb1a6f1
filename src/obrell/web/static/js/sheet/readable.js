/**
 * While a colour is chosen: how well what lies on it can be read, on the Bench also which letter is the weakest, and
 * where in the field it could be read.
 *
 * @typedef {import("../ui/types.js").Bench} Bench
 * @typedef {{words?: string, enough?: boolean, letter?: [number, number, number, number],
 *   boundaries?: [number, number][][]}} Reading
 */
import { byId } from "../ui/dom.js";
import { ask } from "../ui/page.js";

export class Readable {
  /** @param {() => boolean} wanted whether a colour is still chosen @param {Bench} [bench] */
  constructor(wanted, bench) {
    this.wanted = wanted;
    this.bench = bench;
    this.busy = false;
    /** @type {{address: string, body: object}|null} what is asked for next; the newest wins */
    this.next = null;
  }

  /** @param {string} address @param {object} body what the answer depends on */
  show(address, body) {
    this.next = { address, body };
    if (!this.busy) this.#ask();
  }

  /** What lies on the part whose colour it is. @param {import("../ui/types.js").Edit} edit
   * @param {number} hue of the field, degrees */
  onBench(edit, hue) {
    const { bench } = this;
    const [part] = bench?.state.selected ?? [];
    if (bench && part) this.show(`${bench.api.base}/readable`, { edit, hue, part, seen: bench.stage.seen });
  }

  async #ask() {
    const { next } = this;
    if (!next) return;
    this.next = null;
    this.busy = true;
    const answer = await ask(next.address, {
      method: "POST",
      body: JSON.stringify(next.body),
      headers: { "content-type": "application/json" },
    });
    const found = answer.ok ? await answer.json() : {};
    this.busy = false;
    if (this.wanted()) this.#draw(found);
    if (this.next) this.#ask();
  }

  /** @param {Reading} found */
  #draw({ words = "", enough = true, letter, boundaries = [] }) {
    const place = byId("readable");
    place.textContent = words;
    place.classList.toggle("weak", !enough);
    const lines = boundaries.map((curve) => `M${curve.map(([s, v]) => `${s} ${100 - v}`).join("L")}`);
    byId("readable-field").setAttribute("d", lines.join(""));
    this.bench?.marks.weaken(letter);
  }

  end() {
    this.next = null;
    this.#draw({});
  }
}
