/**
 * What modules take from the Bench, wherever they are.
 *
 * @typedef {import("./api.js").State} State
 * @typedef {{kind: string, path?: string, changes?: {path: string, value: unknown}[], [name: string]: unknown}} Edit
 *
 * @typedef {object} Stage
 * @property {HTMLElement} element
 * @property {number} zoom
 * @property {number} exact the density whose true pixels are shown; 0 when sharp
 * @property {boolean} [apart] every part in a colour of its own
 * @property {(width: number, height: number, zoom?: number) => void} centre
 * @property {(x: number, y: number, zoom?: number) => void} bring
 * @property {(zoom: number, x: number, y: number) => void} zoomAbout
 * @property {(edit: object|null) => void} preview
 * @property {() => void} request
 * @property {EventTarget["addEventListener"]} addEventListener
 *
 * @typedef {object} Points
 * @property {Set<string>} chosen
 * @property {string[]} list
 * @property {(points: string[]) => void} choose
 * @property {(name: string) => void} command
 * @property {(dx: number, dy: number) => Edit} moved
 *
 * @typedef {object} Marks
 * @property {string} tool
 * @property {string|null} [inner]
 * @property {string} [cropping]
 * @property {boolean} [panning]
 * @property {boolean} [loose]
 * @property {(string|undefined)[]} kinds
 * @property {Points} points
 * @property {{lead: (dx: number, dy: number) => void, key: (key: string) => void}} pen
 * @property {() => void} draw
 * @property {() => number[]|null} middle
 * @property {(tool: string, values?: object) => void} take
 * @property {(id: string) => void} crop
 * @property {(id: string|null|undefined) => void} enter
 *
 * @typedef {object} Bench
 * @property {HTMLElement} element
 * @property {string} kit
 * @property {State} state
 * @property {Stage} stage
 * @property {Marks} marks
 * @property {{open: boolean}} chooser
 * @property {boolean} [swapping] whether the page is being written anew
 * @property {import("./api.js").Api} api
 * @property {import("./api.js").Selection} selection
 * @property {(id: string|null|undefined) => {within: string|null}|undefined} partOf
 * @property {(edit: Edit) => Promise<State|null>} post
 * @property {(path: string, value: unknown) => Promise<State|null>} set
 * @property {(path: string) => object} scope
 * @property {(parcel: object) => Promise<State>} read
 * @property {(state: State) => void} show
 * @property {(ids: string[], effect?: string) => void} select
 * @property {(way: string) => void} step
 * @property {() => Promise<void>} refresh
 * @property {(on: boolean) => void} hold
 * @property {(words: string) => void} complain
 * @property {(node: HTMLElement) => boolean} act
 * @property {(name: string) => void} do
 * @property {() => void} openFinder
 * @property {() => void} openLooks
 * @property {(text: string, name: string) => void} bring
 */
export {};
