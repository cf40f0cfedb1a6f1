/** Keys, buttons and the clipboard of the bench. */
import { COPIED } from "./actions.js";
import { dragged } from "../ui/drags.js";
import { say, typing, undoKey } from "../ui/page.js";
import { hiding, meant } from "./strip.js";

const CLIP = "obrell-parts";

/** @param {object} bench */
export function startKeys(bench) {
  const sheet = document.getElementById("sheet");

  sheet.addEventListener("click", (event) => {
    const word = event.target.closest("button");
    if (word?.dataset.fold) folds.toggle(word.dataset.fold);
    else if (word) bench.act(word);
    else if (!event.target.closest("input, select, textarea, summary, form, .num")) pick(event);
  });

  function pick(event) {
    const id = event.target.closest(".part > header")?.parentElement.dataset.part;
    if (!id) return;
    const { selected } = bench.state;
    if (!event.shiftKey) bench.select([id]);
    else bench.select(selected.includes(id) ? selected.filter((other) => other !== id) : [...selected, id]);
  }

  sheet.addEventListener("focusin", (event) => {
    const id = event.target.closest(".part")?.dataset.part;
    if (id && !bench.swapping && event.target.matches(":focus-visible") && !bench.state.selected.includes(id))
      bench.select([id]);
  });

  const folds = startFolds(bench, sheet);
  startReordering(bench, sheet);
  startHolds(bench);
  startSnaps(bench);
  for (const id of ["found", "proof"]) {
    document.getElementById(id).addEventListener("click", (event) => {
      const word = event.target.closest("[data-edit]");
      const found = event.target.closest("[data-found]");
      if (word) bench.act(word);
      else if (found) bench.select(found.dataset.found.split(","));
    });
  }
  document.querySelector(".stage").addEventListener("click", (event) => {
    const ground = event.target.closest(".ground");
    if (ground) bench.act(ground);
  });

  document.getElementById("undo").addEventListener("click", () => bench.step("undo"));
  document.getElementById("redo").addEventListener("click", () => bench.step("redo"));
  startView(bench);

  document.addEventListener("keydown", (event) => onKey(bench, event));

  document.addEventListener("copy", (event) => {
    const { clip } = bench.state;
    if (typing({ target: document.activeElement }) || !clip.length) return;
    event.preventDefault();
    localStorage.setItem(COPIED, JSON.stringify(clip));
    event.clipboardData.setData("text/plain", JSON.stringify({ kind: CLIP, parts: clip }));
    say(`Copied ${clip.length === 1 ? clip[0].name : `${clip.length} parts`}`);
  });

  document.addEventListener("paste", (event) => {
    if (typing(event)) return;
    let data = null;
    const text = event.clipboardData.getData("text/plain");
    if (/^\s*<(\?xml|svg|!--)/.test(text)) {
      event.preventDefault();
      bench.bring(text, "Drawing");
      return;
    }
    try {
      data = JSON.parse(text);
    } catch {
      /* some other text */
    }
    if (data?.kind !== CLIP) {
      bench.complain("There are no parts and no SVG to paste: copy some first.");
      return;
    }
    event.preventDefault();
    bench.post({ kind: "paste", parts: data.parts });
  });
}

/** Containers fold up in the sheet; which ones are is kept for this tab. */
function startFolds(bench, sheet) {
  const key = `folds ${location.pathname}`;
  const folded = new Set(JSON.parse(sessionStorage.getItem(key) || "[]"));
  const show = () => {
    let under = Infinity;
    for (const row of sheet.querySelectorAll(".part")) {
      const depth = Number(row.dataset.depth);
      if (depth <= under) under = Infinity;
      row.classList.toggle("folded", depth > under && !row.matches(".sel"));
      const off = folded.has(row.dataset.part);
      row.querySelector(".fold")?.setAttribute("aria-expanded", String(!off));
      if (off && under === Infinity) under = depth;
    }
  };
  bench.element.addEventListener("shown", show);
  return {
    toggle(id) {
      if (!folded.delete(id)) folded.add(id);
      sessionStorage.setItem(key, JSON.stringify([...folded]));
      show();
    },
  };
}

