import { svg } from "../ui/svg.js";

/** Where the control is touched, while that is unfolded in the sheet, in two tones.
 * @param {import("./types.js").Marks} marks */
export function drawTouch({ stage, now, svg: place }) {
  if (!document.querySelector("#touch[open]") || !now.touch) return;
  const [x, y] = stage.toScreen(0, 0);
  const drawn = { d: now.touch, transform: `translate(${x} ${y}) scale(${stage.zoom})` };
  place.append(svg("path", { class: "touch-under", ...drawn }), svg("path", { class: "touch", ...drawn }));
}
