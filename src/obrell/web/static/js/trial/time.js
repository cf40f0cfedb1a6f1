/** Time of a trial: as it goes, slower, or frame by frame. @typedef {import("../trial.js").Trial} Trial */
import { byId } from "../ui/dom.js";

/** How many times slower. */
const SLOWER = [1, 2, 4, 8];

/** @param {Trial} trial */
export function startTime(trial) {
  const slower = byId("slower");
  const frame = byId("frame");
  let at = 0;
  const tell = () => {
    const { paused } = trial.clock;
    slower.textContent = paused ? "Go on" : at ? `${SLOWER[at]}× slower` : "Real speed";
    slower.setAttribute("aria-pressed", String(!paused && at > 0));
    frame.setAttribute("aria-pressed", String(paused));
    trial.wake();
  };
  slower.addEventListener("click", () => {
    if (!trial.clock.paused) at = (at + 1) % SLOWER.length;
    trial.clock.run(1 / SLOWER[at]);
    tell();
  });
  frame.addEventListener("click", () => {
    trial.clock.step();
    tell();
  });
}
