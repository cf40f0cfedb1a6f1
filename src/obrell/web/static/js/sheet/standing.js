/** Where the colour chooser stands. */

const WIDE_PX = 290;
const AIR_PX = 8;
/** Of the column that it can cover. */
const LEAST_PX = 200;

/**
 * On the Bench over the column at the right, so that neither the art nor the sheet is covered; elsewhere below the
 * colour if there is room, else as low as fits.
 *
 * @param {HTMLElement} box @param {HTMLElement} slot
 */
export function stand(box, slot) {
  const column = document.getElementById("proof")?.getBoundingClientRect();
  const over = column !== undefined && column.width >= LEAST_PX && column.left > innerWidth / 2;
  box.classList.toggle("over-column", over);
  const at = slot.getBoundingClientRect();
  const [left, top] = over ? [column.left, column.top] : [at.left, at.bottom + 6];
  box.style.left = `${over ? left : Math.max(AIR_PX, Math.min(left, innerWidth - WIDE_PX))}px`;
  box.style.top = `${Math.max(46, Math.min(top, innerHeight - box.offsetHeight - AIR_PX))}px`;
  box.style.width = over ? `${column.width}px` : "";
}
