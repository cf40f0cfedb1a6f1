/** Buttons outside of the sheet: undo and redo, what was found with its cures, what the art stands on. */
import { byId, closest } from "../ui/dom.js";

/** @param {import("../ui/types.js").Bench} bench */
export function startButtons(bench) {
  for (const id of ["found", "proof"]) {
    byId(id).addEventListener("click", (event) => {
      const word = closest(event, "[data-edit], [data-colourway], [data-draws], [data-edition], [data-aside]");
      const found = closest(event, "[data-found]");
      if (word) bench.act(word);
      else if (found) bench.select((found.dataset.found ?? "").split(","));
    });
  }
  byId("stage").addEventListener("click", (event) => {
    const ground = closest(event, ".ground");
    if (ground) bench.act(ground);
  });
  byId("undo").addEventListener("click", () => bench.step("undo"));
  byId("redo").addEventListener("click", () => bench.step("redo"));
}
