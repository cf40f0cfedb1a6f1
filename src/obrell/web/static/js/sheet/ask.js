/**
 * Small forms of the sheet, which post an edit as it is written in them.
 *
 * @typedef {import("../ui/types.js").Bench} Bench
 * @typedef {import("../ui/types.js").Edit} Edit
 * @typedef {import("../ui/types.js").ScenePart} ScenePart
 * @typedef {HTMLInputElement|HTMLSelectElement} Field
 */
import { all, byId, chosen, closest } from "../ui/dom.js";

/** What a person has typed or chosen, and not what is shown: that outlives the sheet being written anew. */
const KEPT = ".ask, .small, .ask-form:not([data-typed]) input, .ask-form select";

/** @param {unknown} node @returns {node is Field} */
const isField = (node) => node instanceof HTMLInputElement || node instanceof HTMLSelectElement;
/** @param {HTMLFormElement} form */
const fieldsOf = (form) => [...form.elements].filter((field) => isField(field));
/** @param {Field} field */
const valueOf = (field) =>
  field instanceof HTMLInputElement && field.type === "checkbox" ? field.checked : field.value;
/** @param {Field} field */
const saidIn = (field) => (field instanceof HTMLSelectElement ? chosen(field) : valueOf(field));
/** @param {Field} field */
const keyOf = (field) => field.id || `${field.form?.dataset.form} ${field.name}`;
/** @param {Event} event @param {string} selector @returns {HTMLFormElement|null} */
const formOf = (event, selector) => closest(event, selector, HTMLFormElement);

/** @param {Bench} bench */
export function startAsking(bench) {
  const sheet = byId("sheet");
  sheet.addEventListener("submit", (event) => {
    const form = formOf(event, "[data-form]");
    if (!form) return;
    event.preventDefault();
    // What is typed there is posted when it changes.
    if (!form.matches("[data-typed]")) post(bench, form, event.submitter);
  });
  sheet.addEventListener("change", (event) => {
    const form = formOf(event, "[data-typed]");
    if (form && event.target instanceof HTMLInputElement) postTyped(bench, form, event.target);
  });
  sheet.addEventListener("keydown", (event) => leave(bench, event));
  startTrying(bench, sheet);
  startKeeping(bench, sheet);
}

/** Escape leaves a field as it was; what was typed to be kept is not kept. @param {Bench} bench
 * @param {KeyboardEvent} event */
function leave(bench, event) {
  const field = closest(event, ".ask-form input", HTMLInputElement);
  if (event.key !== "Escape" || !field) return;
  event.stopPropagation();
  if (field.closest("[data-typed]")) field.value = field.defaultValue;
  bench.stage.element.focus({ preventScroll: true });
}

/** @param {Bench} bench @param {HTMLFormElement} form @param {HTMLElement|null} submitter */
async function post(bench, form, submitter) {
  const edit = editOf(bench, form);
  if (submitter instanceof HTMLButtonElement && submitter.name === "whole") edit.parts = [];
  else if (submitter instanceof HTMLButtonElement && submitter.name) edit[submitter.name] = submitter.value;
  if (Array.isArray(edit.points) && !edit.points.length) {
    bench.complain("Choose points first: press one on the stage, with Shift more.");
    return;
  }
  if (form.dataset.form === "simplify") bench.marks.points.clear();
  const before = knotsOf(bench.part);
  await bench.post(edit);
  // Numbers of points mean others once there are more or fewer of them.
  if (edit.points && knotsOf(bench.part) !== before) bench.marks.points.clear();
}

/**
 * Fields that show what is kept: one that is typed in is not written anew, so it is left meanwhile. What is typed in
 * another field by the time of the answer stays.
 *
 * @param {Bench} bench @param {HTMLFormElement} form @param {HTMLInputElement} field
 */
async function postTyped(bench, form, field) {
  const stays = document.activeElement === field;
  field.blur();
  await post(bench, form, null);
  if (document.activeElement !== field) field.value = field.defaultValue;
  if (stays && document.activeElement === document.body) field.focus();
}

