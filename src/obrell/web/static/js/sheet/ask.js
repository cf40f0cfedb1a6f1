/** Small forms of the sheet, which post an edit as it is written in them. */
const valueOf = (field) => (field.type === "checkbox" ? field.checked : field.value);

/** @param {object} bench */
export function startAsking(bench) {
  const sheet = document.getElementById("sheet");
  const kept = new Map();
  const open = new Set();

  sheet.addEventListener("submit", async (event) => {
    const form = event.target.closest("[data-form]");
    if (!form) return;
    event.preventDefault();
    const edit = editOf(bench, form);
    if (event.submitter?.name === "whole") edit.parts = [];
    if (edit.points && !edit.points.length) {
      bench.complain("Choose points first: press one on the stage, with Shift more.");
      return;
    }
    if (form.dataset.form === "simplify") bench.marks.points.clear();
    const before = knotsOf(bench.part);
    await bench.post(edit);
    // Numbers of points mean others once there are more or fewer of them.
    if (edit.points && knotsOf(bench.part) !== before) bench.marks.points.clear();
  });

  // A form that can be tried shows on the art what it would do while it is filled in.
  const tryOut = (event) => {
    const form = event.target.closest("[data-try]");
    if (form) bench.stage.preview(editOf(bench, form));
  };
  const leave = (event) => {
    const form = event.target.closest("[data-try]");
    if (form && event.relatedTarget?.closest("[data-try]") !== form) bench.stage.preview(null);
  };
  sheet.addEventListener("pointerover", (event) => {
    if (event.target.closest("[data-try] button")) tryOut(event);
  });
  sheet.addEventListener("pointerout", (event) => {
    if (event.target.closest("[data-try] button")) bench.stage.preview(null);
  });
  sheet.addEventListener("focusin", tryOut);
  sheet.addEventListener("input", tryOut);
  sheet.addEventListener("focusout", leave);
  bench.stage.addEventListener("frame", ({ detail }) => {
    const said = sheet.querySelector("[data-try]:focus-within output");
    if (!said || !detail.scene || !bench.part) return;
    const part = detail.scene.parts.find(({ id }) => id === bench.part.id);
    said.textContent = `${knotsOf(bench.part)} → ${knotsOf(part)} points`;
  });

  // What was typed, chosen and unfolded outlives the sheet being written anew.
  sheet.addEventListener("input", (event) => {
    const field = event.target;
    if (field.matches(".ask, .small, .ask-form input")) kept.set(keyOf(field), valueOf(field));
  });
  sheet.addEventListener(
    "toggle",
    (event) => {
      const node = event.target;
      if (node.id) open[node.open ? "add" : "delete"](node.id);
    },
    true,
  );
  bench.element.addEventListener("shown", () => {
    for (const field of sheet.querySelectorAll(".ask, .small, .ask-form input, .ask-form select")) {
      const value = kept.get(keyOf(field));
      if (value === undefined) continue;
      if (typeof value === "boolean") field.checked = value;
      else if (field.tagName !== "SELECT" || [...field.options].some((option) => option.value === value))
        field.value = value;
    }
    for (const id of open) {
      const node = document.getElementById(id);
      if (node && !node.open) node.open = true;
    }
  });
}

/** @returns {object} the edit that a form posts, as it is filled in */
function editOf(bench, form) {
  const edit = { kind: form.dataset.form };
  if ("one" in form.dataset) [edit.part] = bench.state.selected;
  else edit.parts = bench.state.selected;
  if ("points" in form.dataset) edit.points = bench.marks.points.list;
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
