/** What happened elsewhere: in other windows, and on earlier visits. */
import { say } from "../ui/page.js";

/**
 * Another window changed this control.
 *
 * @param {import("../ui/types.js").Bench} bench
 * @param {{gone?: boolean, by?: string, said?: string, whose?: string, paths?: string[], version?: number}} news
 *   the version is left out, or none, when something around the control changed
 */
function hear(bench, news) {
  if (news.gone) {
    bench.complain("This control was removed in another window. Undo on the Wall brings it back.");
    return;
  }
  const { api } = bench;
  if (news.by === api.window) return;
  const said = news.said ? `${news.said[0].toLowerCase()}${news.said.slice(1)}` : "";
  if (said && news.whose === api.window) say(`In another window, of what was done here: ${said}.`);
  else if (news.paths?.some((path) => api.mine.delete(path))) say(`Another window changed what you set: ${said}.`);
  // The version tells, not what it looks like: an edit and its taking back, heard while the edit is still being asked
  // for, would look like nothing.
  if (!news.version || news.version > bench.state.version) bench.refresh();
}

/** What the server and the stage tell. @param {import("../ui/types.js").Bench} bench */
export function listen(bench) {
  const { api, face, stage } = bench;
  /** @param {string} name @param {(detail: any) => void} told */
  const on = (name, told) => stage.addEventListener(name, (event) => told(/** @type {CustomEvent} */ (event).detail));
  api.have = () => face.told.shown.token;
  api.shown = () => bench.state.version;
  api.away = (count, words) => {
    [face.unsaved, face.why] = [count, words];
    face.showAway();
  };
  on("link", (linked) => {
    const again = linked && !face.linked;
    face.linked = linked;
    face.showAway();
    if (again) bench.refresh();
  });
  on("news", (news) => hear(bench, news));
  on("refused", (words) => bench.complain(words));
}

/** Edits that an earlier visit could not save. @param {import("../ui/types.js").Bench} bench */
export async function resume(bench) {
  const count = await bench.api.resume();
  if (!count) return;
  await bench.refresh();
  const words = count > 1 ? `${count} edits of your last visit are` : "The last edit of your last visit is";
  say(`${words} saved now.`);
}
