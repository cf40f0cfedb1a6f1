/**
 * Simulated sources: tables of numbers over time, looked up while they run. The same time gives the same numbers.
 *
 * @typedef {import("../trial.js").Trial} Trial
 */
import { all, byId, closest } from "../ui/dom.js";
import { moved, numberAt, written } from "./machine.js";

const SPEEDS = [1, 4, 16];
const SHOWN_DIGITS = 2;
/** A little less than the time between two numbers of a source, 30 a second. */
const EVERY_MS = 1000 / 30 - 4;

export class Sources {
  /** @param {Trial} trial */
  constructor(trial) {
    this.trial = trial;
    this.running = false;
    this.speed = 1;
    /** How long they have run, ms, and when that was looked at last on the clock of the trial. */
    this.passed = 0;
    this.seen = 0;
    byId("sheet").addEventListener("click", (event) => {
      if (closest(event, "#run")) this.#toggle();
      if (closest(event, "#faster")) this.#faster();
    });
  }

  #toggle() {
    this.running = !this.running;
    this.seen = this.trial.clock.now;
    this.told();
    this.trial.wake();
  }

  #faster() {
    this.speed = SPEEDS[(SPEEDS.indexOf(this.speed) + 1) % SPEEDS.length];
    this.told();
  }

  /** The words of the buttons, which are written anew with the sheet. */
  told() {
    const run = document.getElementById("run");
    if (run) run.textContent = this.running ? "Pause" : this.passed ? "Go on" : "Start";
    const faster = document.getElementById("faster");
    if (faster) faster.textContent = `×${this.speed}`;
    this.#numbers();
  }

  #numbers() {
    for (const place of all("[data-number]")) {
      const source = this.trial.screen.sources.find((one) => one.id === place.dataset.number);
      place.textContent = source ? written(this.#shown(source)) : "";
    }
  }

  /** @param {import("./types.js").SourceData} source */
  #shown(source) {
    const factor = 10 ** SHOWN_DIGITS;
    return Math.round(numberAt(source.series, this.passed / 1000) * factor) / factor;
  }

  /** Let time pass; whether they run. */
  tick() {
    if (!this.running) return false;
    const { now } = this.trial.clock;
    if (now - this.seen < EVERY_MS) return true;
    this.passed += (now - this.seen) * this.speed;
    this.seen = now;
    for (const source of this.trial.screen.sources)
      for (const move of moved(source, this.passed / 1000)) this.#move(move);
    this.#numbers();
    return true;
  }

  /** @param {ReturnType<typeof moved>[number]} move */
  #move({ placement, reading, amount }) {
    if (reading && reading !== this.trial.parts[placement]?.reading) this.trial.readAt(placement, reading, amount);
    else this.trial.happen(placement, reading ? "set" : "light", { amount });
  }
}
