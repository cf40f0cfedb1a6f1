/** A colour taken from the art on the Wall: the next press on a picture takes what is seen there. */
import { closest } from "../ui/dom.js";
import { say } from "../ui/page.js";

const OPAQUE = 255;

/** The colour of a picture where it is pressed. @param {HTMLImageElement} picture @param {MouseEvent} event
 * @returns {string|null} nothing where it is clear */
function colourAt(picture, event) {
  const canvas = document.createElement("canvas");
  [canvas.width, canvas.height] = [picture.naturalWidth, picture.naturalHeight];
  const context = canvas.getContext("2d");
  if (!context) return null;
  context.drawImage(picture, 0, 0);
  const box = picture.getBoundingClientRect();
  const x = Math.floor(((event.clientX - box.left) / box.width) * canvas.width);
  const y = Math.floor(((event.clientY - box.top) / box.height) * canvas.height);
  const [r, g, b, a] = context.getImageData(x, y, 1, 1).data;
  return a === OPAQUE ? `#${[r, g, b].map((value) => value.toString(16).padStart(2, "0")).join("")}` : null;
}

/**
 * Ask for a press on the Wall.
 *
 * @param {HTMLElement} wall @returns {Promise<string|null>} the colour; nothing when it was given up
 */
export function colourFromArt(wall) {
  say("Press the art where its colour is; Escape gives up.");
  wall.classList.add("taking");
  return new Promise((resolve) => {
    const end = new AbortController();
    /** @param {string|null} colour */
    const done = (colour) => {
      end.abort();
      wall.classList.remove("taking");
      resolve(colour);
    };
    const { signal } = end;
    /** @param {MouseEvent} event */
    const press = (event) => {
      event.preventDefault();
      event.stopPropagation();
      const picture = closest(event, ".art img", HTMLImageElement);
      const colour = picture && colourAt(picture, event);
      if (colour) done(colour);
      else say("There is no colour: press where the art is solid.");
    };
    wall.addEventListener("click", press, { signal, capture: true });
    document.addEventListener("keydown", ({ key }) => key === "Escape" && done(null), { signal, capture: true });
  });
}