/** Parts are put into another order by dragging their small pictures. */
function startReordering(bench, sheet) {
  sheet.addEventListener("pointerdown", (event) => {
    const thumb = event.target.closest(".thumb");
    if (!thumb || event.button !== 0) return;
    event.preventDefault();
    const from = thumb.closest(".part");
    let over = null;
    const move = (at) => {
      over?.classList.remove("over");
      over = document.elementFromPoint(at.clientX, at.clientY)?.closest(".part") || null;
      if (over !== from) over?.classList.add("over");
    };
    dragged(bench, move, () => {
      over?.classList.remove("over");
      if (over && over !== from) bench.post({ kind: "reorder", part: from.dataset.part, to: over.dataset.part });
    });
  });
}

/** Held keys and buttons: without the effect, and without any marks. */
function startHolds(bench) {
  const bare = (on) => bench.stage.element.classList.toggle("bare", on);
  let holding = false;
  const plain = (on) => {
    if (on === holding) return;
    holding = on;
    document.getElementById("without").classList.toggle("on", on);
    if (!on) {
      bench.stage.preview(null);
      return;
    }
    bench.stage.preview(hiding(meant(bench)));
  };
  const apart = (on) => {
    if (on === bench.stage.apart) return;
    bench.stage.apart = on;
    document.getElementById("apart").classList.toggle("on", on);
    bench.stage.request();
  };
  const loose = (on) => {
    bench.marks.loose = on;
  };
  const holds = { w: plain, h: bare, o: apart, n: loose };
  document.addEventListener("keydown", (event) => {
    if (!typing(event) && !event.ctrlKey && !event.metaKey && !event.repeat) holds[event.key.toLowerCase()]?.(true);
  });
  document.addEventListener("keyup", (event) => holds[event.key.toLowerCase()]?.(false));
  window.addEventListener("blur", () => {
    for (const hold of Object.values(holds)) hold(false);
  });
  for (const [id, hold] of [
    ["without", plain],
    ["bare", bare],
    ["apart", apart],
  ]) {
    const button = document.getElementById(id);
    button.addEventListener("pointerdown", () => hold(true));
    for (const end of ["pointerup", "pointerleave", "pointercancel"]) button.addEventListener(end, () => hold(false));
  }
}

/** Which kinds of things to snap to; kept for this browser. */
function startSnaps(bench) {
  const box = document.getElementById("snaps");
  const off = new Set(JSON.parse(localStorage.getItem("snaps off") || "[]"));
  const show = () => {
    const fields = [...box.querySelectorAll("[data-snap]")];
    for (const field of fields) field.checked = !off.has(field.dataset.snap);
    bench.marks.kinds = fields.map((field) => field.dataset.snap).filter((kind) => !off.has(kind));
  };
  box.addEventListener("change", (event) => {
    const { snap } = event.target.dataset;
    if (!off.delete(snap)) off.add(snap);
    localStorage.setItem("snaps off", JSON.stringify([...off]));
    show();
  });
  show();
}

const ARROWS = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };
const REMOVING = ["Delete", "Backspace"];
const drawKey = (key) => document.querySelector(`#sheet [data-draw][data-key="${CSS.escape(key)}"]`);
/** Whether keys mean something else: text that is typed, or a dialog. */
const busy = (bench, event) => typing(event) || document.querySelector("dialog[open]") || bench.chooser.open;
const withKeys = (event) => event.ctrlKey || event.metaKey || event.altKey;

/** What a key does on the Bench: undo first, then what goes with Control, then what is in hand. */
function onKey(bench, event) {
  const way = undoKey(event);
  if (way && !typing(event)) {
    event.preventDefault();
    bench.step(way);
    return;
  }
  if (busy(bench, event)) return;
  if (event.ctrlKey || event.metaKey) {
    withControl(bench, event);
    return;
  }
  if (event.altKey && !ARROWS[event.key]) return;
  const done = led(bench, event) || removed(bench, event) || commanded(bench, event);
  if (done) event.preventDefault();
}

function withControl(bench, event) {
  const letter = event.key.toLowerCase();
  if (letter === "x" && bench.state.clip.length && document.execCommand("copy")) bench.do("remove");
  if (letter !== "a") return;
  event.preventDefault();
  bench.do("select-all");
}

