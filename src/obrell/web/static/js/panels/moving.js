/**
 * Movement: how a state becomes the one that is drawn, with a playhead under the stage.
 *
 * @typedef {import("../ui/types.js").Bench} Bench
 */
import { all, byId, closest } from "../ui/dom.js";

class Moving {
  /** @param {Bench} bench */
  constructor(bench) {
    this.bench = bench;
    this.speed = 1;
    /** The frame of the animation that is asked for; 0 while it stands. */
    this.ticking = 0;
    const sheet = byId("sheet");
    // Its folding does not bubble.
    sheet.addEventListener("toggle", (event) => this.#fold(event), true);
    sheet.addEventListener("change", (event) => {
      const from = closest(event, "#came", HTMLSelectElement);
      if (from) this.#look(from.value);
    });
    this.#listenToPlaying();
    bench.element.addEventListener("shown", () => this.#shown());
  }

  #listenToPlaying() {
    const strip = byId("moving");
    strip.addEventListener("input", (event) => {
      const head = closest(event, "#playhead", HTMLInputElement);
      if (head) this.#put(Number(head.value));
    });
    // Its arrows are the slider's own, and move nothing on the stage.
    strip.addEventListener("keydown", (event) => {
      if (closest(event, "#playhead") && event.key !== "Escape" && !event.ctrlKey) event.stopPropagation();
    });
    strip.addEventListener("click", (event) => this.#press(event));
  }

  /** @param {Event} event */
  #press(event) {
    const moment = closest(event, "[data-moment]");
    const speed = closest(event, "[data-speed]");
    if (speed) this.speed = Number(speed.dataset.speed);
    if (moment) this.#put(Number(moment.dataset.moment));
    else if (speed || closest(event, "#play")) this.play();
    this.#show();
  }

  /** @param {Event} event */
  #fold(event) {
    const fold = closest(event, "#movement", HTMLDetailsElement);
    if (fold && fold.open !== Boolean(this.bench.stage.came)) this.#look(fold.open ? "rest" : "");
  }

  /** Look at the movement from a state; from none ends that. @param {string} came */
  #look(came) {
    const { stage } = this.bench;
    this.#stop();
    stage.came = came;
    stage.time = Infinity;
    stage.request();
    this.bench.refresh();
  }

  /** From its beginning to its end, and what is there then. */
  play() {
    this.#stop();
    const begun = performance.now();
    const tick = () => {
      this.#show((performance.now() - begun) * this.speed);
      this.ticking = this.#under() ? requestAnimationFrame(tick) : 0;
    };
    tick();
  }

  #stop() {
    cancelAnimationFrame(this.ticking);
    this.ticking = 0;
  }

  /** @param {number} time */
  #put(time) {
    this.#stop();
    this.#show(time);
  }

  /** Whether the movement has not ended. */
  #under() {
    const { stage, state } = this.bench;
    return stage.time < state.whole;
  }

  /** The art at a time, and all that says so. @param {number} [time] ms */
  #show(time = this.bench.stage.time) {
    const { stage, state } = this.bench;
    if (time !== stage.time) {
      stage.time = time < state.whole ? time : Infinity;
      stage.request();
    }
    const shown = Math.min(time, state.whole);
    const head = document.getElementById("playhead");
    if (!(head instanceof HTMLInputElement)) return;
    head.value = String(shown);
    const said = head.nextElementSibling;
    if (said) said.textContent = `${Math.round(shown)} ms`;
    for (const button of all("[data-speed]", byId("moving")))
      button.setAttribute("aria-pressed", String(Number(button.dataset.speed) === this.speed));
  }

  #shown() {
    const { stage, state } = this.bench;
    // What was looked at from may be gone.
    stage.came = state.came;
    byId("moving").hidden = !state.came;
    byId("strip").hidden = Boolean(state.came);
    if (!state.came) this.#stop();
    this.#show();
  }
}

/** @param {Bench} bench */
export function startMoving(bench) {
  new Moving(bench);
}
