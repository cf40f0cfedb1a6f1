/** When the page may be written anew: not while a value is held, nor between a press and its release. */

export class Holding {
  /** @param {() => void} free what is done once nothing holds any more */
  constructor(free) {
    this.free = free;
    this.holds = 0;
    this.pressing = false;
    const on = () => {
      this.pressing = true;
    };
    // What was pressed is done before: it would be lost with what it was on.
    const off = () =>
      setTimeout(() => {
        this.pressing = false;
        this.#told();
      }, 0);
    window.addEventListener("pointerdown", on, true);
    for (const name of ["pointerup", "pointercancel"]) window.addEventListener(name, off, true);
  }

  get held() {
    return this.holds > 0 || this.pressing;
  }

  /** @param {boolean} on a value is taken hold of, or let go */
  hold(on) {
    this.holds = Math.max(0, this.holds + (on ? 1 : -1));
    this.#told();
  }

  #told() {
    if (!this.held) this.free();
  }
}
