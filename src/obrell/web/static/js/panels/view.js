/** How the art is looked at: enlarged, sharp or in true pixels, moved about. */
import { all, byId, closest } from "../ui/dom.js";
import { choosing, typing } from "../ui/page.js";

/** From this enlargement on, what is selected is looked for rather than the middle of the canvas. */
const NEAR = 4;
/** Keys that begin no number. */
const LETTER = /^[a-z]$/i;
/** @param {KeyboardEvent} event */
const withKeys = (event) => event.ctrlKey || event.metaKey || event.altKey;

class View {
  /** @param {import("../ui/types.js").Bench} bench */
  constructor(bench) {
    this.bench = bench;
    this.stage = bench.stage;
    /** How large the canvas was when it was last shown. */
    this.canvas = bench.state.scene.canvas.slice(0, 2);
    this.density = /** @type {HTMLSelectElement} */ (byId("density"));
    /** @type {Object<string, () => void>} */
    this.keys = {
      1: () => this.zoomTo(1),
      2: () => this.zoomTo(2),
      8: () => this.zoomTo(8),
      f: () => this.zoomTo(undefined),
      x: () => this.look(!this.stage.exact),
      "+": () => this.#enlarge(Math.SQRT2),
      "=": () => this.#enlarge(Math.SQRT2),
      "-": () => this.#enlarge(Math.SQRT1_2),
      "−": () => this.#enlarge(Math.SQRT1_2),
    };
    this.#listen();
    this.#show();
  }

  #listen() {
    for (const button of all("[data-zoom]")) {
      const { zoom } = button.dataset;
      button.addEventListener("click", () => this.zoomTo(zoom === "fit" ? undefined : Number(zoom)));
    }
    byId("true").addEventListener("click", () => this.look(true));
    byId("sharp").addEventListener("click", () => this.look(false));
    this.density.addEventListener("change", () => this.look(true));
    this.stage.addEventListener("look", () => this.#show());
    this.bench.element.addEventListener("shown", () => this.#grown());
    // Where it is touched is seen while that is unfolded.
    byId("sheet").addEventListener("toggle", (event) => closest(event, "#touch") && this.bench.marks.draw(), true);
    document.addEventListener("keydown", (event) => this.#key(event));
    document.addEventListener("keyup", (event) => event.key === " " && this.#pan(false));
  }

  /** The whole canvas in the middle; near, what is selected. @param {number} [zoom] as large as fits when none */
  zoomTo(zoom) {
    const [width, height] = this.bench.state.scene.canvas;
    const middle = (zoom ?? 0) >= NEAR ? this.bench.marks.middle() : null;
    if (middle) this.stage.bring(middle[0], middle[1], zoom);
    else this.stage.centre(width, height, zoom);
  }

  /** A canvas of another size is shown whole. */
  #grown() {
    const [width, height] = this.bench.state.scene.canvas;
    const { canvas, stage } = this;
    this.canvas = [width, height];
    if (width === canvas[0] && height === canvas[1]) return;
    const fitted = stage.zoom === stage.room.fit(canvas[0], canvas[1]);
    if (fitted || !stage.holds(width, height)) this.zoomTo(undefined);
  }

  /** @param {boolean} exact in true pixels */
  look(exact) {
    this.stage.exact = exact ? Number(this.density.value) : 0;
    byId("true").setAttribute("aria-pressed", String(exact));
    byId("sharp").setAttribute("aria-pressed", String(!exact));
    this.bench.marks.draw();
    this.stage.request();
  }

  /** @param {number} factor */
  #enlarge(factor) {
    const box = this.stage.element.getBoundingClientRect();
    this.stage.zoomAbout(this.stage.zoom * factor, box.width / 2, box.height / 2);
  }

  #show() {
    byId("zoom-now").textContent = `${Math.round(this.stage.zoom * 100) / 100}:1`;
    for (const button of all("[data-zoom]")) {
      button.classList.toggle("on", Number(button.dataset.zoom) === this.stage.zoom);
    }
  }

  /** @param {KeyboardEvent} event */
  #key(event) {
    if (typing(event) || choosing(event) || withKeys(event) || this.bench.chooser.open || closest(event, "dialog"))
      return;
    if (event.key === " " && this.stage.element.matches(":hover, :focus")) {
      // Space pans wherever the focus is, and presses no button then.
      event.preventDefault();
      this.#pan(true);
    } else if (!closest(event, ".num") || LETTER.test(event.key)) this.keys[event.key.toLowerCase()]?.();
  }

  /** @param {boolean} on */
  #pan(on) {
    this.bench.marks.panning = on;
    this.stage.element.classList.toggle("panning", on);
  }
}

/** @param {import("../ui/types.js").Bench} bench */
export function startView(bench) {
  new View(bench);
}
