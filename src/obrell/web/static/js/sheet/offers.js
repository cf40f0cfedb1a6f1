/** Colours that the chooser offers: those used in the kit, off-whites and off-blacks, and the swatches. */
import { byId } from "../ui/dom.js";
import { ask } from "../ui/page.js";

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
  return offers.swatches;
}
