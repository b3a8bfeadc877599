import js from "@eslint/js";
import compat from "eslint-plugin-compat";
import globals from "globals";

export default [
  { ignores: ["public/", "vendor/", "tmp/", "var/"] },
  js.configs.recommended,
  compat.configs["flat/recommended"],
  {
    languageOptions: { globals: { ...globals.browser } },
    rules: {
      "eqeqeq": ["error", "smart"],
      "max-len": ["error", { code: 140 }],
      "no-restricted-globals": ["error", "structuredClone"],
      "no-restricted-syntax": [
        "error",
        {
          selector: "CallExpression[callee.property.name='at'][arguments.0.type='UnaryExpression']",
          message: "Younger than the phones we write for: take last() from polyfills.js.",
        },
        {
          selector: "CallExpression[callee.property.name=/^(?:findLast|findLastIndex|toSorted|toReversed|toSpliced|hasOwn)$/]",
          message: "Younger than the phones we write for.",
        },
      ],
      "no-shadow": "error",
      "no-unused-vars": ["error", { ignoreRestSiblings: true }],
      "no-var": "error",
      "prefer-const": "error",
    },
  },
  { files: ["**/*.mjs"], languageOptions: { globals: { ...globals.node } }, rules: { "no-restricted-syntax": "off", "compat/compat": "off" } },
  { files: ["assets/js/seat/worker.js"], languageOptions: { globals: { ...globals.serviceworker } } },
];
