/**
 * States: which is drawn, where else it is done what is done, made and named.
 *
 * @typedef {import("../ui/types.js").Bench} Bench
 */
import { byId, closest } from "../ui/dom.js";
import { drawMade } from "./editions.js";

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

/** What an edit is posted for; a state or an edition that it made is drawn. Whether it was done. @param {Bench} bench
 * @param {import("../ui/types.js").Edit} edit */
export async function postDrawn(bench, edit) {
  const { states, sizes, arts } = bench.state;
  const known = new Set([...states, ...sizes, ...arts]);
  const state = await bench.post(edit);
  if (!state) return false;
  const made = state.states.find((one) => !known.has(one));
  const edition = [...state.sizes, ...state.arts].find((one) => !known.has(one));
  if (made) draw(bench, made);
  if (edition) drawMade(bench, edition, state);
  return true;
}

/** @param {Bench} bench */
export function startStates(bench) {
  const column = byId("proof");
  column.addEventListener("change", (event) => {
    const field = closest(event, "[data-renames]", HTMLInputElement);
    if (field) bench.post({ ...JSON.parse(field.dataset.renames ?? "{}"), name: field.value });
    const choice = closest(event, "[data-gives], [data-adds]", HTMLSelectElement);
    if (choice?.dataset.gives) bench.post({ ...JSON.parse(choice.dataset.gives), role: choice.value });
    else if (choice?.value)
      postDrawn(bench, { kind: "duplicate-state", state: choice.value, role: choice.dataset.adds });
  });
  column.addEventListener("submit", (event) => {
    const form = closest(event, "[data-makes]", HTMLFormElement);
    if (!form) return;
    event.preventDefault();
    const edit = { kind: form.dataset.makes ?? "", ...Object.fromEntries(new FormData(form)) };
    // What was refused can be typed otherwise.
    postDrawn(bench, edit).then((done) => done && form.reset());
  });
  column.addEventListener("keydown", (event) => {
    const field = closest(event, "[data-renames]", HTMLInputElement);
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

/** The sign of what is drawn. @param {Bench} bench */
function showDrawn({ stage, state }) {
  // What was chosen besides may be gone.
  stage.also = stage.also.filter((one) => state.states.includes(one));
  stage.element.classList.toggle("in-state", Boolean(state.sign));
  const sign = byId("state-sign");
  sign.hidden = !state.sign;
  sign.textContent = state.sign;
}
