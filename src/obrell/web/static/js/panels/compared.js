/** Looks side by side: fitted, at 1:1 or at 2:1, with their differences marked when that is asked for. */
import { byId } from "../ui/dom.js";
import { Newest } from "../ui/newest.js";

export class Compared {
  /**
   * @param {(how: string) => Promise<string|null>} fetched what to show; null when that was refused
   * @param {() => void} left what is done once it is closed
   */
  constructor(fetched, left) {
    this.panel = byId("compare");
    this.fetched = fetched;
    this.left = left;
    /** Enlargement and marks, as they were chosen last. */
    this.how = "";
    this.newest = new Newest();
  }

  /** @param {string} [how] */
  async open(how = this.how) {
    this.how = how;
    const text = await this.newest.of(this.fetched(how));
    if (text === null) return;
    this.panel.innerHTML = text;
    this.panel.hidden = false;
    this.panel.querySelector("button")?.focus();
  }

  hide() {
    this.panel.hidden = true;
  }

  close() {
    this.hide();
    this.left();
  }
}
