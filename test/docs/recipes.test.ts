import { spawnSync } from "node:child_process";
import { readFileSync } from "node:fs";

test("docs/recipes.md says what the commands answer today (`node scripts/recipes.mjs` makes it again)", () => {
  const { status, stdout, stderr } = spawnSync(process.execPath, ["scripts/recipes.mjs", "--print"], {
    encoding: "utf8",
  });
  expect([status, stderr]).toEqual([0, ""]);
  expect(readFileSync("docs/recipes.md", "utf8")).toBe(stdout);
}, 120_000);
