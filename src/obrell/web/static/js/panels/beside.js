/**
 * A state beside rest on the stage: in turns, or where they differ; and all states at once in a panel.
 *
 * @typedef {import("../ui/types.js").Bench} Bench
 */
import { byId, closest } from "../ui/dom.js";
import { typing } from "../ui/page.js";

const TURN_MS = 500;

class Beside {
  /** @param {Bench} bench */
  constructor(bench) {
    this.bench = bench;
    /** "flicker", "difference", or nothing. */
    this.how = "";
    /** @type {ReturnType<typeof setInterval>|undefined} */
    this.timer = undefined;
    byId("sheet").addEventListener("click", (event) => {
      const { beside = "" } = closest(event, "[data-beside]")?.dataset ?? {};
      if (beside === "halves") byId("halves").click();
      else if (beside) this.toggle(beside);
      if (beside) this.#press();
    });
    document.addEventListener("keydown", (event) => {
      const elsewhere = typing(event) || closest(event, "dialog") || event.ctrlKey || event.metaKey;
      if (event.key === "c" && !elsewhere && bench.state.state !== "rest") this.toggle("flicker");
    });
    bench.element.addEventListener("shown", () => this.#shown());
  }

  /** @param {string} how */
  toggle(how) {
    this.#set(this.how === how ? "" : how);
  }

  /** @param {string} how */
  #set(how) {
    const { stage } = this.bench;
    clearInterval(this.timer);
    this.how = how;
    stage.against = how === "difference";
    stage.tried = "";
    if (how === "flicker") this.timer = setInterval(() => this.#turn(), TURN_MS);
    this.#press();
    stage.request();
  }

  #turn() {
    const { stage } = this.bench;
    stage.tried = stage.tried ? "" : "rest";
    byId("state-sign").textContent = stage.tried ? "Rest" : this.bench.state.sign;
    stage.request();
  }

  /** Nothing to see in turns once rest is drawn. */
  #shown() {
    if (this.how && this.bench.state.state === "rest") this.#set("");
    else this.#press();
  }

  #press() {
    for (const how of ["flicker", "difference"])
      document.getElementById(`beside-${how}`)?.setAttribute("aria-pressed", String(this.how === how));
    const halves = byId("halves").getAttribute("aria-pressed") ?? "false";
    document.getElementById("beside-halves")?.setAttribute("aria-pressed", halves);
  }
}

/** @param {Bench} bench */
export function startBeside(bench) {
  new Beside(bench);
  byId("aside").addEventListener("click", (event) => {
    const again = closest(event, "[data-again]");
    const state = closest(event, "[data-draws]");
    if (again) bench.openAside("beside", { differences: again.dataset.again || "0" });
    else if (state) bench.act(state);
  });
}
