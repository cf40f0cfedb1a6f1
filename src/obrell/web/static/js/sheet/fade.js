/** The opacity that goes with a colour, in the colour chooser. */
import { byId } from "../ui/dom.js";

/** @param {string} path of a colour @returns {HTMLElement|null} the value of the opacity that goes with it */
function opacityOf(path) {
  const beside = path.replace(/(fill\/)?colour$/, "opacity");
  return document.querySelector(`#sheet .num[data-path="${CSS.escape(beside)}"]`);
}

export class Fade {
  /** @param {() => void} moved the slider was */
  constructor(moved) {
    this.slider = /** @type {HTMLInputElement} */ (byId("opacity"));
    /** @type {HTMLElement|null} */
    this.slot = null;
    this.before = 1;
    this.slider.addEventListener("input", () => {
      this.#say();
      moved();
    });
  }

  /** The opacity that goes with the colour, and what it was; its path is empty when there is none. */
  get state() {
    return { path: this.slot?.dataset.path ?? "", before: this.before, now: Number(this.slider.value) };
  }

  /** @param {string} path of a colour */
  begin(path) {
    this.slot = opacityOf(path);
    byId("opacity-row").hidden = !this.slot;
    this.slider.value = this.slot?.dataset.value ?? "1";
    // What the slider says of it: a finer value is kept as it is until the slider is moved.
    this.before = Number(this.slider.value);
    this.#say();
  }

  /**
   * Take over the opacity that came with a colour, if any.
   *
   * @param {number|null} opacity @param {HTMLElement} fault @returns {boolean} whether it is another one
   */
  take(opacity, fault) {
    if (opacity === null) return false;
    if (!this.slot && opacity < 1)
      fault.textContent = "This colour has no opacity of its own; the last digits were left out.";
    if (!this.slot || opacity === Number(this.slider.value)) return false;
    this.slider.value = String(opacity);
    this.#say();
    return true;
  }

  /** @returns {{path: string, value: unknown}[]} what is set when it was moved */
  changes() {
    const { path, before, now } = this.state;
    return path && now !== before ? [{ path, value: now }] : [];
  }

  #say() {
    byId("opacity-now").textContent = `${Math.round(Number(this.slider.value) * 100)} %`;
  }
}
