/**
 * What is tried on the art from the sheet, by hovering or by Tab, and done by a press: starts, and the kept gradients
 * at the fill itself, which are fetched when they are unfolded.
 *
 * @typedef {import("../ui/types.js").Bench} Bench
 */
import { all, byId, closest, matches } from "../ui/dom.js";
import { ask, wordsOf } from "../ui/page.js";

/** Words that show what they do before they do it. */
const TRIED = "button[data-try]";

/**
 * What the fold holds is for one fill: for another one, and after the fold was written anew, it is fetched again.
 *
 * @param {Bench} bench @param {HTMLElement} fold
 */
async function fetchInto(bench, fold) {
  const { fills: path = "" } = fold.dataset;
  const place = fold.querySelector("[data-held]");
  if (!(place instanceof HTMLElement) || place.dataset.held === path) return;
  place.dataset.held = path;
  place.replaceChildren();
  const answer = await ask(`${bench.api.base}/gradients?${new URLSearchParams({ path, ...bench.stage.drawn })}`);
  const text = await answer.text();
  if (!answer.ok) {
    place.dataset.held = "";
    bench.complain(wordsOf(text));
  } else if (place.dataset.held === path) place.innerHTML = text;
}

/** @param {Bench} bench */
export function startFills(bench) {
  const sheet = byId("sheet");
  const fetchOpen = () => {
    for (const fold of all("[data-fills][open]", sheet)) fetchInto(bench, fold);
  };
  sheet.addEventListener("toggle", fetchOpen, true);
  bench.element.addEventListener("shown", fetchOpen);
  /** @param {Event} event */
  const tryOut = (event) => {
    const { edit, with: holder } = closest(event, TRIED)?.dataset ?? {};
    const parts = holder === "parts" ? { parts: bench.state.selected } : {};
    if (edit) bench.stage.preview({ ...JSON.parse(edit), ...parts });
  };
  /** @param {Event} event */
  const leave = (event) => {
    if (closest(event, TRIED)) bench.stage.preview(null);
  };
  sheet.addEventListener("pointerover", tryOut);
  sheet.addEventListener("focusin", (event) => {
    if (matches(event, ":focus-visible")) tryOut(event);
  });
  sheet.addEventListener("pointerout", leave);
  sheet.addEventListener("focusout", leave);
}
