/**
 * What is tried on the art from the sheet, by hovering or by Tab, and done by a press: starts, and the kept gradients at
 * the fill itself, which are fetched when they are unfolded.
 *
 * @typedef {import("../ui/types.js").Bench} Bench
 */
import { byId, closest, matches } from "../ui/dom.js";
import { ask, wordsOf } from "../ui/page.js";

/** Words that show what they do before they do it. */
const TRIED = "button[data-try]";

/** @param {Bench} bench @param {HTMLElement} fold */
async function fetchInto(bench, fold) {
  const place = fold.querySelector("[data-held]");
  if (!place) return;
  const query = new URLSearchParams({ path: fold.dataset.fills ?? "" });
  const answer = await ask(`${bench.api.base}/gradients?${query}`);
  const text = await answer.text();
  if (answer.ok) place.innerHTML = text;
  else bench.complain(wordsOf(text));
}

/** @param {Bench} bench */
export function startFills(bench) {
  const sheet = byId("sheet");
  sheet.addEventListener(
    "toggle",
    ({ target }) => {
      if (!(target instanceof HTMLDetailsElement) || !target.dataset.fills) return;
      if (target.open) fetchInto(bench, target);
    },
    true,
  );
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
