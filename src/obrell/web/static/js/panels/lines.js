/** The lines of parts in the sheet: chosen, folded up, put into another order. */
import { all, byId, closest, matches } from "../ui/dom.js";
import { dragged } from "../ui/drags.js";

/** What is pressed on a line that is no part's own: its words do what they say, all else chooses the part. */
const OWN = "input, select, textarea, summary, form, .num";

/** @param {import("../ui/types.js").Bench} bench @param {MouseEvent} event */
function pick(bench, event) {
  const id = closest(event, ".part > header")?.parentElement?.dataset.part;
  if (!id) return;
  const { selected } = bench.state;
  if (!event.shiftKey) bench.select([id]);
  else
    bench.select(
      selected.includes(id) ? selected.filter((/** @type {string} */ other) => other !== id) : [...selected, id],
    );
}

/** @param {import("../ui/types.js").Bench} bench */
export function startLines(bench) {
  const sheet = byId("sheet");
  const folds = startFolds(bench, sheet);
  sheet.addEventListener("click", (event) => {
    const word = closest(event, "button");
    if (word?.dataset.fold) folds.toggle(word.dataset.fold);
    else if (word) bench.act(word);
    else if (!closest(event, OWN)) pick(bench, event);
  });
  sheet.addEventListener("focusin", (event) => {
    const id = closest(event, ".part")?.dataset.part;
    if (id && !bench.swapping && matches(event, ":focus-visible") && !bench.state.selected.includes(id))
      bench.select([id]);
  });
  startReordering(bench, sheet);
  bringOpened(bench);
}

/** An effect that was opened is brought into view. @param {import("../ui/types.js").Bench} bench */
function bringOpened(bench) {
  let open = "";
  bench.element.addEventListener("shown", () => {
    const { selected, effect } = bench.state;
    const now = effect ? `${selected[0]}/${effect}` : "";
    if (now && now !== open) document.querySelector(".eff.open")?.scrollIntoView({ block: "nearest" });
    open = now;
  });
}

/**
 * Containers fold up in the sheet; which ones are is kept for this tab.
 *
 * @param {import("../ui/types.js").Bench} bench
 * @param {HTMLElement} sheet
 */
function startFolds(bench, sheet) {
  const key = `folds ${location.pathname}`;
  const folded = new Set(JSON.parse(sessionStorage.getItem(key) || "[]"));
  const show = () => {
    let under = Infinity;
    for (const row of all(".part", sheet)) {
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
    /** @param {string} id */
    toggle(id) {
      if (!folded.delete(id)) folded.add(id);
      sessionStorage.setItem(key, JSON.stringify([...folded]));
      show();
    },
  };
}

/**
 * Parts are put into another order by dragging their small pictures.
 *
 * @param {import("../ui/types.js").Bench} bench
 * @param {HTMLElement} sheet
 */
function startReordering(bench, sheet) {
  sheet.addEventListener("pointerdown", (event) => {
    const thumb = closest(event, ".thumb");
    if (!thumb || event.button !== 0) return;
    event.preventDefault();
    const from = /** @type {HTMLElement} */ (thumb.closest(".part"));
    /** @type {HTMLElement|null} */
    let over = null;
    /** @param {PointerEvent} at */
    const move = (at) => {
      over?.classList.remove("over");
      over = document.elementFromPoint(at.clientX, at.clientY)?.closest(".part") || null;
      if (over !== from) over?.classList.add("over");
    };
    dragged(bench, event, move, () => {
      over?.classList.remove("over");
      if (over && over !== from) bench.post({ kind: "reorder", part: from.dataset.part, to: over.dataset.part });
    });
  });
}
