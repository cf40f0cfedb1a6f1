/** Buttons outside of the sheet: undo and redo, what was found with its cures, what the art stands on. */

/** @param {object} bench */
export function startButtons(bench) {
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
  for (const way of ["undo", "redo"]) document.getElementById(way).addEventListener("click", () => bench.step(way));
}
