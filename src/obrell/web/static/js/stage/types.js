/**
 * What modules of the stage take from each other.
 *
 * @typedef {import("./plane.js").Part} Framed
 * @typedef {[number, number, number, number, number, number, boolean]} Knot place, both handles, whether it is smooth
 * @typedef {{closed: boolean, knots: Knot[]}} Contour
 * @typedef {[string, number, number, string, string]} Grip name, place, what it is called, what it is at
 * @typedef {"across"|"down"} Axis
 * @typedef {{id: string, axis: Axis, at: number, locked: boolean}} Guide
 * @typedef {{axis: Axis, at: number, words: string}} Snap
 * @typedef {{file: string, visible: boolean, lies: string, x: number, y: number, width: number,
 *   opacity: number}} Pinned
 *
 * @typedef {Framed & {name: string, within: string|null, clip: string|null, visible: boolean, locked: boolean,
 *   outline: string,
 *   extent: number, keeps: string[], holds?: "parts"|"pieces", contours?: Contour[],
 *   ends?: [number, number][], grips?: Grip[], picture?: number[]}} ScenePart
 * @typedef {{parts: ScenePart[], canvas: [number, number, number], light: number, lightHeight: number,
 *   lightHeights: [number, number], guides: Guide[], reference: Pinned|null,
 *   touch: string}} Scene where it is touched as path data, empty where that is its body
 *
 * @typedef {[number, number]} Point
 * @typedef {{part: string, effect: string, handles: Object<string, Point>, lines: [Point, Point][],
 *   stops: string[]}} Gradient as it lies on the canvas, its stops as colours
 * @typedef {{part: string, effect: string, from: Point, to: Point}} Fall of a shadow: the middle of its part, and where
 *   that would lie
 * @typedef {{seq: number, words?: string, frame: number[], box: number[], density: number, exact: boolean,
 *   scene?: Scene, snaps?: Snap[], gradient?: Gradient|null,
 *   fall?: Fall|null}} Frame what the server says with the pixels of one
 *
 * @typedef {import("../ui/types.js").Edit} Edit
 * @typedef {import("../ui/types.js").Bench} Bench
 * @typedef {import("./marks.js").Marks} Marks
 * @typedef {import("./stage.js").Stage} View
 *
 * @typedef {object} Held the keys that are held, or that arrow keys lead
 * @property {boolean} shiftKey
 * @property {boolean} altKey
 * @property {boolean} [led] by keys: nothing is drawn to what is near
 * @property {Point} [from] where the pointer took hold, logical px
 * @property {number} [clientX]
 * @property {number} [clientY]
 *
 * @typedef {(dx: number, dy: number, keys: Held) => Edit|null} Pull the edit that moving by logical px comes to
 * @typedef {object} Handle something that is taken hold of
 * @property {string} words what it is called
 * @property {() => string} value what it is at now
 * @property {Pull} edit
 * @property {() => void} [begin]
 * @property {(moved: boolean) => void} [after]
 */
export {};
