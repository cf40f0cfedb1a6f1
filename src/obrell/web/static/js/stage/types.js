/**
 * What modules of the stage take from each other.
 *
 * @typedef {import("./plane.js").Part} Framed
 * @typedef {Framed & {within: string|null, visible: boolean, locked: boolean, outline: string,
 *   holds?: "parts"|"pieces"}} ScenePart
 * @typedef {{parts: ScenePart[], canvas: number[]}} Scene
 * @typedef {{state: {scene: Scene, selected: string[]}, partOf: (id: string|null) => ScenePart|undefined}} Bench
 * @typedef {{element: HTMLElement, zoom: number, x: number, y: number, ratio: number}} View
 * @typedef {{bench: Bench, stage: View, inner: string|null}} Marks
 */
export {};
