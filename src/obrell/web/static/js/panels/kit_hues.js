/** The sheet of hues for several controls: asked for anew when others are ticked, read when a hue is chosen. */
import { all } from "../ui/dom.js";
import { ask, wordsOf } from "../ui/page.js";

/** What a form says, as a query; lists that are empty are said too. @param {HTMLFormElement} form */
function said(form) {
  const query = new URLSearchParams([...new FormData(form)].map(([name, value]) => [name, String(value)]));
  for (const name of ["control", "group"]) if (!query.has(name)) query.set(name, "");
  return query;
}

/** What the sheet of hues is asked for by. @param {HTMLFormElement} form */
function asked(form) {
  const query = said(form);
  query.delete("to_hue");
  return query.toString();
}

/** @param {HTMLElement} place @param {HTMLFormElement} form @param {() => void} written */
async function again(place, form, written) {
  const query = asked(form);
  const answer = await ask(`${form.dataset.again}?${query}`);
  const text = await answer.text();
  // What was ticked meanwhile is asked for by itself.
  if (asked(form) !== query || !place.contains(form)) return;
  if (answer.ok) {
    place.innerHTML = text;
    written();
  } else form.querySelector(".fault")?.replaceChildren(wordsOf(text));
}

/** What a hue does to what is read. @param {HTMLFormElement} form */
async function read(form) {
  const query = said(form);
  const answer = await ask(`${form.dataset.again}/contrast?${query}`);
  const text = await answer.text();
  const place = form.querySelector(".kit-contrasts");
  if (place && answer.ok && said(form).get("to_hue") === query.get("to_hue")) place.innerHTML = text;
}

/** The button that was pressed says that it is at work. @param {ParentNode} place @param {boolean} on */
function wait(place, on) {
  for (const button of all("[data-waits]", place)) {
    if (!(button instanceof HTMLButtonElement)) continue;
    if (on) button.dataset.words = button.textContent ?? "";
    button.textContent = (on ? button.dataset.waits : button.dataset.words) ?? button.textContent;
    button.disabled = on;
  }
}

/** @param {HTMLElement} place of the form @param {() => void} written after it was written anew */
export function startHues(place, written) {
  place.addEventListener("change", ({ target }) => {
    const form = target instanceof HTMLInputElement ? target.form : null;
    if (!form?.dataset.again || !(target instanceof HTMLInputElement)) return;
    if ("again" in target.dataset) again(place, form, written);
    else if (target.name === "to_hue") read(form);
  });
  place.addEventListener("htmx:beforeRequest", () => wait(place, true));
  place.addEventListener("htmx:afterRequest", () => wait(place, false));
}
