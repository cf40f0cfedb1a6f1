/** What is brought in from outside: icons from the shipped set, SVG drawings, pictures. */
import { ask, say } from "../ui/page.js";
import { svg } from "../ui/svg.js";

const SETTLE_MS = 120;

/** @param {object} bench */
export function startIcons(bench) {
  const dialog = document.getElementById("icons");
  const field = document.getElementById("icon-words");
  const list = document.getElementById("icon-list");
  let timer = 0;
  let path = "";

  async function search() {
    const answer = await ask(`/icons?words=${encodeURIComponent(field.value)}`);
    if (!answer.ok) return;
    const { icons, count } = await answer.json();
    list.replaceChildren(
      ...icons.map(({ name, paths }) => {
        const button = document.createElement("button");
        button.type = "button";
        button.title = name;
        button.setAttribute("aria-label", name);
        const drawing = svg("svg", { viewBox: "0 0 24 24", width: 26, height: 26 });
        for (const d of paths) drawing.append(svg("path", { d }));
        button.append(drawing);
        button.addEventListener("click", () => take(name));
        return button;
      }),
    );
    document.getElementById("icon-count").textContent = icons.length
      ? `${icons.length} of ${count}`
      : "None has these words.";
  }

  function take(name) {
    dialog.close();
    if (path) bench.set(path, name);
    else {
      const [width, height] = bench.state.scene.canvas;
      bench.post({
        kind: "draw",
        shape: "icon",
        values: { icon: name },
        x0: width / 2,
        y0: height / 2,
        x1: width / 2,
        y1: height / 2,
      });
    }
  }

  function open(target = "") {
    path = target;
    dialog.showModal();
    field.select();
    search();
  }

  field.addEventListener("input", () => {
    clearTimeout(timer);
    timer = setTimeout(search, SETTLE_MS);
  });
  dialog.addEventListener("submit", (event) => {
    event.preventDefault();
    list.querySelector("button")?.click();
  });
  document.getElementById("sheet").addEventListener("click", (event) => {
    const button = event.target.closest("[data-icon-path]");
    if (button) open(button.dataset.iconPath);
  });
  bench.openIcons = open;
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
