/** What is brought in from outside: icons from the shipped set, SVG drawings, pictures. */
import { ask, say } from "../ui/page.js";
import { svg } from "../ui/svg.js";

const SETTLE_MS = 120;

/** @param {{name: string, paths: string[]}} icon @param {() => void} take */
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
  constructor(bench) {
    this.bench = bench;
    this.dialog = document.getElementById("icons");
    this.field = document.getElementById("icon-words");
    this.list = document.getElementById("icon-list");
    this.timer = 0;
    this.path = "";
    this.field.addEventListener("input", () => {
      clearTimeout(this.timer);
      this.timer = setTimeout(() => this.#search(), SETTLE_MS);
    });
    this.dialog.addEventListener("submit", (event) => {
      event.preventDefault();
      this.list.querySelector("button")?.click();
    });
    document.getElementById("sheet").addEventListener("click", (event) => {
      const button = event.target.closest("[data-icon-path]");
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
    const { icons, count } = await answer.json();
    this.list.replaceChildren(...icons.map((icon) => iconButton(icon, () => this.#take(icon.name))));
    const words = icons.length ? `${icons.length} of ${count}` : "None has these words.";
    document.getElementById("icon-count").textContent = words;
  }

  #take(name) {
    this.dialog.close();
    if (this.path) {
      this.bench.set(this.path, name);
      return;
    }
    const [x, y] = this.bench.state.scene.canvas.map((length) => length / 2);
    const at = { x0: x, y0: y, x1: x, y1: y };
    this.bench.post({ kind: "draw", shape: "icon", values: { icon: name }, look: this.bench.used.of("icon"), ...at });
  }
}

/** @param {object} bench */
export function startIcons(bench) {
  const icons = new Icons(bench);
  bench.openIcons = (path) => icons.open(path);
}

/** Files dropped on the stage, chosen, or SVG text pasted. */
export function startDropping(bench) {
  const { element } = bench.stage;
  const chooser = document.getElementById("picture-file");
  let use = "part";
  let fill = "";

  async function shown(asked) {
    bench.complain("");
    try {
      const state = await bench.read(await asked);
      bench.show(state);
      say(state.said);
      bench.stage.request();
    } catch (error) {
      bench.complain(error.message);
    }
  }

  const isDrawing = (file) => /svg/.test(file.type) || /\.svg$/i.test(file.name);
  bench.bring = (text, name) => shown(bench.api.bring(text, name, bench.selection));
  bench.choosePicture = (wanted = "part", path = "") => {
    [use, fill] = [wanted, path];
    chooser.value = "";
    chooser.click();
  };
  chooser.addEventListener("change", () => {
    if (chooser.files[0]) shown(bench.api.picture(chooser.files[0], use, fill, bench.selection));
  });
  element.addEventListener("dragover", (event) => {
    event.preventDefault();
    element.classList.add("over");
  });
  element.addEventListener("dragleave", () => element.classList.remove("over"));
  element.addEventListener("drop", async (event) => {
    event.preventDefault();
    element.classList.remove("over");
    const [file] = event.dataTransfer.files;
    if (!file) return;
    if (isDrawing(file)) bench.bring(await file.text(), file.name.replace(/\.svg$/i, ""));
    else shown(bench.api.picture(file, "part", ""));
  });
}
