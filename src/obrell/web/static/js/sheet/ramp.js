/** The ramp in the sheet: stops are dragged, nudged, added by a click, removed. */
import { dragged } from "../ui/drags.js";

const STEPS = { ArrowLeft: -1, ArrowRight: 1, ArrowDown: -1, ArrowUp: 1 };
const REMOVING = ["Delete", "Backspace"];

const rampOf = (node) => node.closest(".ramp");
const share = (value) => Math.round(Math.min(1, Math.max(0, value)) * 1000) / 1000;
const moved = (ramp, index, position) => ({
  kind: "set",
  changes: [{ path: `${ramp.dataset.path}/stops/${index}/position`, value: position }],
});

/** How far along a rail was pressed. */
function along(rail, event) {
  const box = rail.getBoundingClientRect();
  return share((event.clientX - box.left) / box.width);
}

class Ramp {
  constructor(bench) {
    this.bench = bench;
    this.sheet = document.getElementById("sheet");
    this.current = 0;
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
      const stop = event.target.closest(".stop");
      if (stop) rampOf(stop).querySelectorAll(".stops .colour")[Number(stop.dataset.index)]?.click();
    });
    this.sheet.addEventListener("click", (event) => this.#click(event));
    bench.element.addEventListener("shown", () => this.#show());
  }

  #show() {
    for (const ramp of this.sheet.querySelectorAll(".ramp")) {
      const stops = [...ramp.querySelectorAll(".stop")];
      this.current = Math.min(this.current, stops.length - 1);
      stops.forEach((stop, index) => {
        stop.style.left = `${Number(stop.dataset.at) * 100}%`;
        stop.classList.toggle("cur", index === this.current);
      });
      const rows = ramp.querySelectorAll(".stops li");
      rows.forEach((row, index) => row.classList.toggle("cur", index === this.current));
    }
  }

  #press(event) {
    const stop = event.target.closest(".stop");
    const rail = event.target.closest(".rail");
    if (!rail || event.button !== 0) return;
    event.preventDefault();
    const ramp = rampOf(rail);
    if (stop) this.#drag(ramp, rail, stop, event);
    else this.bench.post({ kind: "add-stop", path: ramp.dataset.path, position: along(rail, event) });
  }

  #drag(ramp, rail, stop, event) {
    this.current = Number(stop.dataset.index);
    stop.focus({ preventScroll: true });
    this.#show();
    let position = null;
    const move = (at) => {
      position = along(rail, at);
      stop.style.left = `${position * 100}%`;
      this.bench.stage.preview(moved(ramp, stop.dataset.index, position));
    };
    dragged(this.bench, event, move, (any) => any && this.bench.post(moved(ramp, stop.dataset.index, position)));
  }

  #key(event) {
    const stop = event.target.closest(".stop");
    if (!stop) return;
    const ramp = rampOf(stop);
    const index = Number(stop.dataset.index);
    const step = STEPS[event.key];
    if (step) {
      const by = (step / 100) * (event.shiftKey ? 10 : 1) * (event.altKey ? 0.1 : 1);
      this.bench.post(moved(ramp, index, share(Number(stop.dataset.at) + by)));
    } else if (REMOVING.includes(event.key)) {
      this.bench.post({ kind: "remove-stop", path: ramp.dataset.path, index });
    } else return;
    event.preventDefault();
    event.stopPropagation();
  }

  #click(event) {
    const ramp = rampOf(event.target);
    if (!ramp) return;
    const { path } = ramp.dataset;
    const doing = event.target.closest("[data-ramp]")?.dataset.ramp;
    const drop = event.target.closest("[data-drop-stop]");
    if (drop) this.bench.post({ kind: "remove-stop", path, index: Number(drop.dataset.dropStop) });
    if (doing) this.bench.post(this.doings[doing](path));
  }
}

/** @param {object} bench */
export function startRamp(bench) {
  new Ramp(bench);
}
