/** Wall: the new-control dialog, the order by dragging, and what was said. */
import { say, typing } from "./ui/page.js";

const dialog = document.getElementById("new-dialog");
const wall = document.getElementById("wall");

function ask() {
  dialog.showModal();
  const name = dialog.querySelector("[name=name]");
  name.value = "";
  name.focus();
}

document.getElementById("new-control").addEventListener("click", ask);
dialog.querySelector("[data-close]").addEventListener("click", () => dialog.close());
document.addEventListener("keydown", (event) => {
  if (event.key.toLowerCase() === "n" && !typing(event) && !event.ctrlKey && !event.metaKey && !dialog.open) {
    event.preventDefault();
    ask();
  }
});

let dragged = null;
wall.addEventListener("dragstart", (event) => {
  dragged = event.target.closest(".tile");
  event.dataTransfer.effectAllowed = "move";
});
wall.addEventListener("dragover", (event) => {
  const tile = event.target.closest(".tile");
  if (!dragged || !tile) return;
  event.preventDefault();
  for (const other of wall.querySelectorAll(".tile.over")) other.classList.remove("over");
  tile.classList.add("over");
});
wall.addEventListener("dragend", () => {
  dragged = null;
  for (const other of wall.querySelectorAll(".tile.over")) other.classList.remove("over");
});
wall.addEventListener("drop", (event) => {
  const tile = event.target.closest(".tile");
  if (!dragged || !tile || tile === dragged) return;
  event.preventDefault();
  const url = `/kits/${wall.dataset.kit}/controls/${dragged.dataset.control}/move`;
  htmx.ajax("POST", url, { target: "#wall", values: { to: Number(tile.dataset.at) } });
});

document.addEventListener("htmx:afterSwap", () => {
  const news = document.getElementById("news");
  if (news) say(news.textContent);
});
