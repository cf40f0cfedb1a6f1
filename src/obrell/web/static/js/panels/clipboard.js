/** Parts copied and pasted, within this browser and beyond; SVG text is pasted as parts too. */
import { say, typing } from "../ui/page.js";

/** Where the parts copied last are kept, for every control. */
export const COPIED = "obrell/clip";
const CLIP = "obrell-parts";
const SVG = /^\s*<(\?xml|svg|!--)/;

/** The parts that a text holds, with the swatches of their kit; null when it holds none. @param {string} text */
function clipIn(text) {
  try {
    const data = JSON.parse(text);
    return data?.kind === CLIP ? data : null;
  } catch {
    return null;
  }
}

/** @param {import("../ui/types.js").Bench} bench @param {ClipboardEvent} event */
function copy(bench, event) {
  const { clip } = bench.state;
  if (typing({ target: document.activeElement }) || !clip.length) return;
  event.preventDefault();
  const said = { parts: clip, origins: bench.state.swatches };
  localStorage.setItem(COPIED, JSON.stringify(said));
  event.clipboardData?.setData("text/plain", JSON.stringify({ kind: CLIP, ...said }));
  say(`Copied ${clip.length === 1 ? clip[0].name : `${clip.length} parts`}`);
}

/**
 * Parts go onto the canvas, whatever has the focus; any other text goes where something is typed.
 *
 * @param {import("../ui/types.js").Bench} bench
 * @param {ClipboardEvent} event
 */
function paste(bench, event) {
  const text = event.clipboardData?.getData("text/plain") ?? "";
  const clip = clipIn(text);
  if (clip) {
    event.preventDefault();
    pasteClip(bench, clip);
  } else if (typing(event)) return;
  else if (SVG.test(text)) {
    event.preventDefault();
    bench.bring(text, "Drawing");
  } else bench.complain("There are no parts and no SVG to paste: copy some first.");
}

/**
 * Parts with the swatches of the kit they come from, in front of all or instead of others.
 *
 * @param {import("../ui/types.js").Bench} bench
 * @param {{parts: object[], origins?: import("../ui/api.js").Origin[]}} clip
 * @param {string[]} [instead]
 */
export async function pasteClip(bench, { parts, origins = [] }, instead = []) {
  await bench.post({ kind: "paste", parts, origins, instead });
}

/** @param {import("../ui/types.js").Bench} bench */
export function startClipboard(bench) {
  document.addEventListener("copy", (event) => copy(bench, event));
  document.addEventListener("paste", (event) => paste(bench, event));
}
