/** The link that downloads the panel as a page. The server draws that first; until it has, the link says so. */
import { ask, trouble, wordsOf } from "../ui/page.js";

/** @param {HTMLAnchorElement} link that takes the page */
export function startTaking(link) {
  const words = link.textContent ?? "";
  let made = false;
  link.addEventListener("click", async (event) => {
    if (made) {
      made = false;
      return;
    }
    event.preventDefault();
    if (link.ariaBusy === "true") return;
    trouble("");
    link.style.minWidth = `${link.offsetWidth}px`;
    link.ariaBusy = "true";
    link.textContent = "Drawing the page …";
    const answer = await ask(link.href);
    const text = await answer.text();
    link.textContent = words;
    link.ariaBusy = "false";
    if (!answer.ok) {
      trouble(wordsOf(text));
      return;
    }
    // The server has kept the page, so this press downloads it at once.
    made = true;
    link.click();
  });
}
