import js from "@eslint/js";
import globals from "globals";

export default [
  { ignores: ["public/", "vendor/", "tmp/", "var/"] },
  js.configs.recommended,
  {
    languageOptions: { globals: { ...globals.browser } },
    rules: {
      "eqeqeq": ["error", "smart"],
      "max-len": ["error", { code: 140 }],
      "no-shadow": "error",
      "no-unused-vars": ["error", { ignoreRestSiblings: true }],
      "no-var": "error",
      "prefer-const": "error",
    },
  },
  { files: ["**/*.mjs"], languageOptions: { globals: { ...globals.node } } },
  { files: ["assets/js/worker.js"], languageOptions: { globals: { ...globals.serviceworker } } },
];