/**
 * A form that can be tried shows on the art what it would do while it is filled in.
 *
 * @param {Bench} bench @param {HTMLElement} sheet
 */
function startTrying(bench, sheet) {
  /** @param {Event} event */
  const tryOut = (event) => {
    const form = formOf(event, "[data-try]");
    if (form) bench.stage.preview(editOf(bench, form));
  };
  /** @param {Event} event */
  const overButton = (event) => closest(event, "[data-try] button");
  sheet.addEventListener("pointerover", (event) => overButton(event) && tryOut(event));
  sheet.addEventListener("pointerout", (event) => overButton(event) && bench.stage.preview(null));
  sheet.addEventListener("focusin", tryOut);
  sheet.addEventListener("input", tryOut);
  sheet.addEventListener("focusout", (event) => {
    const form = formOf(event, "[data-try]");
    const to = event.relatedTarget instanceof Element ? event.relatedTarget.closest("[data-try]") : null;
    if (form && to !== form) bench.stage.preview(null);
  });
  bench.stage.addEventListener("frame", (event) => {
    const { detail } = /** @type {CustomEvent<import("../stage/types.js").Frame>} */ (event);
    const said = sheet.querySelector("[data-try]:focus-within output");
    const { part } = bench;
    if (!said || !detail.scene || !part) return;
    const tried = detail.scene.parts.find(({ id }) => id === part.id);
    said.textContent = `${knotsOf(part)} → ${knotsOf(tried)} points`;
  });
}

/**
 * What was typed, chosen and unfolded outlives the sheet being written anew.
 *
 * @param {Bench} bench @param {HTMLElement} sheet
 */
function startKeeping(bench, sheet) {
  /** @type {Map<string, string|boolean>} */
  const kept = new Map();
  /** @type {Set<string>} */
  const open = new Set();
  sheet.addEventListener("input", ({ target }) => {
    if (isField(target) && target.matches(KEPT)) kept.set(keyOf(target), valueOf(target));
  });
  sheet.addEventListener(
    "toggle",
    ({ target }) => {
      if (target instanceof HTMLDetailsElement && target.id) open[target.open ? "add" : "delete"](target.id);
    },
    true,
  );
  bench.element.addEventListener("shown", () => {
    for (const field of all(KEPT, sheet)) if (isField(field)) putBack(field, kept.get(keyOf(field)));
    for (const id of open) document.getElementById(id)?.setAttribute("open", "");
  });
}

/** A choice that is no longer offered is not put back. @param {Field} field @param {string|boolean|undefined} value */
function putBack(field, value) {
  if (value === undefined) return;
  if (typeof value === "boolean") {
    if (field instanceof HTMLInputElement) field.checked = value;
  } else if (field instanceof HTMLInputElement || [...field.options].some((option) => option.value === value))
    field.value = value;
}

/**
 * Whether a field says something: of values that are shown only the one that was typed is meant, the others are
 * written more shortly than they are.
 *
 * @param {HTMLFormElement} form @param {Field} field
 */
function isMeant(form, field) {
  if (!field.name) return false;
  const shown = "typed" in form.dataset && field instanceof HTMLInputElement && field.type !== "hidden";
  return !shown || field.value !== field.defaultValue;
}

/**
 * The edit that a form posts, as it is filled in: of all that is selected, of the one part, or of what its fields name.
 *
 * @param {Bench} bench @param {HTMLFormElement} form
 * @returns {Edit}
 */
function editOf(bench, form) {
  /** @type {Edit} */
  const edit = { kind: form.dataset.form ?? "" };
  if ("one" in form.dataset) [edit.part] = bench.state.selected;
  else if (!("named" in form.dataset)) edit.parts = bench.state.selected;
  if ("points" in form.dataset) edit.points = bench.marks.points.list;
  for (const field of fieldsOf(form)) if (isMeant(form, field)) edit[field.name] = saidIn(field);
  return edit;
}

/** How many points a path has. @param {ScenePart|undefined} part */
function knotsOf(part) {
  return (part?.contours ?? []).reduce((count, run) => count + run.knots.length, 0);
}
