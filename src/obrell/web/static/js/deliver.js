/** Deliver: the count on the button and the example names follow the form. */
const form = document.getElementById("order");

document.addEventListener("htmx:afterSwap", (event) => {
  if (event.detail.target.id !== "files") return;
  const fresh = document.getElementById("fresh-count");
  document.getElementById("count").textContent = fresh.dataset.count;
  document.getElementById("examples").textContent = fresh.textContent;
  document.getElementById("make").disabled = fresh.dataset.count === "0";
});

form.addEventListener("keydown", (event) => {
  if (event.key === "Enter") event.preventDefault();
});
