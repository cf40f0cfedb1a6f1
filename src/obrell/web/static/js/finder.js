/** The command finder: every action by its words, with where it is and its key; one that cannot be
 * done now says why. */

const NEEDS = {
  part: ["Select a part first.", (state) => state.selected.length > 0],
  one: ["Select one part first.", (state) => state.selected.length === 1],
  two: ["Select two parts or more first.", (state) => state.selected.length > 1],
  three: ["Select three parts or more first.", (state) => state.selected.length > 2],
  path: ["Select one path first.", (state, bench) => bench.part?.kind === "path"],
  points: ["Choose points of a path first.", (state, bench) => bench.marks.points.chosen.size > 0],
  holder: ["Select a group, combination or repeat first.", (state, bench) => /group|combination|repeat/.test(bench.part?.kind)],
  effect: ["Open an effect in the sheet first.", (state) => Boolean(state.effect)],
  guides: ["There are no guides.", (state) => state.scene.guides.length > 0],
  undo: ["There is nothing to take back.", (state) => state.undo],
  redo: ["There is nothing to do again.", (state) => state.redo],
};

/** @param {object} bench */
function commands(bench) {
  const { doings, marks } = bench;
  const parts = () => ({ parts: bench.state.selected });
  const click = (selector) => () => document.querySelector(selector)?.click();
  const draw = [...document.querySelectorAll("[data-draw]")].map((word) => [
    `Draw: ${word.textContent.toLowerCase()}`, "Sheet, Draw", word.dataset.key, "", () => word.click(),
  ]);
  const effects = [...document.querySelectorAll("[data-add-effect]")].map((word) => [
    `Add ${word.textContent}`, "Sheet, below the effects", "", "one", () => word.click(),
  ]);
  const align = [["left", "across", "start"], ["centre", "across", "middle"], ["right", "across", "end"],
    ["top", "down", "start"], ["middle", "down", "middle"], ["bottom", "down", "end"]].map(([word, axis, edge]) => [
    `Align ${word}`, "Sheet, several parts", "", "two", () => bench.post({ kind: "align", ...parts(), axis, edge }),
  ]);
  const combine = ["union", "difference", "intersection", "exclusion"].map((mode) => [
    `Combine: ${mode}`, "Sheet, several parts", "", "two", () => doings.combine({ mode }),
  ]);
  const ways = [["row", "a row"], ["around", "a round"], ["rings", "rings"], ["mirrored", "a mirror"]].map(([way, word]) => [
    `Repeat as ${word}`, "Sheet, Make", "", "part", () => doings.repeat({ way }),
  ]);
  const points = ["smooth", "sharp", "cut", "join", "remove"].map((name) => [
    `Points: ${name === "cut" ? "cut open" : name}`, "Sheet, Points", "", "points", () => marks.points.command(name),
  ]);
  return [
    ...draw, ...effects,
    ["Duplicate", "Sheet, part", "D", "part", doings.duplicate],
    ["Remove", "Sheet, part", "Delete", "part", doings.remove],
    ["Centre on the canvas", "Sheet, part", "", "part", doings["centre-both"]],
    ["Centre across", "Sheet, part", "", "part", doings["centre-across"]],
    ["Centre down", "Sheet, part", "", "part", doings["centre-down"]],
    ["Forward in the order", "Sheet, part", "", "one", doings.forward],
    ["Back in the order", "Sheet, part", "", "one", doings.back],
    ["Group", "Sheet, Make", "", "part", doings.group],
    ...ways,
    ["Take apart", "Sheet, Make", "", "holder", doings["take-apart"]],
    ["Convert to a path", "Sheet, Make", "", "part", doings["to-path"]],
    ["Flip across", "Sheet, Flip", "", "part", () => doings.flip({ way: "across" })],
    ["Flip down", "Sheet, Flip", "", "part", () => doings.flip({ way: "down" })],
    ...combine, ...align,
    ["Space evenly across", "Sheet, several parts", "", "three", () => bench.post({ kind: "distribute", ...parts(), axis: "across" })],
    ["Space evenly down", "Sheet, several parts", "", "three", () => bench.post({ kind: "distribute", ...parts(), axis: "down" })],
    ...points,
    ["Simplify the path", "Sheet, Points", "", "path", () => marks.points.command("simplify")],
    ["Guides along the canvas", "Sheet, Guides", "", "", () => bench.post({ kind: "common-guides" })],
    ["Guides along the selection", "Sheet, Guides", "", "part", () => bench.post({ kind: "common-guides", ...parts() })],
    ["Hide guides", "Sheet, Guides", "", "guides", () => bench.post({ kind: "show-guides", visible: false })],
    ["Show guides", "Sheet, Guides", "", "", () => bench.post({ kind: "show-guides", visible: true })],
    ["Remove guides", "Sheet, Guides", "", "guides", () => bench.post({ kind: "remove-guides" })],
    ["Duplicate the effect", "Sheet, open effect", "", "effect", click("[data-effect-do=duplicate]")],
    ["Remove the effect", "Sheet, open effect", "", "effect", click("[data-effect-do=remove]")],
    ["Hide or show the effect", "Sheet, open effect", "", "effect", click("#eff-eye")],
    ["Select all", "Keys", "Control A", "", () => bench.select(bench.state.scene.parts.map((part) => part.id))],
    ["See at 1:1", "Under the stage", "1", "", click("[data-zoom='1']")],
    ["See at 2:1", "Under the stage", "2", "", click("[data-zoom='2']")],
    ["See at 8:1", "Under the stage", "8", "", click("[data-zoom='8']")],
    ["Fit into the window", "Under the stage", "F", "", click("[data-zoom=fit]")],
    ["True pixels", "Under the stage", "P", "", click("#true")],
    ["Sharp", "Under the stage", "P", "", click("#sharp")],
    ["Undo", "Top", "Control Z", "undo", () => bench.step("undo")],
    ["Redo", "Top", "Control Shift Z", "redo", () => bench.step("redo")],
    ["Deliver", "Top", "", "", click(".pill.go")],
    ["Keys", "Keys", "?", "", () => document.getElementById("keys").showModal()],
  ].map(([words, where, key, need, run]) => ({ words, where, key, need, run }));
}

