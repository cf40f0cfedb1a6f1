/** Pictures that the server rendered, by their addresses: those that are wanted now first, those for later after. */

/** Pictures for later on their way at the same time: what is wanted now has to find room beside them. */
const AT_ONCE = 1;
const MOST_BYTES = 256e6;

export class Pictures {
  constructor() {
    /** @type {Map<string, ImageBitmap>} */
    this.kept = new Map();
    /** @type {Map<string, Promise<ImageBitmap>>} */
    this.coming = new Map();
    /** @type {string[]} */
    this.later = [];
    this.preparing = 0;
    this.urgent = 0;
    this.bytes = 0;
  }

  /** One that is here. @param {string} address */
  ready(address) {
    const found = this.kept.get(address);
    if (found) {
      this.kept.delete(address);
      this.kept.set(address, found);
    }
    return found;
  }

  /** One that is wanted now; what is prepared for later waits for it.
   * @param {string} address @returns {Promise<ImageBitmap>} */
  async load(address) {
    this.urgent += 1;
    try {
      return await this.#get(address);
    } finally {
      this.urgent -= 1;
      this.#next();
    }
  }

  /** @param {string} address @returns {Promise<ImageBitmap>} */
  #get(address) {
    const here = this.ready(address);
    if (here) return Promise.resolve(here);
    const coming = this.coming.get(address) ?? this.#fetch(address);
    this.coming.set(address, coming);
    return coming;
  }

  /** @param {string} address */
  async #fetch(address) {
    try {
      const answer = await fetch(address, { headers: { accept: "image/png" } });
      if (!answer.ok) throw new Error(`${answer.status} for ${address}`);
      const picture = await createImageBitmap(await answer.blob());
      this.#keep(address, picture);
      return picture;
    } finally {
      this.coming.delete(address);
    }
  }

  /** @param {string} address @param {ImageBitmap} picture */
  #keep(address, picture) {
    this.kept.set(address, picture);
    this.bytes += picture.width * picture.height * 4;
    for (const [oldest, one] of this.kept) {
      if (this.bytes <= MOST_BYTES || oldest === address) break;
      this.bytes -= one.width * one.height * 4;
      this.kept.delete(oldest);
    }
  }

  /** What may be wanted next, the likeliest first; it comes before what was asked for so earlier.
   * @param {string[]} addresses */
  prepare(addresses) {
    const fresh = addresses.filter((one) => !this.kept.has(one) && !this.coming.has(one));
    this.later = [...fresh, ...this.later.filter((one) => !fresh.includes(one))];
    this.#next();
  }

  async #next() {
    if (this.preparing >= AT_ONCE || this.urgent) return;
    const address = this.later.shift();
    if (address === undefined) return;
    this.preparing += 1;
    await this.#get(address).catch(() => {});
    this.preparing -= 1;
    this.#next();
  }
}
