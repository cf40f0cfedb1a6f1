/**
 * What is brought in from outside: icons from the shipped set, SVG drawings, pictures.
 *
 * @typedef {import("../ui/types.js").Bench} Bench
 * @typedef {{name: string, paths: string[]}} Icon
 */
import { byId, closest, saidBy } from "../ui/dom.js";
import { ask, say } from "../ui/page.js";
import { svg } from "../ui/svg.js";

const SETTLE_MS = 120;

/** @param {Icon} icon @param {() => void} take */
function iconButton({ name, paths }, take) {
  const button = Object.assign(document.createElement("button"), { type: "button", title: name });
  button.setAttribute("aria-label", name);
  const drawing = svg("svg", { viewBox: "0 0 24 24", width: 26, height: 26 });
  for (const d of paths) drawing.append(svg("path", { d }));
  button.append(drawing);
  button.addEventListener("click", take);
  return button;
}

class Icons {
  /** @param {Bench} bench */
  constructor(bench) {
    this.bench = bench;
    this.dialog = /** @type {HTMLDialogElement} */ (byId("icons"));
    this.field = /** @type {HTMLInputElement} */ (byId("icon-words"));
    this.list = byId("icon-list");
    this.timer = 0;
    this.path = "";
    this.field.addEventListener("input", () => {
      clearTimeout(this.timer);
      this.timer = window.setTimeout(() => this.#search(), SETTLE_MS);
    });
    this.dialog.addEventListener("submit", (event) => {
      event.preventDefault();
      this.list.querySelector("button")?.click();
    });
    byId("sheet").addEventListener("click", (event) => {
      const button = closest(event, "[data-icon-path]");
      if (button) this.open(button.dataset.iconPath);
    });
  }

  /** @param {string} [path] where the icon that is chosen goes; a new part when there is none */
  open(path = "") {
    this.path = path;
    this.dialog.showModal();
    this.field.select();
    this.#search();
  }

  async #search() {
    const answer = await ask(`/icons?words=${encodeURIComponent(this.field.value)}`);
    if (!answer.ok) return;
    /** @type {{icons: Icon[], count: number}} */
    const { icons, count } = await answer.json();
    this.list.replaceChildren(...icons.map((icon) => iconButton(icon, () => this.#take(icon.name))));
    const words = icons.length ? `${icons.length} of ${count}` : "None has these words.";
    byId("icon-count").textContent = words;
  }

  /** @param {string} name */
  #take(name) {
    this.dialog.close();
    if (this.path) {
      this.bench.set(this.path, name);
      return;
    }
    const [x, y] = this.bench.state.scene.canvas.map((length) => length / 2);
    const at = { x0: x, y0: y, x1: x, y1: y };
    this.bench.post({ kind: "draw", shape: "icon", values: { icon: name }, ...at });
  }
}

/** @param {Bench} bench */
export function startIcons(bench) {
  const icons = new Icons(bench);
  bench.openIcons = (path) => icons.open(path);
}

/** What was brought in, shown; why it was not, in words. @param {Bench} bench @param {Promise<any>} asked a parcel */
async function shown(bench, asked) {
  bench.complain("");
  try {
    const state = await bench.read(await asked);
    bench.show(state);
    say(state.said ?? "");
    bench.stage.request();
  } catch (error) {
    bench.complain(saidBy(error));
  }
}

/** @param {File} file */
const isDrawing = (file) => /svg/.test(file.type) || /\.svg$/i.test(file.name);

/** Files dropped on the stage, chosen, or SVG text pasted. @param {Bench} bench */
export function startDropping(bench) {
  const chooser = /** @type {HTMLInputElement} */ (byId("picture-file"));
  /** @type {import("../ui/api.js").PictureUse} */
  let use = "part";
  let fill = "";
  bench.bring = (text, name) => shown(bench, bench.api.bring(text, name, bench.selection));
  bench.choosePicture = (wanted = "part", path = "") => {
    use = wanted;
    fill = path;
    chooser.value = "";
    chooser.click();
  };
  chooser.addEventListener("change", () => {
    const [file] = chooser.files ?? [];
    if (file) shown(bench, bench.api.picture(file, use, fill, bench.selection));
  });
  startDrops(bench);
}

/** @param {Bench} bench */
function startDrops(bench) {
  const { element } = bench.stage;
  element.addEventListener("dragover", (event) => {
    event.preventDefault();
    element.classList.add("over");
  });
  element.addEventListener("dragleave", () => element.classList.remove("over"));
  element.addEventListener("drop", async (event) => {
    event.preventDefault();
    element.classList.remove("over");
    const [file] = event.dataTransfer?.files ?? [];
    if (!file) return;
    if (isDrawing(file)) bench.bring(await file.text(), file.name.replace(/\.svg$/i, ""));
    else shown(bench, bench.api.picture(file, "part", ""));
  });
}
