/**
 * States: which is drawn, where else it is done what is done, made and named.
 *
 * @typedef {import("../ui/types.js").Bench} Bench
 */
import { byId, closest } from "../ui/dom.js";

/** Another state is drawn. @param {Bench} bench @param {string} state */
export function draw(bench, state) {
  bench.stage.state = state;
  bench.stage.also = bench.stage.also.filter((one) => one !== state);
  bench.refresh();
  bench.stage.preview(null);
}

/** What is done in the state that is drawn is done in another one too, or no longer.
 * @param {Bench} bench @param {string} state */
export function alsoIn(bench, state) {
  const { stage } = bench;
  const there = stage.also.includes(state);
  stage.also = there ? stage.also.filter((one) => one !== state) : [...stage.also, state];
  bench.refresh();
}

/** What an edit is posted for; a state that it made is drawn. @param {Bench} bench
 * @param {import("../ui/types.js").Edit} edit */
export async function postDrawn(bench, edit) {
  const known = new Set(bench.state.states);
  const state = await bench.post(edit);
  const made = state?.states.find((one) => !known.has(one));
  if (made) draw(bench, made);
}

/** @param {Bench} bench */
export function startStates(bench) {
  const column = byId("proof");
  column.addEventListener("change", (event) => {
    const field = closest(event, "[data-rename-state]", HTMLInputElement);
    if (field) bench.post({ kind: "rename-state", state: field.dataset.renameState, name: field.value });
  });
  column.addEventListener("submit", (event) => {
    const form = closest(event, "#own-state", HTMLFormElement);
    if (!form) return;
    event.preventDefault();
    const { name } = Object.fromEntries(new FormData(form));
    form.reset();
    postDrawn(bench, { kind: "add-state", name });
  });
  column.addEventListener("keydown", (event) => {
    const field = closest(event, "[data-rename-state]", HTMLInputElement);
    if (!field) return;
    event.stopPropagation();
    if (event.key === "Escape") field.value = field.defaultValue;
    if (event.key === "Enter" || event.key === "Escape") bench.stage.element.focus({ preventScroll: true });
  });
  bench.element.addEventListener("shown", () => showDrawn(bench));
  startTrying(bench);
}

/** What a state begins with is shown while its word is hovered or has the focus. @param {Bench} bench */
function startTrying(bench) {
  /** @param {Event} event */
  const show = (event) => {
    const word = closest(event, "[data-shown-in]");
    if (word) bench.stage.tryIn(word.dataset.shownIn ?? "", JSON.parse(word.dataset.edit ?? "null"));
  };
  /** @param {Event} event */
  const end = (event) => closest(event, "[data-shown-in]") && bench.stage.tryIn("", null);
  for (const id of ["proof", "sheet"]) {
    for (const name of ["pointerover", "focusin"]) byId(id).addEventListener(name, show);
    for (const name of ["pointerout", "focusout", "click"]) byId(id).addEventListener(name, end, true);
  }
}

/** The sign of the state that is drawn. @param {Bench} bench */
function showDrawn({ stage, state }) {
  // What was chosen besides may be gone.
  stage.also = stage.also.filter((one) => state.states.includes(one));
  const other = state.state !== "rest";
  stage.element.classList.toggle("in-state", other);
  const sign = byId("state-sign");
  sign.hidden = !other;
  sign.textContent = other ? state.stateName : "";
}
