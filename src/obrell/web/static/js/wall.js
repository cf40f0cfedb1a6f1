/** Wall: the new-control dialog, copies with changes, the order by dragging, and what was said. */
import { colourFromArt } from "./panels/from_art.js";
import { linksIn } from "./panels/follow_form.js";
import { startHues } from "./panels/kit_hues.js";
import { SwatchChooser, orderByDragging, takeCandidate } from "./panels/swatches.js";
import { Trying } from "./panels/trying.js";
import { all, byId, closest } from "./ui/dom.js";
import { morphInner } from "./ui/morph.js";
import { Newest } from "./ui/newest.js";
import { ask, say, showGround, trouble, typing, wordsOf } from "./ui/page.js";

/** htmx, which the page loads before. @type {{ajax: (verb: string, url: string, how: object) => void,
 *   process: (node: Element) => void}} */
const htmx = /** @type {any} */ (window).htmx;
const dialog = /** @type {HTMLDialogElement} */ (byId("new-dialog"));
const copies = /** @type {HTMLDialogElement} */ (byId("variants-dialog"));
const asking = /** @type {HTMLDialogElement} */ (byId("kit-dialog"));
const wall = byId("wall");
/** How long the answer to what was done here may be behind the news of it. */
const ANSWER_MS = 300;
const kit = wall.dataset.kit ?? "";

function askForNew() {
  dialog.showModal();
  const name = /** @type {HTMLInputElement} */ (dialog.querySelector("[name=name]"));
  name.value = "";
  name.focus();
}

byId("new-control").addEventListener("click", askForNew);
dialog.querySelector("[data-close]")?.addEventListener("click", () => dialog.close());
document.addEventListener("keydown", (event) => {
  const open = document.querySelector("dialog[open]");
  if (event.key.toLowerCase() === "n" && !typing(event) && !event.ctrlKey && !event.metaKey && !open) {
    event.preventDefault();
    askForNew();
  }
});

const asked = new Newest();

/** What the server asks for, in a dialog. @param {HTMLDialogElement} place @param {string} address */
async function askIn(place, address) {
  const answer = await asked.of(ask(address));
  if (!answer) return;
  const text = await answer.text();
  if (!answer.ok) {
    trouble(wordsOf(text));
    return;
  }
  place.innerHTML = text;
  htmx.process(place);
  // What is tried on the Wall stands beside it.
  const tries = place.querySelector("#follow-form, #recolour-form");
  place.classList.toggle("beside-wall", Boolean(tries));
  if (tries) place.show();
  else place.showModal();
  place.querySelector("input")?.focus();
  hues.begin();
  tryLinks();
}

/** What would follow swatches is seen on the Wall. */
function tryLinks() {
  const form = asking.querySelector("#follow-form");
  if (asking.open && form instanceof HTMLFormElement) trying.show({}, linksIn(form));
}

/** One more row, as the last one is, without a name. */
function addRow() {
  const rows = all("tbody tr", copies);
  const row = /** @type {HTMLElement} */ (rows[rows.length - 1].cloneNode(true));
  for (const field of all("[name]", row)) {
    const [, ...rest] = (field.getAttribute("name") ?? "").split(" ");
    field.setAttribute("name", [rows.length, ...rest].join(" "));
    const label = field.getAttribute("aria-label") ?? "";
    field.setAttribute("aria-label", label.replace(/\d+$/, String(rows.length + 1)));
  }
  const name = /** @type {HTMLInputElement} */ (row.querySelector("input"));
  rows[rows.length - 1].after(row);
  name.value = "";
  name.focus();
}

wall.addEventListener("click", (event) => {
  if (closest(event, "[data-new-control]")) askForNew();
  const address = closest(event, "[data-variants]")?.dataset.variants;
  if (address) askIn(copies, address);
  const opens = closest(event, "[data-opens]")?.dataset.opens;
  if (opens) askIn(asking, opens);
});
/** Whether what was tried in the dialog is what the Wall shows from now on. */
let kept = false;

/** Colours of the whole kit that follow swatches from now on. @param {HTMLFormElement} form */
async function letFollow(form) {
  const body = JSON.stringify({ links: linksIn(form) });
  const headers = { "content-type": "application/json" };
  const answer = await ask(`/kits/${kit}/follow${location.search}`, { method: "POST", body, headers });
  const text = await answer.text();
  if (answer.ok) {
    kept = true;
    take(text);
  } else form.querySelector(".fault")?.replaceChildren(wordsOf(text));
}

asking.addEventListener("change", tryLinks);
asking.addEventListener("close", () => {
  if (asking.classList.contains("beside-wall")) trying.end(kept);
  kept = false;
});
asking.addEventListener("keydown", ({ key }) => key === "Escape" && asking.close());

