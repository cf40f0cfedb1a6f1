/** Small forms of the sheet, which post an edit as it is written in them. */
const valueOf = (field) => (field.type === "checkbox" ? field.checked : field.value);

const KEPT = ".ask, .small, .ask-form input, .ask-form select";

/** @param {object} bench */
export function startAsking(bench) {
  const sheet = document.getElementById("sheet");
  sheet.addEventListener("submit", (event) => {
    const form = event.target.closest("[data-form]");
    if (!form) return;
    event.preventDefault();
    post(bench, form, event.submitter);
  });
  startTrying(bench, sheet);
  startKeeping(bench, sheet);
}

async function post(bench, form, submitter) {
  const edit = editOf(bench, form);
  if (submitter?.name === "whole") edit.parts = [];
  else if (submitter?.name) edit[submitter.name] = submitter.value;
  if (edit.points && !edit.points.length) {
    bench.complain("Choose points first: press one on the stage, with Shift more.");
    return;
  }
  if (form.dataset.form === "simplify") bench.marks.points.clear();
  const before = knotsOf(bench.part);
  await bench.post(edit);
  // Numbers of points mean others once there are more or fewer of them.
  if (edit.points && knotsOf(bench.part) !== before) bench.marks.points.clear();
}

/** A form that can be tried shows on the art what it would do while it is filled in. */
function startTrying(bench, sheet) {
  const tryOut = (event) => {
    const form = event.target.closest("[data-try]");
    if (form) bench.stage.preview(editOf(bench, form));
  };
  const overButton = (event) => event.target.closest("[data-try] button");
  sheet.addEventListener("pointerover", (event) => overButton(event) && tryOut(event));
  sheet.addEventListener("pointerout", (event) => overButton(event) && bench.stage.preview(null));
  sheet.addEventListener("focusin", tryOut);
  sheet.addEventListener("input", tryOut);
  sheet.addEventListener("focusout", (event) => {
    const form = event.target.closest("[data-try]");
    if (form && event.relatedTarget?.closest("[data-try]") !== form) bench.stage.preview(null);
  });
  bench.stage.addEventListener("frame", ({ detail }) => {
    const said = sheet.querySelector("[data-try]:focus-within output");
    if (!said || !detail.scene || !bench.part) return;
    const part = detail.scene.parts.find(({ id }) => id === bench.part.id);
    said.textContent = `${knotsOf(bench.part)} → ${knotsOf(part)} points`;
  });
}

/** What was typed, chosen and unfolded outlives the sheet being written anew. */
function startKeeping(bench, sheet) {
  const kept = new Map();
  const open = new Set();
  sheet.addEventListener("input", ({ target }) => {
    if (target.matches(".ask, .small, .ask-form input")) kept.set(keyOf(target), valueOf(target));
  });
  const unfolded = ({ target }) => target.id && open[target.open ? "add" : "delete"](target.id);
  sheet.addEventListener("toggle", unfolded, true);
  bench.element.addEventListener("shown", () => {
    for (const field of sheet.querySelectorAll(KEPT)) putBack(field, kept.get(keyOf(field)));
    for (const id of open) document.getElementById(id)?.setAttribute("open", "");
  });
}

/** A choice that is no longer offered is not put back. */
function putBack(field, value) {
  if (value === undefined) return;
  if (typeof value === "boolean") field.checked = value;
  else if (field.tagName !== "SELECT" || [...field.options].some((option) => option.value === value))
    field.value = value;
}

/** @returns {object} the edit that a form posts, as it is filled in */
function editOf(bench, form) {
  const edit = { kind: form.dataset.form };
  if ("one" in form.dataset) [edit.part] = bench.state.selected;
  else edit.parts = bench.state.selected;
  if ("points" in form.dataset) edit.points = bench.marks.points.list;
  if ("body" in form.elements) delete edit.parts;
  for (const field of form.elements) if (field.name && field.type !== "submit") edit[field.name] = valueOf(field);
  return edit;
}

/** How many points a path has. */
function knotsOf(part) {
  return (part?.contours || []).reduce((count, run) => count + run.knots.length, 0);
}

function keyOf(field) {
  return field.id || `${field.form?.dataset.form} ${field.name}`;
}
