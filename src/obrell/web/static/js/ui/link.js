/**
 * The live socket: wishes go out, frames and news come in; when it is lost it is opened again.
 *
 * @typedef {object} Hears
 * @property {() => void} opened
 * @property {() => void} closed
 * @property {(news: any) => void} news
 * @property {(header: any, data: ArrayBuffer, offset: number) => void} frame what is said of it, and where its pixels
 *   begin
 */

const RETRY_MS = 700;

export class Link {
  /** @param {string} address @param {Hears} hears */
  constructor(address, hears) {
    this.address = address;
    this.hears = hears;
    this.socket = this.#connected();
  }

  get open() {
    return this.socket.readyState === WebSocket.OPEN;
  }

  /** @param {object} wish */
  send(wish) {
    this.socket.send(JSON.stringify(wish));
  }

  #connected() {
    const socket = new WebSocket(this.address);
    socket.binaryType = "arraybuffer";
    socket.addEventListener("open", () => this.hears.opened());
    socket.addEventListener("message", ({ data }) => {
      if (typeof data === "string") this.hears.news(JSON.parse(data));
      else this.#frame(data);
    });
    socket.addEventListener("close", () => {
      this.hears.closed();
      setTimeout(() => {
        this.socket = this.#connected();
      }, RETRY_MS);
    });
    return socket;
  }

  /** @param {ArrayBuffer} data the length of a header, the header, pixels */
  #frame(data) {
    const length = new DataView(data).getUint32(0, true);
    const header = JSON.parse(new TextDecoder().decode(new Uint8Array(data, 4, length)));
    this.hears.frame(header, data, 4 + length);
  }
}
