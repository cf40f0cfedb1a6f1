/**
 * How a piece stands, for those who do not see it (WAI-ARIA 1.2), and where keys go.
 *
 * @typedef {import("./machine.js").Piece & {role: string, name: string, unit: string,
 *   looks: Object<string, string>}} Told
 */
import { written } from "./machine.js";

/** @param {HTMLElement} element @param {Told} data @param {import("./machine.js").Now} now */
export function tellStanding(element, data, now) {
  const { role, name, unit, scale, looks } = data;
  // A state for it shows where keys go; without one, a frame does.
  element.classList.toggle("keyed", now.focused && looks["//focus"] === looks["//"]);
  if (role === "switch" || role === "radio") element.setAttribute("aria-checked", String(now.on));
  if (role === "img") element.setAttribute("aria-label", `${name}: ${now.on ? "on" : "off"}`);
  if (!scale || !["slider", "meter"].includes(role)) return;
  element.setAttribute("aria-valuemin", String(Math.min(scale.start, scale.end)));
  element.setAttribute("aria-valuemax", String(Math.max(scale.start, scale.end)));
  element.setAttribute("aria-valuenow", written(now.number));
  element.setAttribute("aria-valuetext", `${written(now.number)} ${unit}`.trim());
}
