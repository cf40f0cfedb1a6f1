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
  next.decode().catch(() => {}).then(() => {
    if (awaited.get(image) !== src) return;
    awaited.delete(image);
    image.srcset = set;
    image.setAttribute("src", address);
  });
}

/** The pictures of a block by where they stand, and which one of those they are. @returns {Map<string, HTMLImageElement>} */
export function picturesIn(place) {
  const found = new Map();
  const counts = new Map();
  for (const node of place.querySelectorAll("img")) {
    const where = `${node.closest("[data-part]")?.dataset.part || node.closest("ol, figure")?.className} ${node.className}`;
    const count = counts.get(where) || 0;
    counts.set(where, count + 1);
    found.set(`${where} ${count}`, node);
  }
  return found;
}

/** Put the elements that were seen in place of those written anew. @param {Map<string, HTMLImageElement>} before */
export function keepPictures(place, before) {
  for (const [where, node] of picturesIn(place)) {
    const old = before.get(where);
    if (!old?.complete || !old.naturalWidth) continue;
    for (const { name, value } of node.attributes) if (!name.startsWith("src")) old.setAttribute(name, value);
    node.replaceWith(old);
    showWhenReady(old, node.getAttribute("src"), node.srcset);
  }
}
