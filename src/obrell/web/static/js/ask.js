/** Words and small forms of the sheet that post an edit as it is written in them. */
const FLAGS = { checkbox: (field) => field.checked };

function valueOf(field) {
  if (FLAGS[field.type]) return FLAGS[field.type](field);
  const number = Number(field.value.replace(",", "."));
  return field.value.trim() === "" || Number.isNaN(number) ? field.value : number;
}

/** @param {object} bench */
export function startAsking(bench) {
  const sheet = document.getElementById("sheet");
  const kept = new Map();
  const open = new Set();

  sheet.addEventListener("click", (event) => {
    const button = event.target.closest("[data-edit], [data-align], [data-space], [data-anchor]");
    if (!button) return;
    const { edit, align, space, anchor } = button.dataset;
    const parts = bench.state.selected;
    if (anchor) {
      bench.anchor = anchor === bench.anchor ? "" : anchor;
      bench.refresh();
    } else if (align) {
      const [axis, edge] = align.split(" ");
      const [to, by] = ["align-to", "align-by"].map((id) => document.getElementById(id).value);
      bench.post({ kind: "align", parts, axis, edge, to, by });
    } else if (space) {
      const gap = document.getElementById("space-gap").value.trim();
      bench.post({ kind: "distribute", parts, axis: space, gap: gap === "" ? null : Number(gap.replace(",", ".")) });
    } else {
      const made = JSON.parse(edit);
      if (button.dataset.with === "parts") {
        if (!parts.length) return void bench.complain("Select parts first.");
        made.parts = parts;
      }
      bench.post(made);
    }
  });

  sheet.addEventListener("submit", (event) => {
    const form = event.target.closest("[data-form]");
    if (!form) return;
    event.preventDefault();
    const edit = { kind: form.dataset.form };
    if ("one" in form.dataset) [edit.part] = bench.state.selected;
    else edit.parts = bench.state.selected;
    for (const field of form.elements) if (field.name && field.type !== "submit") edit[field.name] = valueOf(field);
    if (event.submitter?.name === "whole") edit.parts = [];
    bench.post(edit);
  });

  // What was typed, chosen and unfolded outlives the sheet being written anew.
  sheet.addEventListener("input", (event) => {
    const field = event.target;
    if (field.matches(".ask, .small, .ask-form input")) kept.set(keyOf(field), FLAGS[field.type] ? field.checked : field.value);
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
