/**
 * The ramp in the sheet: stops are dragged, nudged, added by a click, removed.
 *
 * @typedef {import("../ui/types.js").Bench} Bench
 * @typedef {import("../ui/types.js").Edit} Edit
 */
import { all, byId, closest } from "../ui/dom.js";
import { dragged } from "../ui/drags.js";

/** @type {Object<string, number>} */
const STEPS = { ArrowLeft: -1, ArrowRight: 1, ArrowDown: -1, ArrowUp: 1 };
const REMOVING = ["Delete", "Backspace"];
/** What puts a stop on the ramp, which is the chosen one from then on. */
const ADDING = ["add", "copy"];

/** @param {number} value */
const share = (value) => Math.round(Math.min(1, Math.max(0, value)) * 1000) / 1000;
/** @param {string} path @param {number} index @param {number} position @returns {Edit} */
const moved = (path, index, position) => ({
  kind: "set",
  changes: [{ path: `${path}/stops/${index}/position`, value: position }],
});
/** @param {HTMLElement} ramp @returns {number[]} where its stops are */
const placesOf = (ramp) => all(".stop", ramp).map((stop) => Number(stop.dataset.at));

/** How far along a rail was pressed. @param {HTMLElement} rail @param {PointerEvent} event */
function along(rail, event) {
  const box = rail.getBoundingClientRect();
  return share((event.clientX - box.left) / box.width);
}

class Ramp {
  /** @param {Bench} bench */
  constructor(bench) {
    this.bench = bench;
    this.sheet = byId("sheet");
    this.current = 0;
    /** The ramp of which a stop was chosen by hand, by its path: a swatch that is pressed is for that stop. */
    this.chosen = "";
    /** @type {Object<string, (path: string) => Edit>} */
    this.doings = {
      reverse: (path) => ({ kind: "reverse-stops", path }),
      copy: (path) => ({ kind: "copy-stop", path, index: this.current }),
      jitter: (path) => ({ kind: "jitter-stops", path, seed: Math.floor(Math.random() * 1e9) }),
      space: (path) => ({ kind: "space-stops", path }),
      seam: (path) => ({ kind: "close-seam", path }),
      turn: (path) => ({ kind: "turn-gradient", path, degrees: 90 }),
      add: (path) => ({ kind: "add-stop", path }),
    };
    this.sheet.addEventListener("pointerdown", (event) => this.#press(event));
    this.sheet.addEventListener("keydown", (event) => this.#key(event));
    this.sheet.addEventListener("dblclick", (event) => {
      const stop = closest(event, ".stop");
      if (stop) this.#colourOf(this.#rampOf(stop), Number(stop.dataset.index))?.click();
    });
    this.sheet.addEventListener("focusin", (event) => {
      const row = closest(event, ".stops li");
      if (row) this.#choose(this.#rampOf(row), Number(row.dataset.index));
    });
    this.sheet.addEventListener("click", (event) => this.#click(event));
    bench.element.addEventListener("shown", () => this.#show());
  }

  /** @param {Element} node @returns {HTMLElement} the ramp that it belongs to */
  #rampOf(node) {
    return /** @type {HTMLElement} */ (node.closest(".ramp"));
  }

  /** @param {HTMLElement} ramp @param {number} index */
  #colourOf(ramp, index) {
    return all(".stops .colour", ramp)[index];
  }

  /** @param {HTMLElement} ramp @param {number} index of the stop that is meant from now on */
  #choose(ramp, index) {
    this.current = index;
    this.chosen = ramp.dataset.path ?? "";
    this.#show();
  }

  #show() {
    const ramps = all(".ramp", this.sheet);
    if (!ramps.some((ramp) => ramp.dataset.path === this.chosen)) this.chosen = "";
    for (const ramp of ramps) {
      const chosen = ramp.dataset.path === this.chosen;
      const stops = all(".stop", ramp);
      this.current = Math.min(this.current, stops.length - 1);
      stops.forEach((stop, index) => {
        stop.style.left = `${Number(stop.dataset.at) * 100}%`;
        stop.classList.toggle("cur", index === this.current);
      });
      all(".stops li", ramp).forEach((row, index) => {
        row.classList.toggle("cur", index === this.current);
        row.classList.toggle("chosen", chosen && index === this.current);
      });
    }
  }

  /** @param {PointerEvent} event */
  #press(event) {
    const stop = closest(event, ".stop");
    const rail = closest(event, ".rail");
    if (!rail || event.button !== 0) return;
    event.preventDefault();
    const ramp = this.#rampOf(rail);
    if (stop) this.#drag(ramp, rail, stop, event);
    else this.#add(ramp, { kind: "add-stop", path: ramp.dataset.path, position: along(rail, event) });
  }

  /** Put a stop on the ramp, and have it chosen, with its colour when one was being chosen.
   * @param {HTMLElement} ramp @param {Edit} edit */
  async #add(ramp, edit) {
    const { bench } = this;
    const choosing = bench.chooser.open;
    await bench.chooser.keep();
    const before = placesOf(ramp);
    if (!(await bench.post(edit))) return;
    const after = placesOf(ramp);
    const fresh = after.findIndex((place, index) => place !== before[index]);
    this.#choose(ramp, fresh < 0 ? after.length - 1 : fresh);
    if (choosing) this.#colourOf(ramp, this.current)?.click();
  }

  /** @param {HTMLElement} ramp @param {HTMLElement} rail @param {HTMLElement} stop @param {PointerEvent} event */
  #drag(ramp, rail, stop, event) {
    const { bench } = this;
    const [path, index] = [ramp.dataset.path ?? "", Number(stop.dataset.index)];
    stop.focus({ preventScroll: true });
    this.#choose(ramp, index);
    let position = 0;
    /** @param {PointerEvent} at */
    const move = (at) => {
      position = along(rail, at);
      stop.style.left = `${position * 100}%`;
      bench.stage.preview(moved(path, index, position));
    };
    dragged(bench, event, move, (any) => {
      if (any) bench.post(moved(path, index, position));
      else if (bench.chooser.open) this.#colourOf(ramp, index)?.click();
    });
  }

  /** @param {KeyboardEvent} event */
  #key(event) {
    const stop = closest(event, ".stop");
    if (!stop) return;
    const path = this.#rampOf(stop).dataset.path ?? "";
    const index = Number(stop.dataset.index);
    const step = STEPS[event.key];
    if (step) {
      const by = (step / 100) * (event.shiftKey ? 10 : 1) * (event.altKey ? 0.1 : 1);
      this.bench.post(moved(path, index, share(Number(stop.dataset.at) + by)));
    } else if (REMOVING.includes(event.key)) {
      this.bench.post({ kind: "remove-stop", path, index });
    } else return;
    event.preventDefault();
    event.stopPropagation();
  }

  /** @param {MouseEvent} event */
  #click(event) {
    const ramp = closest(event, ".ramp");
    if (!ramp) return;
    const path = ramp.dataset.path ?? "";
    const doing = closest(event, "[data-ramp]")?.dataset.ramp;
    const drop = closest(event, "[data-drop-stop]");
    if (drop) this.bench.post({ kind: "remove-stop", path, index: Number(drop.dataset.dropStop) });
    if (!doing) return;
    const edit = this.doings[doing](path);
    if (ADDING.includes(doing)) this.#add(ramp, edit);
    else this.bench.post(edit);
  }
}

/** @param {Bench} bench */
export function startRamp(bench) {
  new Ramp(bench);
}
