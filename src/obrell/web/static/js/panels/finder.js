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
  holder: ({ part }) => Boolean(part?.holds),
  effect: ({ state }) => Boolean(state.effect),
  ramp: () => Boolean(document.querySelector(".eff.open [data-ramp]")),
  guides: ({ state }) => state.scene.guides.length > 0,
  undo: ({ state }) => state.undo,
  redo: ({ state }) => state.redo,
};

class Finder {
  constructor(bench) {
    this.bench = bench;
    this.dialog = document.getElementById("commands");
    this.field = document.getElementById("command-words");
    this.list = document.getElementById("command-list");
    this.buttons = [...this.list.querySelectorAll("button")];
    this.field.addEventListener("input", () => this.#show());
    this.list.addEventListener("click", (event) => this.#run(event.target.closest("button")));
    this.dialog.addEventListener("submit", (event) => {
      event.preventDefault();
      this.#run(this.#found.find((button) => !button.matches(".cannot")));
    });
    this.dialog.addEventListener("keydown", (event) => this.#key(event));
    document.getElementById("all-commands").addEventListener("click", () => this.open());
  }

  get #found() {
    return this.buttons.filter((button) => !button.hidden);
  }

  open() {
    this.dialog.showModal();
    this.field.value = "";
    this.#show();
    this.field.focus();
  }

  #show() {
    const wanted = this.field.value.toLowerCase().split(/\s+/).filter(Boolean);
    for (const button of this.buttons) {
      const { need, where, why, other = "" } = button.dataset;
      const text = `${button.firstChild.textContent} ${where} ${other}`.toLowerCase();
      const ready = READY[need](this.bench);
      button.hidden = !wanted.every((word) => text.includes(word));
      button.classList.toggle("cannot", !ready);
      button.setAttribute("aria-disabled", String(!ready));
      button.querySelector("span").textContent = ready ? where : why;
    }
    this.list.querySelector("p").hidden = this.#found.length > 0;
  }

  #run(button) {
    if (!button || button.matches(".cannot")) return;
    this.dialog.close();
    this.bench.act(button);
  }

  #key(event) {
    const way = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (!way) return;
    event.preventDefault();
    const all = [this.field, ...this.#found];
    all[Math.max(0, Math.min(all.length - 1, all.indexOf(document.activeElement) + way))].focus();
  }
}

/** @param {object} bench */
export function startFinder(bench) {
  const finder = new Finder(bench);
  bench.openFinder = () => finder.open();
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