/** @param {object} bench */
export function startFinder(bench) {
  const dialog = document.getElementById("commands");
  const field = document.getElementById("command-words");
  const list = document.getElementById("command-list");

  function show() {
    const wanted = field.value.toLowerCase().split(/\s+/).filter(Boolean);
    const found = commands(bench).filter(({ words, where }) => wanted.every((word) => `${words} ${where}`.toLowerCase().includes(word)));
    list.replaceChildren(...found.map(({ words, where, key, need, run }) => {
      const button = document.createElement("button");
      const [why, can] = NEEDS[need] || ["", () => true];
      const ready = can(bench.state, bench);
      button.type = "button";
      button.className = ready ? "" : "cannot";
      button.setAttribute("aria-disabled", String(!ready));
      for (const [tag, text] of [["b", words], ["span", ready ? where : why], ["kbd", key.toUpperCase().replace("CONTROL", "Control").replace("SHIFT", "Shift").replace("DELETE", "Delete")]]) {
        const node = document.createElement(tag);
        node.textContent = text;
        button.append(node);
      }
      button.addEventListener("click", () => {
        if (!ready) return;
        dialog.close();
        run({});
      });
      return button;
    }));
    if (!found.length) list.textContent = "No command has these words.";
  }

  bench.openFinder = () => {
    dialog.showModal();
    field.value = "";
    show();
    field.focus();
  };
  field.addEventListener("input", show);
  dialog.addEventListener("submit", (event) => {
    event.preventDefault();
    list.querySelector("button:not(.cannot)")?.click();
  });
  dialog.addEventListener("keydown", (event) => {
    const way = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (!way) return;
    event.preventDefault();
    const all = [field, ...list.querySelectorAll("button")];
    all[Math.max(0, Math.min(all.length - 1, all.indexOf(document.activeElement) + way))].focus();
  });
  document.getElementById("all-commands").addEventListener("click", bench.openFinder);
}

/** Rows of the sheet by name, kind or colour. */
export function startFinding(bench) {
  const field = document.getElementById("sheet-find");
  const show = () => {
    const wanted = field.value.toLowerCase().trim();
    for (const row of document.querySelectorAll("#sheet .part")) {
      row.classList.toggle("away-row", Boolean(wanted) && !row.dataset.find.includes(wanted));
    }
  };
  field.addEventListener("input", show);
  field.addEventListener("keydown", (event) => {
    event.stopPropagation();
    if (event.key === "Escape") {
      field.value = "";
      show();
      field.blur();
    }
  });
  bench.element.addEventListener("shown", show);
}
