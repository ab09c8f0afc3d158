// Writes the table in docs/formats.md of what is kept of other programs' documents, from what the tests find.
import { spawnSync } from "node:child_process";

const { status } = spawnSync(
  process.execPath,
  ["--experimental-vm-modules", "node_modules/jest/bin/jest.js", "test/office/kept.test.ts"],
  { env: { ...process.env, DRAWER_WRITE_DOCS: "1" }, stdio: "inherit" },
);
process.exit(status);
