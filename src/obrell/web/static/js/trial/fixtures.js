/**
 * What the screen itself shows, words and plain buttons, while it is arranged: places that are pressed, and gone to by
 * keys.
 *
 * @typedef {import("./types.js").FixtureData} FixtureData
 */
import { all, byId } from "../ui/dom.js";

/** The plain button at a place of the panel. @param {FixtureData[]} fixtures @param {[number, number]} place */
export const buttonAt = (fixtures, [x, y]) =>
  fixtures.find((one) => one.plain && x >= one.x && x <= one.x + one.width && y >= one.y && y <= one.y + one.height);

/** @param {FixtureData} data */
function made({ id }) {
  const button = document.createElement("button");
  button.type = "button";
  button.id = `fixture-${id}`;
  button.className = "fixture";
  button.dataset.fixture = id;
  return button;
}

/** What is there already stays, and keeps the focus. @param {FixtureData[]} fixtures @param {string[]} chosen */
export function layFixtures(fixtures, chosen) {
  const layer = byId("fixtures");
  const wanted = fixtures.map(({ id }) => id);
  for (const old of all("[data-fixture]", layer)) if (!wanted.includes(old.dataset.fixture ?? "")) old.remove();
  for (const one of fixtures) {
    const button = document.getElementById(`fixture-${one.id}`) ?? layer.appendChild(made(one));
    button.style.left = `${one.x}px`;
    button.style.top = `${one.y}px`;
    button.style.width = `${one.width}px`;
    button.style.height = `${one.height}px`;
    button.classList.toggle("plain", one.plain);
    button.setAttribute("aria-label", one.name);
    button.setAttribute("aria-pressed", String(chosen.includes(one.id)));
  }
}
