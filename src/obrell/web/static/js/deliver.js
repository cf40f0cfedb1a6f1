/** Deliver: the count on the button and the example names follow the form. */
import { byId } from "./ui/dom.js";
const form = /** @type {HTMLFormElement} */ (byId("order"));

const make = /** @type {HTMLButtonElement} */ (byId("make"));

document.addEventListener("htmx:afterSwap", (event) => {
  if (!(event instanceof CustomEvent) || event.detail.target.id !== "files") return;
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

// What was ticked or typed before anybody listened, or what the browser remembered, is asked for too.
document.addEventListener("DOMContentLoaded", () => {
  if ([...form.elements].some(isChanged)) form.dispatchEvent(new Event("change", { bubbles: true }));
});

form.addEventListener("keydown", (event) => {
  if (event.key === "Enter") event.preventDefault();
});
