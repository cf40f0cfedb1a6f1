/** The panel taken as one page: all that can be seen of it is drawn first, and the link says so meanwhile. */
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
    // The server keeps what it has drawn: this time it only has to be taken.
    made = true;
    link.click();
  });
}
