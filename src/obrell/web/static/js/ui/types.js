/**
 * What modules take from the Bench, wherever they are.
 *
 * @typedef {import("./api.js").State} State
 * @typedef {{kind: string, path?: string, changes?: {path: string, value: unknown}[], [name: string]: unknown}} Edit
 * @typedef {import("../stage/types.js").ScenePart} ScenePart
 *
 * What live values need of what they stand beside.
 *
 * @typedef {object} Sheeted
 * @property {HTMLElement} element
 * @property {{selected: string[], scene: {light: number}}} state
 * @property {string} anchor the place of a frame that is shown, as two shares; empty for the middle
 * @property {{preview: (edit: Edit|null) => void, request: () => void}} stage
 * @property {(edit: Edit) => Promise<unknown>} send an edit and show what came of it
 * @property {(path: string, value: unknown) => Promise<unknown>} set
 * @property {(on: boolean) => void} hold
 * @property {(words: string) => void} complain
 * @property {() => Promise<void>} refresh
 * @property {boolean} [swapping] whether the page is being written anew
 * @property {{held: boolean}} holding whether the sheet stays as it is meanwhile
 *
 * @typedef {object} Bench
 * @property {HTMLElement} element
 * @property {string} kit
 * @property {State} state
 * @property {import("../stage/stage.js").Stage} stage
 * @property {import("../stage/marks.js").Marks} marks
 * @property {{open: boolean, keep: () => Promise<void>}} chooser
 * @property {import("../panels/used.js").Used} used the look that a part was given last
 * @property {boolean} [swapping] whether the page is being written anew
 * @property {{held: boolean}} holding whether the sheet stays as it is meanwhile
 * @property {string} anchor the place of a frame that is shown, as two shares; empty for the middle
 * @property {string} copyNumber the chosen copy of a repeat
 * @property {{parts: string, at: string}} near where the art was pressed last, and which parts were selected by that
 * @property {import("./api.js").Api} api
 * @property {import("../panels/face.js").Face} face
 * @property {import("./api.js").Selection} selection
 * @property {ScenePart|undefined} part the one that is selected
 * @property {(id: string|null|undefined) => ScenePart|undefined} partOf
 * @property {(ids: string[], x: number, y: number) => void} pressed
 * @property {(edit: Edit|Promise<Edit|null>) => Promise<State>} send an edit and show what came of it
 * @property {(edit: Edit|Promise<Edit|null>) => Promise<State|null>} post an edit, with all that is shown of it
 * @property {(path: string, value: unknown) => Promise<State|null>} set
 * @property {(parcel: any) => Promise<State>} read
 * @property {(state: State) => void} show
 * @property {(ids: string[], effect?: string) => void} select
 * @property {(way: "undo"|"redo") => void} step
 * @property {() => Promise<void>} refresh
 * @property {(on: boolean) => void} hold
 * @property {(words: string) => void} complain
 * @property {(node: HTMLElement) => boolean} act do what a word says; whether it says anything
 * @property {(name: string) => void} do
 * @property {(words: string|undefined, act?: () => void) => void} offerBack
 * @property {() => void} openFinder
 * @property {(path?: string) => void} openIcons
 * @property {(use?: import("./api.js").PictureUse, path?: string) => void} choosePicture
 * @property {() => void} styleLetters
 * @property {() => void} openLooks
 * @property {(name: string, more?: Object<string, string>) => void} openAside
 * @property {(text: string, name: string) => void} bring
 */
export {};
