/**
 * While a colour is chosen: how well the nearest label can be read with it, which of its letters is the weakest, and
 * where in the field it could be read.
 *
 * @typedef {import("../ui/types.js").Bench} Bench
 * @typedef {import("../ui/types.js").Edit} Edit
 * @typedef {{words?: string, enough?: boolean, letter?: [number, number, number, number],
 *   boundaries?: [number, number][][]}} Reading
 */
import { byId } from "../ui/dom.js";
import { ask } from "../ui/page.js";

export class Readable {
  /** @param {Bench} bench */
  constructor(bench) {
    this.bench = bench;
    this.busy = false;
    /** @type {{edit: Edit, hue: number}|null} what is asked for next; the newest wins */
    this.next = null;
  }

  /** @param {Edit} edit @param {number} hue of the field, degrees */
  show(edit, hue) {
    this.next = { edit, hue };
    if (!this.busy) this.#ask();
  }

  async #ask() {
    const { bench, next } = this;
    const [part] = bench.state.selected;
    if (!next || !part) return;
    this.next = null;
    this.busy = true;
    const { seen } = bench.stage;
    const answer = await ask(`${bench.api.base}/readable`, {
      method: "POST",
      body: JSON.stringify({ ...next, part, seen }),
      headers: { "content-type": "application/json" },
    });
    const found = answer.ok ? await answer.json() : {};
    this.busy = false;
    if (bench.chooser.open) this.#draw(found);
    if (this.next) this.#ask();
  }

  /** @param {Reading} found */
  #draw({ words = "", enough = true, letter, boundaries = [] }) {
    const place = byId("readable");
    place.textContent = words;
    place.classList.toggle("weak", !enough);
    const lines = boundaries.map((curve) => `M${curve.map(([s, v]) => `${s} ${100 - v}`).join("L")}`);
    byId("readable-field").setAttribute("d", lines.join(""));
    this.bench.marks.weakest = letter ?? null;
    this.bench.marks.draw();
  }

  end() {
    this.next = null;
    this.#draw({});
  }
}
