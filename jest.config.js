/** Tests import the built library by its public names, so what they drive is what ships. */
export default {
  testMatch: ["<rootDir>/test/**/*.test.ts"],
  extensionsToTreatAsEsm: [".ts"],
  transform: { "\\.ts$": ["@swc/jest", { jsc: { target: "es2022", parser: { syntax: "typescript" } } }] },
  moduleNameMapper: {
    "^drawer$": "<rootDir>/dist/index.js",
    "^drawer/engine$": "<rootDir>/dist/stores/index.js",
    "^drawer/format$": "<rootDir>/dist/formats/index.js",
    "^drawer/sqlite$": "<rootDir>/dist/stores/sqlite/index.js",
    "^drawer/postgres$": "<rootDir>/dist/stores/postgres/index.js",
    "^drawer/indexeddb$": "<rootDir>/dist/stores/indexeddb/index.js",
    "^drawer/remote$": "<rootDir>/dist/stores/remote/index.js",
    "^drawer/de$": "<rootDir>/dist/messages/de/index.js",
    "^drawer/(files|desktop|page)$": "<rootDir>/dist/$1/index.js",
  },
  // In full, a property has many times as many runs.
  testTimeout: process.env["DRAWER_TESTS"] === "full" ? 900_000 : 300_000,
  reporters: ["default", "<rootDir>/test/support/how-to-run-alone.cjs"],
};
