/**
 * The swatch that a colour follows, changed for the whole kit where a control is drawn: seen on the art before it is.
 *
 * @typedef {import("./following.js").Swatch} Swatch
 */
import { byId } from "../ui/dom.js";
import { ask, say, wordsOf } from "../ui/page.js";
import { hexOf } from "./colour_field.js";

/** @type {Swatch} */
const NONE = { id: "", name: "", colour: "", ladder: [] };

export class SwatchItself {
  /**
   * @param {import("../ui/types.js").Bench} bench
   * @param {(swatches: Swatch[]) => Promise<unknown>} changed @param {(words: string) => void} fault
   */
  constructor(bench, changed, fault) {
    this.bench = bench;
    this.changed = changed;
    this.fault = fault;
    this.form = /** @type {HTMLFormElement} */ (byId("swatch-itself"));
    this.field = /** @type {HTMLInputElement} */ (byId("swatch-colour"));
    /** @type {Swatch|null} */
    this.swatch = null;
    /** What was changed to last, as it was typed. */
    this.sent = "";
    this.field.addEventListener("input", () => this.#try());
    this.form.addEventListener("submit", (event) => {
      event.preventDefault();
      this.change();
    });
  }

  /** Whether something else stands in the field than the swatch's colour. */
  get typed() {
    return this.swatch !== null && this.field.value.trim() !== this.swatch.colour;
  }

  /** The swatch that is followed now; what is typed for it since stays. @param {Swatch|null} swatch */
  stand(swatch) {
    this.form.hidden = !swatch;
    const [before, now] = [this.swatch ?? NONE, swatch ?? NONE];
    const same = before.id === now.id;
    if (same && before.colour === now.colour) return;
    const waits = same && this.#isNew(before);
    if (!waits) this.#untry();
    this.swatch = swatch;
    if (waits) return;
    byId("swatch-called").textContent = now.name;
    this.field.value = now.colour;
  }

  /** Whether what is typed was not sent yet. @param {Swatch} before */
  #isNew(before) {
    return ![before.colour, this.sent].includes(this.field.value);
  }

  /** @param {Object<string, string>} colours that are tried on the art */
  #show(colours) {
    this.bench.stage.colours = colours;
    this.bench.stage.request();
  }

  #try() {
    const text = this.field.value.trim();
    if (!this.swatch || !hexOf(text)) return;
    this.#show({ [this.swatch.id]: `#${text.replace("#", "").slice(0, 6).toLowerCase()}` });
  }

  #untry() {
    if (this.typed) this.#show({});
  }

  /** Change it to what is typed. @returns {Promise<string>} what was refused, in words */
  async change() {
    const { swatch, field, bench } = this;
    if (!swatch || !this.typed) return "";
    this.sent = field.value;
    const body = new FormData();
    body.set("colour", field.value);
    const way = new URLSearchParams({ colourway: bench.stage.colourway });
    // Sent to its end, also when the page is left meanwhile.
    const how = { method: "POST", body, keepalive: true };
    const answer = await ask(`/kits/${bench.kit}/swatches/${swatch.id}/colour-from-bench?${way}`, how);
    const text = await answer.text();
    const refused = answer.ok ? "" : wordsOf(text);
    this.fault(refused);
    if (refused) return refused;
    const { said, swatches } = JSON.parse(text);
    say(said);
    await this.changed(swatches);
    if (!this.typed) this.#show({});
    return "";
  }

  /** What is typed is changed as well. @returns {Promise<string>} what was refused, in words */
  async finish() {
    const refused = await this.change();
    if (refused) this.end();
    return refused;
  }

  /** As it was. */
  end() {
    this.#untry();
    if (this.swatch) this.field.value = this.swatch.colour;
  }
}
