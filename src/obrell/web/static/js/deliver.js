/**
 * Deliver: the count on the button and the example names follow the form. The form keeps its choices from visit to
 * visit. An archive says when it was made for another order.
 */
import { byId } from "./ui/dom.js";

/** @typedef {{name: string, value: string, checked: boolean}} Said what a field says */

const form = /** @type {HTMLFormElement} */ (byId("order"));
const make = /** @type {HTMLButtonElement} */ (byId("make"));
const KEPT = `obrell/order/${form.dataset.kit}`;
/** Fields that are not remembered: the page fills them in for the control or kit it was opened for. */
const OWN = ["control", "states", "sizes", "reading"];

/** @param {unknown} field @returns {field is HTMLInputElement|HTMLSelectElement} */
const isField = (field) => field instanceof HTMLInputElement || field instanceof HTMLSelectElement;
const fields = () => [...form.elements].filter((field) => isField(field));
/** @param {HTMLInputElement|HTMLSelectElement} field */
const ticks = (field) => field instanceof HTMLInputElement && ["checkbox", "radio"].includes(field.type);
/** The order as it is filled in. */
const said = () => new URLSearchParams(/** @type {any} */ (new FormData(form))).toString();
/** The order that the files at hand are of. */
let made = "";

function keep() {
  const kept = fields()
    .filter(({ name }) => name && !OWN.includes(name))
    .map((field) => ({
      name: field.name,
      value: field.value,
      checked: ticks(field) && "checked" in field && field.checked,
    }));
  try {
    localStorage.setItem(KEPT, JSON.stringify(kept));
  } catch {
    /* storage may be off: then it is as usual next time */
  }
}

/** @param {HTMLInputElement|HTMLSelectElement} field @param {Said[]} kept */
function putBack(field, kept) {
  const same = kept.filter(({ name }) => name === field.name);
  if (field instanceof HTMLInputElement && ticks(field)) {
    const own = same.find(({ value }) => value === field.value);
    if (own) field.checked = own.checked;
  } else if (same.length === 1 && fields().filter(({ name }) => name === field.name).length === 1)
    field.value = same[0].value;
}

/** The choices as they were left; what is new in the kit is as usual. */
function restore() {
  try {
    /** @type {Said[]} */
    const kept = JSON.parse(localStorage.getItem(KEPT) || "[]");
    for (const field of fields()) if (!OWN.includes(field.name)) putBack(field, kept);
  } catch {
    /* storage may be off, or hold something else: as usual then */
  }
}

/** Label the archive as one of an earlier order when the form was changed since. */
function showWhose() {
  const link = document.getElementById("download");
  if (!link) return;
  const other = said() !== made;
  link.textContent = other ? "Take the zip of the order before" : "Take the zip";
  link.classList.toggle("go", !other);
}

document.addEventListener("htmx:afterSwap", (event) => {
  if (!(event instanceof CustomEvent)) return;
  showWhose();
  if (event.detail.target.id !== "files") return;
  const fresh = byId("fresh-count");
  byId("count").textContent = fresh.dataset.count ?? "";
  byId("whose").textContent = fresh.dataset.whose ?? "";
  byId("examples").textContent = fresh.textContent;
  make.disabled = fresh.dataset.count === "0";
});

/** Whether a field says something else than the page came with. @param {Element} field */
function isChanged(field) {
  if (field instanceof HTMLSelectElement) {
    const [first, ...more] = field.options;
    return field.value !== (more.find((option) => option.defaultSelected) ?? first)?.value;
  }
  if (!(field instanceof HTMLInputElement)) return false;
  return field.checked !== field.defaultChecked || field.value !== field.defaultValue;
}

const tell = () => form.dispatchEvent(new Event("change", { bubbles: true }));

// What was ticked or typed before anybody listened, or is remembered, is asked for too.
document.addEventListener("DOMContentLoaded", () => {
  if (![...form.elements].some(isChanged)) restore();
  if ([...form.elements].some(isChanged)) tell();
});

for (const name of ["change", "input"])
  form.addEventListener(name, () => {
    keep();
    showWhose();
  });
form.addEventListener("submit", () => {
  made = said();
});
form.addEventListener("reset", () => setTimeout(tell, 0));

form.addEventListener("keydown", (event) => {
  if (event.key === "Enter") event.preventDefault();
});
