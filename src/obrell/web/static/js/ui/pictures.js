/** Pictures that change: what was seen stays until the new one can be. */

/** What each element waits for. @type {WeakMap<HTMLImageElement, string>} */
const awaited = new WeakMap();

/**
 * Show another picture once it is there.
 *
 * @param {HTMLImageElement} image
 * @param {string} address
 * @param {string} [set] addresses by density
 */
export function showWhenReady(image, address, set = "") {
  const src = new URL(address, location.href).href;
  if ((awaited.get(image) ?? image.src) === src) return;
  awaited.set(image, src);
  const next = Object.assign(new Image(), { srcset: set, src });
  next
    .decode()
    .catch(() => {})
    .then(() => {
      if (awaited.get(image) !== src) return;
      awaited.delete(image);
      image.srcset = set;
      image.setAttribute("src", address);
    });
}
