import { createTypeScriptImportResolver } from "eslint-import-resolver-typescript";
import imports from "eslint-plugin-import-x";
import globals from "globals";
import ts from "typescript-eslint";

/** Rooms that run anywhere: no DOM, no Node. */
const pure = [
  "src/messages/**",
  "src/content/**",
  "src/formats/**",
  "src/compose/**",
  "src/drawer/**",
  "src/index.ts",
];

export default ts.config(
  { ignores: ["**/dist/", "demo/", "docs/api/"] },
  ts.configs.strict,
  {
    files: ["**/*.ts"],
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    plugins: { "import-x": imports },
    settings: { "import-x/resolver-next": [createTypeScriptImportResolver({ project: "tsconfig.json" })] },
    rules: {
      "import-x/no-duplicates": "error",
      "import-x/order": [
        "error",
        {
          groups: ["builtin", "external", "parent", "sibling", "index"],
          alphabetize: { order: "asc", caseInsensitive: true },
          "newlines-between": "never",
        },
      ],
      "@typescript-eslint/no-floating-promises": "error",
      "@typescript-eslint/switch-exhaustiveness-check": "error",
      "@typescript-eslint/no-unused-vars": [
        "error",
        { ignoreRestSiblings: true, varsIgnorePattern: "^_", argsIgnorePattern: "^_" },
      ],
      "@typescript-eslint/no-non-null-assertion": "off",
      "@typescript-eslint/unified-signatures": "off",
    },
  },
  {
    files: pure,
    // The threads in which Node reads what may take long.
    ignores: ["src/formats/*/node/**"],
    rules: {
      "no-restricted-globals": [
        "error",
        "document",
        "window",
        "process",
        "Buffer",
        "navigator",
        "localStorage",
      ],
      "no-restricted-imports": ["error", { patterns: ["node:*"] }],
    },
  },
  {
    files: ["src/**/*.ts"],
    ignores: ["src/content/decode.ts"],
    rules: {
      "no-restricted-syntax": [
        "error",
        {
          selector: 'NewExpression[callee.name="TextDecoder"][arguments.0]:not([arguments.0.value=/^utf-/])',
          message: "Node 20 has other signs than the standard for what is not Unicode: use decodeAs.",
        },
      ],
    },
  },
  {
    files: ["**/*.js", "**/*.mjs"],
    languageOptions: { globals: globals.node },
  },
);
