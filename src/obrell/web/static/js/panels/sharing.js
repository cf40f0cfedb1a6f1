import { ask, JSON_TYPE, say, wordsOf } from "../ui/page.js";

/** A state made for the controls that are ticked. @param {import("../ui/types.js").Bench} bench
 * @param {HTMLFormElement} form @returns {Promise<string>} what keeps it from that; empty where it is done */
export async function share(bench, form) {
  const onto = new FormData(form).getAll("onto");
  const body = JSON.stringify({ state: form.dataset.state, onto });
  const answer = await ask(`${bench.api.base}/share`, { method: "POST", body, headers: JSON_TYPE });
  const text = await answer.text();
  if (!answer.ok) return wordsOf(text);
  say(`${JSON.parse(text).said}.`);
  return "";
}
