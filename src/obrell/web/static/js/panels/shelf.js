/**
 * The kit's shelf: materials and gradients kept on it, changed, and taken off.
 *
 * @typedef {import("../ui/types.js").Bench} Bench
 */
import { closest } from "../ui/dom.js";
import { ask, say, wordsOf } from "../ui/page.js";

/** Send something; what the server says to it. @param {string} path @param {object} body */
export async function post(path, body) {
  const headers = { "content-type": "application/json" };
  const answer = await ask(path, { method: "POST", headers, body: JSON.stringify(body) });
  return { ok: answer.ok, text: await answer.text() };
}

/** Which lengths of a material fit a part. @param {Bench} bench
 * @param {{material: string, [name: string]: unknown}} rule */
export async function ruled(bench, { material, ...change }) {
  await post(`/kits/${bench.kit}/materials/${material}/lengths`, change);
  await bench.refresh();
}

/** Taken off the shelf, and offered back. @param {Bench} bench @param {string} what @param {() => unknown} again */
export async function dropped(bench, what, again) {
  const { ok, text } = await post(`/kits/${bench.kit}/${what}/remove`, {});
  if (!ok) {
    bench.complain(wordsOf(text));
    return;
  }
  bench.offerBack(JSON.parse(text).said, async () => {
    await post(`/kits/${bench.kit}/undo`, {});
    again();
  });
}

/** Keep the open gradient in the kit, under a name. @param {Bench} bench @param {SubmitEvent} event */
export async function keepGradient(bench, event) {
  const form = closest(event, "[data-keep-gradient]", HTMLFormElement);
  if (!form) return;
  event.preventDefault();
  const body = { path: form.dataset.keepGradient, name: new FormData(form).get("name"), drawn: bench.stage.drawn };
  const { ok, text } = await post(`${bench.api.base}/gradients`, body);
  if (!ok) {
    bench.complain(wordsOf(text));
    return;
  }
  say(JSON.parse(text).said);
  form.reset();
}