/** Arrows lead the pen, move points, or move parts. @returns {boolean} */
function led(bench, event) {
  const { marks, state } = bench;
  const arrow = ARROWS[event.key];
  if (!arrow) return false;
  const [dx, dy] = arrow.map((way) => way * (event.shiftKey ? 10 : 1));
  if (marks.tool === "pen") marks.pen.lead(dx, dy);
  else if (marks.points.chosen.size) marks.points.move(dx, dy);
  else if (state.selected.length) bench.post({ kind: "move", parts: state.selected, dx, dy });
  else return false;
  return true;
}

/** Delete takes out the last point, the chosen points, or parts; Enter ends what is drawn. @returns {boolean} */
function removed(bench, event) {
  const { marks, state } = bench;
  const removing = REMOVING.includes(event.key);
  if (marks.tool === "pen" && (event.key === "Enter" || event.key === "Backspace")) marks.pen.key(event.key);
  else if (removing && marks.points.chosen.size) marks.points.command("remove");
  else if (removing && state.selected.length) bench.do("remove");
  else return false;
  return true;
}

/** Escape, and the letters of commands and tools. @returns {boolean} */
function commanded(bench, event) {
  const letters = { a: () => bench.openFinder(), m: () => bench.openLooks(), Escape: () => leave(bench) };
  if (bench.state.selected.length) letters.d = () => bench.do("duplicate");
  const tool = drawKey(event.key);
  const command = letters[event.key] || (tool && (() => bench.act(tool)));
  command?.();
  return Boolean(command);
}

/** Escape leaves the innermost of what is in hand. */
function leave(bench) {
  const { marks } = bench;
  document.getElementById("piled").hidden = true;
  if (marks.tool) marks.take("");
  else if (marks.points.chosen.size) marks.points.choose([]);
  else if (marks.cropping) marks.crop("");
  else if (marks.inner) marks.enter(bench.partOf(marks.inner)?.within);
  else bench.select([]);
}

/** Enlargement, sharp or true pixels, and moving the view. */
function startView(bench) {
  const { stage, marks } = bench;
  const density = document.getElementById("density");

  function zoomTo(name) {
    const [width, height] = bench.state.scene.canvas;
    stage.centre(width, height, name === "fit" ? undefined : Number(name));
  }

  function look(exact) {
    stage.exact = exact ? Number(density.value) : 0;
    document.getElementById("true").setAttribute("aria-pressed", String(exact));
    document.getElementById("sharp").setAttribute("aria-pressed", String(!exact));
    marks.draw();
    stage.request();
  }

  const middle = () => {
    const box = stage.element.getBoundingClientRect();
    return [box.width / 2, box.height / 2];
  };
  for (const button of document.querySelectorAll("[data-zoom]")) {
    button.addEventListener("click", () => zoomTo(button.dataset.zoom));
  }
  document.getElementById("true").addEventListener("click", () => look(true));
  document.getElementById("sharp").addEventListener("click", () => look(false));
  density.addEventListener("change", () => look(true));
  const show = () => {
    document.getElementById("zoom-now").textContent = `${Math.round(stage.zoom * 100) / 100}:1`;
    for (const button of document.querySelectorAll("[data-zoom]")) {
      button.classList.toggle("on", Number(button.dataset.zoom) === stage.zoom);
    }
  };
  stage.addEventListener("look", show);
  show();

  const enlarge = (factor) => stage.zoomAbout(stage.zoom * factor, ...middle());
  const wanted = {
    ...Object.fromEntries(["1", "2", "8"].map((key) => [key, () => zoomTo(key)])),
    f: () => zoomTo("fit"),
    p: () => look(!stage.exact),
    ...Object.fromEntries(["+", "="].map((key) => [key, () => enlarge(Math.SQRT2)])),
    ...Object.fromEntries(["-", "−"].map((key) => [key, () => enlarge(Math.SQRT1_2)])),
  };
  document.addEventListener("keydown", (event) => {
    if (typing(event) || withKeys(event) || bench.chooser.open || event.target.closest?.(".num, dialog")) return;
    wanted[event.key.toLowerCase()]?.();
    if (event.key !== " " || event.target !== stage.element) return;
    marks.panning = true;
    stage.element.classList.add("panning");
    event.preventDefault();
  });
  document.addEventListener("keyup", (event) => {
    if (event.key !== " ") return;
    marks.panning = false;
    stage.element.classList.remove("panning");
  });
}
