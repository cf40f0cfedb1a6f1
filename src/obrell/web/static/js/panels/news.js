/** What happened elsewhere: in other windows, and on earlier visits. */
import { say } from "../ui/page.js";

/**
 * Another window changed this control.
 *
 * @param {import("../ui/types.js").Bench} bench
 * @param {{gone?: boolean, by?: string, said?: string, whose?: string, paths?: string[], news?: string}} news
 */
export function hear(bench, news) {
  if (news.gone) {
    bench.complain("This control was removed in another window. Undo on the Wall brings it back.");
    return;
  }
  const { api } = bench;
  if (news.by === api.window) return;
  const said = news.said ? `${news.said[0].toLowerCase()}${news.said.slice(1)}` : "";
  if (said && news.whose === api.window) say(`In another window, of what was done here: ${said}.`);
  else if (news.paths?.some((path) => api.mine.delete(path))) say(`Another window changed what you set: ${said}.`);
  if (news.news !== bench.state.hash) bench.refresh();
}

/** Edits that an earlier visit could not save. @param {import("../ui/types.js").Bench} bench */
export async function resume(bench) {
  const count = await bench.api.resume();
  if (!count) return;
  await bench.refresh();
  const words = count > 1 ? `${count} edits of your last visit are` : "The last edit of your last visit is";
  say(`${words} saved now.`);
}
