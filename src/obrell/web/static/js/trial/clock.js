/** The time of a trial: as fast as it really goes, slower, or one frame at a time. */

const FRAME_MS = 1000 / 60;

export class Clock {
  constructor() {
    this.rate = 1;
    this.paused = false;
    this.passed = 0;
    this.since = performance.now();
  }

  /** Milliseconds since the trial began. */
  get now() {
    return this.passed + (this.paused ? 0 : (performance.now() - this.since) * this.rate);
  }

  #settle() {
    this.passed = this.now;
    this.since = performance.now();
  }

  /** @param {number} rate 1 as it really goes, less when slower */
  run(rate) {
    this.#settle();
    this.rate = rate;
    this.paused = false;
  }

  /** Stand still, and go on by one frame. */
  step() {
    this.#settle();
    this.paused = true;
    this.passed += FRAME_MS;
  }
}
