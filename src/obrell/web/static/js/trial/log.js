/** What happened, the newest first. */
import { byId } from "../ui/dom.js";
import { say } from "../ui/page.js";

const MOST = 400;

export class Log {
  constructor() {
    this.list = byId("log");
    byId("copy-log").addEventListener("click", () => this.#copy());
  }

  /** @param {number} time ms @param {string} words */
  add(time, words) {
    const line = document.createElement("li");
    const when = document.createElement("time");
    when.textContent = `${(time / 1000).toFixed(1)} s`;
    line.append(when, ` ${words}`);
    this.list.prepend(line);
    while (this.list.children.length > MOST) this.list.lastElementChild?.remove();
  }

  async #copy() {
    const lines = [...this.list.children].map((line) => line.textContent ?? "").reverse();
    try {
      await navigator.clipboard.writeText(lines.join("\n"));
      say(lines.length ? `Copied ${lines.length} lines.` : "Nothing has happened yet.");
    } catch {
      say("This window may not copy.");
    }
  }
}
