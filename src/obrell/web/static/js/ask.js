/** Small forms of the sheet, which post an edit as it is written in them. */
const valueOf = (field) => (field.type === "checkbox" ? field.checked : field.value);

/** @param {object} bench */
export function startAsking(bench) {
  const sheet = document.getElementById("sheet");
  const kept = new Map();
  const open = new Set();

  sheet.addEventListener("submit", (event) => {
    const form = event.target.closest("[data-form]");
    if (!form) return;
    event.preventDefault();
    const edit = { kind: form.dataset.form };
    if ("one" in form.dataset) [edit.part] = bench.state.selected;
    else edit.parts = bench.state.selected;
    if ("points" in form.dataset) {
      edit.points = bench.marks.points.list;
      if (!edit.points.length) {
        bench.complain("Choose points first: press one on the stage, with Shift more.");
        return;
      }
      bench.marks.points.clear();
    }
    for (const field of form.elements) if (field.name && field.type !== "submit") edit[field.name] = valueOf(field);
    if (event.submitter?.name === "whole") edit.parts = [];
    bench.post(edit);
  });

  // What was typed, chosen and unfolded outlives the sheet being written anew.
  sheet.addEventListener("input", (event) => {
    const field = event.target;
    if (field.matches(".ask, .small, .ask-form input")) kept.set(keyOf(field), valueOf(field));
  });
  sheet.addEventListener("toggle", (event) => {
    const node = event.target;
    if (node.id) open[node.open ? "add" : "delete"](node.id);
  }, true);
  bench.element.addEventListener("shown", () => {
    for (const field of sheet.querySelectorAll(".ask, .small, .ask-form input, .ask-form select")) {
      const value = kept.get(keyOf(field));
      if (value === undefined) continue;
      if (typeof value === "boolean") field.checked = value;
      else if (field.tagName !== "SELECT" || [...field.options].some((option) => option.value === value)) field.value = value;
    }
    for (const id of open) {
      const node = document.getElementById(id);
      if (node && !node.open) node.open = true;
    }
  });
}

function keyOf(field) {
  return field.id || `${field.form?.dataset.form} ${field.name}`;
}
