/** What panels bring to the Bench: until they have, it does nothing. */
export class Brought {
  constructor() {
    /** Do what a word says; whether it says anything. @type {(node: HTMLElement) => boolean} */
    this.act = () => false;
    /** @type {(name: string) => void} */
    this.do = () => {};
    this.openFinder = () => {};
    this.openLooks = () => {};
    /** @type {(name: string) => void} */
    this.openAside = () => {};
    /** @type {(path?: string) => void} */
    this.openIcons = () => {};
    /** @type {(use?: import("../ui/api.js").PictureUse, path?: string) => void} */
    this.choosePicture = () => {};
    this.styleLetters = () => {};
    /** Put the parts of an SVG text in. @type {(text: string, name: string) => void} */
    this.bring = () => {};
  }
}
