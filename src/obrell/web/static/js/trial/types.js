/**
 * What the modules of Trial hand each other.
 *
 * @typedef {import("./machine.js").Piece & {id: string, name: string, control: string, words: string, x: number,
 *   y: number, width: number, height: number, role: string, touched: boolean, picture: string, touch: string,
 *   body?: [number, number, number, number],
 *   looks: Object<string, string>, timings: Object<string, [number, number]>, now: import("./machine.js").Now,
 *   reading: string, unit: string, numbers: Object<string, number>, gone?: string}} PieceData
 *
 * @typedef {{times: number[], values: number[], period: number, even: boolean}} Series
 * @typedef {{placement: string, when: string, than: number, reading: string}} Move
 * @typedef {{id: string, name: string, unit: string, series: Series, moves: Move[]}} SourceData
 * @typedef {{id: string, x: number, y: number, width: number, height: number, name: string,
 *   plain: boolean}} FixtureData plain ones are buttons, in whose place a control can be put
 *
 * @typedef {{id: string, name: string, width: number, height: number, density: number, bezel: boolean, ground: string,
 *   pieces: PieceData[], sources: SourceData[], fixtures: FixtureData[],
 *   gap: {start: [number, number], end: [number, number], px: number}|null}} Screen
 * @typedef {{screen: Screen, sheet: {head: string, foot: string}, said: string, undo: boolean, redo: boolean,
 *   fresh?: string[], removed?: boolean}} Answer
 */
export {};
