/** The chooser of fonts: every font shows the words it is chosen for. */
import { svg } from "../ui/svg.js";
import { ask, wordsOf } from "../ui/page.js";

/** @param {object} bench */
export function startFonts(bench) {
  const dialog = document.getElementById("fonts");
  const list = document.getElementById("font-list");
  const file = document.getElementById("font-file");
  const fault = document.getElementById("font-fault");
  let path = "";

  async function show() {
    const base = path.split("/shape/")[0];
    const words = document.getElementById(`v-${base.replaceAll("/", "-")}-shape-words`)?.value || "Label";
    const weight =
      document.getElementById(`v-${path.replaceAll("/", "-").replace(/font$/, "weight")}`)?.dataset.value || 600;
    const answer = await ask(`/kits/${bench.kit}/fonts?${new URLSearchParams({ words, weight })}`);
    if (!answer.ok) {
      fault.textContent = wordsOf(await answer.text());
      return;
    }
    const { fonts } = await answer.json();
    list.replaceChildren(...fonts.map(row));
  }

  function row(font) {
    const item = document.createElement("div");
    item.className = "font-row";
    const take = document.createElement("button");
    take.type = "button";
    take.className = "font-take";
    take.setAttribute("aria-label", font.label);
    const [left, top, right, bottom] = font.box;
    const size = { width: Math.max(1, right - left), height: Math.max(1, bottom - top) };
    const drawing = svg("svg", { viewBox: `${left} ${top} ${size.width} ${size.height}`, ...size });
    drawing.append(svg("path", { d: font.path }));
    const name = document.createElement("small");
    name.textContent = font.missing ? `${font.label}, without some of these letters` : font.label;
    take.append(drawing, name);
    take.addEventListener("click", () => {
      dialog.close();
      bench.set(path, font.name);
    });
    const star = document.createElement("button");
    star.type = "button";
    star.className = "word";
    star.textContent = font.favourite ? "favourite" : "make a favourite";
    star.setAttribute("aria-pressed", String(font.favourite));
    star.addEventListener("click", async () => {
      await ask(`/kits/${bench.kit}/fonts/${encodeURIComponent(font.name)}/favourite`, { method: "POST" });
      show();
    });
    item.append(take, star);
    return item;
  }

  file.addEventListener("change", async () => {
    fault.textContent = "";
    try {
      await bench.api.font(file.files[0]);
      await show();
    } catch (error) {
      fault.textContent = error.message;
    }
    file.value = "";
  });
  document.getElementById("sheet").addEventListener("click", (event) => {
    const button = event.target.closest("[data-font-path]");
    if (!button) return;
    path = button.dataset.fontPath;
    fault.textContent = "";
    dialog.showModal();
    show();
  });
}

/** Letters selected in the words of a text, to be given a look of their own. @param {object} bench */
export function startLetters(bench) {
  let marked = null;
  document.addEventListener("selectionchange", () => {
    const field = document.activeElement;
    if (field?.matches?.("#sheet textarea.words"))
      marked = { start: field.selectionStart, end: field.selectionEnd, id: field.id };
  });
  document.getElementById("sheet").addEventListener("pointerdown", (event) => {
    if (event.target.closest("[data-letters]")) event.preventDefault();
  });
  bench.styleLetters = () => {
    const [part] = bench.state.selected;
    const { start, end } = marked?.id === `v-parts-${part}-shape-words` ? marked : { start: 0, end: 0 };
    return bench.post({ kind: "style-letters", part, start, end });
  };
}
