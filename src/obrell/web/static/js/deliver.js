/** Deliver: the count on the button and the example names follow the form. */
import { byId } from "./ui/dom.js";
const form = byId("order");

const make = /** @type {HTMLButtonElement} */ (byId("make"));

document.addEventListener("htmx:afterSwap", (event) => {
  if (!(event instanceof CustomEvent) || event.detail.target.id !== "files") return;
  const fresh = byId("fresh-count");
  byId("count").textContent = fresh.dataset.count ?? "";
  byId("whose").textContent = fresh.dataset.whose ?? "";
  byId("examples").textContent = fresh.textContent;
  make.disabled = fresh.dataset.count === "0";
});

form.addEventListener("keydown", (event) => {
  if (event.key === "Enter") event.preventDefault();
});
