/** Where the colour chooser stands. */

const WIDE_PX = 290;
const AIR_PX = 8;

/**
 * Beside the stops of a ramp, below any other colour if there is room, else as low as fits.
 *
 * @param {HTMLElement} box @param {HTMLElement} slot
 */
export function stand(box, slot) {
  const at = slot.getBoundingClientRect();
  const ramp = slot.closest(".ramp")?.getBoundingClientRect();
  const [left, top] = ramp ? [ramp.right + 2 * AIR_PX, ramp.top] : [at.left, at.bottom + 6];
  box.style.left = `${Math.max(AIR_PX, Math.min(left, innerWidth - WIDE_PX))}px`;
  box.style.top = `${Math.max(46, Math.min(top, innerHeight - box.offsetHeight - AIR_PX))}px`;
}
