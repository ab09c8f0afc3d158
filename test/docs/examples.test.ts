import { spawnSync } from "node:child_process";
import { readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";

/** The examples in doc comments: what runs, and what each `console.log` says by the comment behind it. */
const EXAMPLES = readdirSync("src", { recursive: true, encoding: "utf8" })
  .filter((file) => file.endsWith(".ts"))
  .flatMap((file) => {
    const source = readFileSync(join("src", file), "utf8");
    return Array.from(source.matchAll(/@example\n *\* ```js\n([\s\S]*?)\n *\* ```/g), ([, code]) => {
      const lines = code!.split("\n").map((line) => line.replace(/^ *\* ?/, ""));
      const says = lines.flatMap((line) => /console\.log\(.*\); \/\/ (.*)$/.exec(line)?.[1] ?? []);
      return [file, lines.join("\n"), says] as const;
    });
  });

test("the twenty that people meet first have examples", () =>
  expect(EXAMPLES.length).toBeGreaterThanOrEqual(20));

test.each(EXAMPLES)("the example in %s says what it says", (file, code, says) => {
  // In the package, so that it is found by its name, and where nothing is packed from.
  const script = `test/example-${file.replace(/\W/g, "-")}.mjs`;
  try {
    writeFileSync(script, code);
    const { stdout, stderr } = spawnSync(process.execPath, [script], { encoding: "utf8" });
    expect([stdout.trim().split("\n"), stderr]).toEqual([
      says.map((said) => said.replaceAll("\\t", "\t")),
      "",
    ]);
  } finally {
    rmSync(script, { force: true });
  }
});
