/** What every page does: words for failures, the ground switch, menus, undo keys. */
import { all, byId, closest } from "./dom.js";

/** Of what is sent as JSON. */
export const JSON_TYPE = { "content-type": "application/json" };
const GROUND = "obrell/looked-at-on";

/**
 * Write words into a line of the bar; all of them show on hovering, when there are too many.
 *
 * @param {HTMLElement} place
 * @param {string} words
 */
export function tell(place, words) {
  const line = document.createElement("span");
  line.textContent = words;
  place.replaceChildren(line);
  place.title = words;
}

/** @type {ReturnType<typeof setTimeout>|undefined} */
let timer;

/**
 * Told for a moment in the bar.
 *
 * @param {string} words
 * @param {{words: string, act: () => void}} [offer] something that can be done about it there and then
 */
export function say(words, offer) {
  const place = byId("said");
  tell(place, words);
  if (offer) {
    const button = document.createElement("button");
    button.textContent = offer.words;
    button.addEventListener("click", () => {
      place.classList.remove("on", "offers");
      offer.act();
    });
    place.append(button);
  }
  place.classList.add("on");
  place.classList.toggle("offers", Boolean(offer));
  clearTimeout(timer);
  timer = setTimeout(() => place.classList.remove("on", "offers"), offer ? 7000 : 3600);
}

/** What was offered no longer stands: something else was done since. */
export function retract() {
  const place = byId("said");
  if (place.classList.contains("offers")) place.classList.remove("on", "offers");
}

/**
 * A request whose failure is an answer too: when the server is away, one that is not ok.
 *
 * @param {string} address
 * @param {RequestInit} [options]
 * @returns {Promise<Response>}
 */
export async function ask(address, options) {
  try {
    return await fetch(address, options);
  } catch {
    return new Response("The server is away.", { status: 503 });
  }
}

/** @param {string} words Shown until something else happens; empty hides it. */
export function trouble(words) {
  const place = byId("trouble");
  tell(place, words);
  place.hidden = !words;
}

/** @param {string} text what the server said @returns {string} what went wrong, in words */
export function wordsOf(text) {
  try {
    return JSON.parse(text).words || "That did not work.";
  } catch {
    return text.length < 300 && text ? text : "That did not work.";
  }
}

/** What the controls on the page stand on themselves; elements may name their own. @param {string} [address] */
export function ownGrounds(address) {
  if (address) document.documentElement.style.setProperty("--own-ground", `url("${address}")`);
  for (const node of all("[data-own-ground]")) {
    node.style.setProperty("--own-ground", `url("${node.dataset.ownGround}")`);
  }
}

/** One control stands on this. @param {string} ground */
export function stand(ground) {
  document.body.dataset.groundNow = ground;
  press(ground);
}

/** @param {string} ground */
function press(ground) {
  for (const button of all(".ground")) {
    button.setAttribute("aria-pressed", String(button.dataset.ground === ground));
  }
}

/** Where there are several controls, each stands on its own ground, or all on one that is chosen for looking. */
export function showGround() {
  ownGrounds();
  const several = document.querySelector(".ground[data-ground='']");
  if (!several) return;
  let ground = "";
  try {
    ground = localStorage.getItem(GROUND) || "";
  } catch {
    /* storage may be off: each on its own */
  }
  press(ground);
  for (const node of all("[data-stands]")) node.dataset.groundNow = ground || node.dataset.stands;
}

document.addEventListener("click", (event) => {
  const ground = closest(event, ".ground");
  if (ground && document.querySelector(".ground[data-ground='']")) {
    try {
      localStorage.setItem(GROUND, ground.dataset.ground ?? "");
    } catch {
      /* storage may be off: only this page then */
    }
    showGround();
  }
  for (const menu of all("details.menu[open]")) {
    if (menu instanceof HTMLDetailsElement && !menu.contains(/** @type {Node} */ (event.target))) menu.open = false;
  }
});

/** What htmx says of a request: who asked, and the answer. @param {Event} event */
const asked = (event) => (event instanceof CustomEvent ? event.detail : {});

/** Where a form says what is wrong with it. @param {Event} event @returns {Element|null|undefined} */
const faultOf = (event) => asked(event).elt?.closest("form")?.querySelector(".fault");

document.addEventListener("htmx:responseError", (event) => {
  const words = wordsOf(asked(event).xhr.responseText);
  const place = faultOf(event);
  if (place) place.textContent = words;
  else trouble(words);
});
document.addEventListener("htmx:sendError", () => {
  trouble("The server is away. Nothing is lost; try again when it is back.");
});
document.addEventListener("htmx:beforeRequest", (event) => {
  trouble("");
  const place = faultOf(event);
  if (place) place.textContent = "";
});
document.addEventListener("htmx:afterSwap", showGround);
// A file that was taken can be chosen again, after it was changed elsewhere.
document.addEventListener("htmx:afterRequest", (event) => {
  const { elt } = asked(event);
  if (!(elt instanceof Element)) return;
  for (const field of elt.querySelectorAll("input[type=file]"))
    if (field instanceof HTMLInputElement) field.value = "";
  if (elt instanceof HTMLInputElement && elt.type === "file") elt.value = "";
});

/** @param {KeyboardEvent} event @returns {"undo"|"redo"|""} the platform's own keys */
export function undoKey(event) {
  if (!(event.ctrlKey || event.metaKey) || event.altKey) return "";
  const key = event.key.toLowerCase();
  if (key === "z") return event.shiftKey ? "redo" : "undo";
  return key === "y" ? "redo" : "";
}

/** Fields that letters are typed into. */
const TYPED = "input:not([type=range], [type=checkbox], [type=radio]), textarea";
/** A choice whose list is unfolded, where the browser can say so. */
const OPEN = CSS.supports("selector(:open)") ? ":open" : ":not(*)";
/** Keys that a choice takes for itself; letters are commands there too, and choose nothing. */
const CHOOSES = ["ArrowUp", "ArrowDown", "ArrowLeft", "ArrowRight", "Home", "End", "PageUp", "PageDown", "Enter", " "];

/** @param {Event|{target: Element|null}} event @returns {boolean} whether it happens in a field that takes text */
export function typing(event) {
  return event.target instanceof Element && Boolean(closest(event, TYPED));
}

/** @param {KeyboardEvent} event @returns {boolean} whether a choice that has the focus takes it */
export function choosing(event) {
  const choice = closest(event, "select");
  return choice !== null && (CHOOSES.includes(event.key) || choice.matches(OPEN));
}

/** The sheet of keys, from its beginning. */
export function showKeys() {
  const sheet = document.getElementById("keys");
  if (!(sheet instanceof HTMLDialogElement) || sheet.open) return;
  sheet.showModal();
  sheet.focus();
  sheet.scrollTop = 0;
}

document.addEventListener("keydown", (event) => {
  if (event.key !== "?" || typing(event) || event.ctrlKey || event.metaKey) return;
  event.preventDefault();
  showKeys();
});

if (!document.querySelector(".bench")) {
  document.addEventListener("keydown", (event) => {
    const way = undoKey(event);
    if (way && !typing(event)) {
      event.preventDefault();
      byId(way)?.click();
    }
  });
}
showGround();
