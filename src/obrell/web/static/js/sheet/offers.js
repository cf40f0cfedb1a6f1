/** Colours that the chooser offers: those used in the kit, off-whites and off-blacks, and the swatches. */
import { all, byId } from "../ui/dom.js";
import { ask } from "../ui/page.js";

/** Lightness, %, below which words on a colour are white. */
const DARK = 60;

/** @param {string[]} colours @param {HTMLElement} place @param {(colour: string) => void} take */
function offer(colours, place, take) {
  place.replaceChildren(
    ...colours.map((colour) => {
      const button = document.createElement("button");
      button.style.background = colour;
      button.title = colour;
      button.setAttribute("aria-label", colour);
      button.addEventListener("click", () => take(colour));
      return button;
    }),
  );
}

/** Off-whites and off-blacks say how light they are. @param {HTMLElement} place
 * @param {Object<string, number>} lightness of each colour, % */
function saying(place, lightness) {
  for (const button of all("button", place)) {
    const light = lightness[button.title] ?? 0;
    button.textContent = String(light);
    button.classList.toggle("dark", light < DARK);
    button.title = `${button.title}, ${light} % light`;
    button.setAttribute("aria-label", button.title);
  }
}

/**
 * Offer the colours of a kit, as it is looked at.
 *
 * @param {import("../ui/types.js").Bench} bench
 * @param {(colour: string) => void} take what a press on one does
 * @returns {Promise<import("./following.js").Swatch[]|null>} its swatches; null when the server is away
 */
export async function offered({ kit, stage }, take) {
  const answer = await ask(`/kits/${kit}/colours?colourway=${stage.colourway}`);
  if (!answer.ok) return null;
  const offers = await answer.json();
  offer(offers.used, byId("used"), take);
  offer([...offers.whites, ...offers.blacks], byId("neutral"), take);
  saying(byId("neutral"), offers.lightness);
  return offers.swatches;
}
