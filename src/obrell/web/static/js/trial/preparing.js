/**
 * What may be seen next is asked for ahead, so that a press answers at once.
 *
 * @typedef {import("../trial.js").Trial} Trial
 * @typedef {import("./machine.js").Now} Now
 */

const FIRST = ["enter", "press"];
const ALL = ["enter", "leave", "press", "release", "focus", "blur"];
/** How many events ahead is looked at what the hand is at, and at all else. */
const AHEAD = { near: 3, far: 2 };

/**
 * The frames of whatever can happen to a piece soon; of one that the hand is at, more of them.
 *
 * @param {Trial} trial @param {string} id @param {boolean} near
 */
export function prepare(trial, id, near) {
  const [piece, placed] = [trial.parts[id], trial.placed.get(id)];
  if (!piece?.touched || !placed || piece.disabled) return;
  // Stills come before frames: there is one for each of many.
  /** @type {Set<string>} */
  const stills = new Set();
  /** @type {Set<string>} */
  const strips = new Set();
  let reached = [trial.standing[id]];
  for (let ahead = 0; ahead < (near ? AHEAD.near : AHEAD.far); ahead += 1) {
    const steps = reached.flatMap((now) => following(trial, id, now, near ? ALL : FIRST));
    for (const { from, to } of steps) {
      if (from === to) continue;
      stills.add(placed.shown.still(to));
      if (!placed.shown.timing(from, to)[1]) continue;
      strips.add(placed.shown.strip(from, to));
      // The way back is as near as the way there.
      strips.add(placed.shown.strip(to, from));
    }
    reached = steps.map(({ after }) => after);
  }
  trial.pictures.prepare([...stills, ...strips]);
}

/**
 * What can come of some events: how it stands, and the states that are seen before and after.
 *
 * @param {Trial} trial @param {string} id @param {Now} now @param {string[]} kinds
 */
function following(trial, id, now, kinds) {
  const placed = trial.placed.get(id);
  const steps = kinds.map((kind) => {
    const { now: after } = trial.machine.step(trial.parts[id], now, { time: trial.clock.now, kind });
    return { after, from: placed?.stateOf(now) ?? "rest", to: placed?.stateOf(after) ?? "rest" };
  });
  return steps.filter(({ after, from, to }) => from !== to || after.phase !== now.phase);
}
