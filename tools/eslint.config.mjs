/** How scripts are checked: floors that import one way, small functions, nothing that is not used. */
import js from "@eslint/js";
import globals from "globals";

const STATIC = "**/static/js";
/** What each floor may not know: those above it, and what starts a page. */
const ABOVE = {
  ui: ["stage", "sheet", "panels", "trial"],
  stage: ["sheet", "panels", "trial"],
  sheet: ["panels", "trial"],
  panels: ["trial"],
  trial: ["stage", "panels"],
};
const ENTRIES = ["../bench.js", "../wall.js", "../deliver.js", "../trial.js"];

const floors = Object.entries(ABOVE).map(([floor, above]) => ({
  files: [`${STATIC}/${floor}/*.js`],
  rules: {
    "no-restricted-imports": [
      "error",
      { patterns: [{ group: [...above.map((one) => `../${one}/*`), ...ENTRIES], message: "Imports go one way." }] },
    ],
  },
}));

export default [
  js.configs.recommended,
  {
    files: ["**/*.js"],
    languageOptions: { globals: { ...globals.browser, htmx: "readonly" } },
    rules: {
      complexity: ["error", 12],
      "max-depth": ["error", 3],
      "no-unused-vars": "error",
      "max-lines-per-function": ["error", { max: 40, skipComments: true, skipBlankLines: true }],
      "prefer-const": "error",
      eqeqeq: "error",
    },
  },
  { files: ["**/*.mjs"], languageOptions: { globals: { ...globals.browser, ...globals.node } } },
  ...floors,
];
