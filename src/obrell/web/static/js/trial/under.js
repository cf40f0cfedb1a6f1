/**
 * What is under the pointer: how it came to look as it does, and how long that took.
 *
 * @typedef {import("../trial.js").Trial} Trial
 */
import { byId, closest } from "../ui/dom.js";
import { morphInner } from "../ui/morph.js";
import { ask } from "../ui/page.js";

const SOON_MS = 60;

export class Under {
  /** @param {Trial} trial */
  constructor(trial) {
    this.trial = trial;
    this.place = byId("under");
    this.asked = "";
    this.timer = 0;
    this.place.addEventListener("click", (event) => {
      const state = closest(event, "[data-state]")?.dataset.state;
      if (state) this.#choose(state);
    });
  }

  /** Another state of a piece is seen. @param {string} id @param {string} came the state it was in */
  look(id, came) {
    const state = this.trial.placed.get(id)?.shown.state ?? "rest";
    if (state === came && this.asked.startsWith(`placement=${id}&`)) return;
    this.asked = `placement=${id}&${new URLSearchParams({ state, came: came === state ? "" : came })}`;
    clearTimeout(this.timer);
    this.timer = window.setTimeout(() => this.#ask(), SOON_MS);
  }

  /** Another state of the same piece is looked at. @param {string} state */
  #choose(state) {
    clearTimeout(this.timer);
    const query = new URLSearchParams(this.asked);
    query.set("came", "");
    query.set("state", state);
    this.asked = String(query);
    this.#ask();
  }

  /** What is shown may have changed. */
  again() {
    const piece = new URLSearchParams(this.asked).get("placement");
    if (piece && this.trial.parts[piece]) this.#ask();
  }

  async #ask() {
    const { asked } = this;
    const answer = await ask(`${this.trial.base}/under?${asked}`);
    if (!answer.ok || asked !== this.asked || this.trial.saving.holds) return;
    morphInner(this.place, await answer.text());
  }
}
