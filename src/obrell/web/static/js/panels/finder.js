/** The command finder: commands are found by their words; one that cannot be done now says why. */

const READY = {
  "": () => true,
  part: ({ state }) => state.selected.length > 0,
  one: ({ state }) => state.selected.length === 1,
  pair: ({ state }) => state.selected.length === 2,
  two: ({ state }) => state.selected.length > 1,
  three: ({ state }) => state.selected.length > 2,
  path: ({ part }) => part?.kind === "path",
  picture: ({ part }) => part?.kind === "picture",
  points: ({ marks }) => marks.points.chosen.size > 0,
  holder: ({ part }) => /group|combination|repeat/.test(part?.kind),
  effect: ({ state }) => Boolean(state.effect),
  ramp: () => Boolean(document.querySelector(".eff.open [data-ramp]")),
  guides: ({ state }) => state.scene.guides.length > 0,
  undo: ({ state }) => state.undo,
  redo: ({ state }) => state.redo,
};

/** @param {object} bench */
export function startFinder(bench) {
  const dialog = document.getElementById("commands");
  const field = document.getElementById("command-words");
  const list = document.getElementById("command-list");
  const buttons = [...list.querySelectorAll("button")];
  const none = list.querySelector("p");

  function show() {
    const wanted = field.value.toLowerCase().split(/\s+/).filter(Boolean);
    for (const button of buttons) {
      const { need, where, why } = button.dataset;
      const text = `${button.firstChild.textContent} ${where}`.toLowerCase();
      const ready = READY[need](bench);
      button.hidden = !wanted.every((word) => text.includes(word));
      button.classList.toggle("cannot", !ready);
      button.setAttribute("aria-disabled", String(!ready));
      button.querySelector("span").textContent = ready ? where : why;
    }
    none.hidden = buttons.some((button) => !button.hidden);
  }

  function run(button) {
    if (!button || button.matches(".cannot")) return;
    dialog.close();
    bench.act(button);
  }

  bench.openFinder = () => {
    dialog.showModal();
    field.value = "";
    show();
    field.focus();
  };
  field.addEventListener("input", show);
  list.addEventListener("click", (event) => run(event.target.closest("button")));
  dialog.addEventListener("submit", (event) => {
    event.preventDefault();
    run(buttons.find((button) => !button.hidden && !button.matches(".cannot")));
  });
  dialog.addEventListener("keydown", (event) => {
    const way = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (!way) return;
    event.preventDefault();
    const all = [field, ...buttons.filter((button) => !button.hidden)];
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