asking.addEventListener("submit", (event) => {
  const form = event.target;
  if (!(form instanceof HTMLFormElement) || form.id !== "follow-form") return;
  event.preventDefault();
  letFollow(form);
});
asking.addEventListener("click", async (event) => {
  if (closest(event, "[data-close]")) asking.close();
  takeCandidate(event);
  if (!closest(event, "[data-take-from-art]")) return;
  asking.close();
  const colour = await colourFromArt(wall);
  asking.showModal();
  const field = asking.querySelector("[data-takes-candidate]");
  if (colour && field instanceof HTMLInputElement) field.value = colour;
});
copies.addEventListener("click", (event) => {
  if (closest(event, "[data-close]")) copies.close();
  else if (closest(event, "[data-more-rows]")) addRow();
});

/** @type {HTMLElement|null} */
let dragged = null;
wall.addEventListener("dragstart", (event) => {
  dragged = closest(event, ".tile");
  if (dragged && event.dataTransfer) event.dataTransfer.effectAllowed = "move";
});
wall.addEventListener("dragover", (event) => {
  const tile = closest(event, ".tile");
  if (!dragged || !tile) return;
  event.preventDefault();
  for (const other of all(".tile.over", wall)) other.classList.remove("over");
  tile.classList.add("over");
});
wall.addEventListener("dragend", () => {
  dragged = null;
  for (const other of all(".tile.over", wall)) other.classList.remove("over");
});
wall.addEventListener("drop", (event) => {
  const tile = closest(event, ".tile");
  if (!dragged || !tile || tile === dragged) return;
  event.preventDefault();
  const url = `/kits/${kit}/controls/${dragged.dataset.control}/move`;
  htmx.ajax("POST", url, { target: "#wall", values: { to: Number(tile.dataset.at) } });
});

/** What was typed into a field when it was sent last. @type {{id: string, value: string}|null} */
let sent = null;
wall.addEventListener("htmx:beforeRequest", ({ target }) => {
  if (target instanceof HTMLInputElement) sent = { id: target.id, value: target.value };
});

/** Counts what the Wall was asked to do and what it was written anew for; and what it is being asked for. */
const shown = { turn: 0, asking: 0 };
wall.addEventListener("htmx:beforeRequest", (event) => {
  if (event instanceof CustomEvent && event.detail.requestConfig.verb !== "get") shown.turn += 1;
});

/** The Wall as it is now, without losing what is in hand. @param {string} html */
function take(html) {
  shown.turn += 1;
  const field = document.activeElement;
  // What was sent is shown as it was taken, though its field has the focus; what is being typed since stays.
  const taken = field instanceof HTMLInputElement && sent?.id === field.id && sent.value === field.value;
  if (taken) field.blur();
  morphInner(wall, html);
  if (taken) byId(field.id).focus({ preventScroll: true });
  htmx.process(wall);
  showGround();
  for (const open of [copies, asking]) if (open.open) open.close();
  const news = document.getElementById("news");
  if (news) say(news.textContent ?? "");
}

document.addEventListener("htmx:beforeSwap", (event) => {
  if (!(event instanceof CustomEvent) || event.detail.target !== wall || !event.detail.shouldSwap) return;
  event.detail.shouldSwap = false;
  take(event.detail.serverResponse);
});

/** @type {ReturnType<typeof setTimeout>|undefined} */
let waiting;

/** Something was done in another window, or in this one, whose answer shows it already.
 * @param {{standing?: string}} news how the kit stands since, when that is told */
function hear({ standing }) {
  clearTimeout(waiting);
  waiting = setTimeout(() => {
    const here = wall.querySelector(".side")?.getAttribute("data-standing");
    // What is being asked for may be what stood before this.
    if (!standing || standing !== here || shown.asking) refresh();
  }, ANSWER_MS);
}

/** The newest is asked for, unless a hand is at work here. */
async function refresh() {
  if (chooser.open || copies.open || asking.open) return;
  const { turn } = shown;
  shown.asking += 1;
  const answer = await ask(`/kits/${kit}/wall${location.search}`);
  const text = await answer.text();
  shown.asking -= 1;
  if (!answer.ok) return;
  // What was done here meanwhile may not be in it.
  if (turn === shown.turn) take(text);
  else refresh();
}

const trying = new Trying(kit, new URLSearchParams(location.search).get("colourway") ?? "day", hear);
const chooser = new SwatchChooser({ kit, take, trying });
const hues = startHues(asking, {
  kit,
  trying,
  take,
  written: (same) => {
    kept = same;
  },
});
orderByDragging((swatch, to) =>
  htmx.ajax("POST", `/kits/${kit}/swatches/${swatch}/move`, { target: "#wall", values: { to } }),
);
