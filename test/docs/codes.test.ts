import { spawnSync } from "node:child_process";

test("docs/codes.md names every code as the sentences have them (`node scripts/codes.mjs` makes it again)", () => {
  const { status, stderr } = spawnSync(process.execPath, ["scripts/codes.mjs", "--check"]);
  expect([status, String(stderr)]).toEqual([0, ""]);
});
