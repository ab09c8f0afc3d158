import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import Database from "libsql";
import { Drawer, readText } from "../dist/index.js";
import { openSqlite, PRAGMAS } from "../dist/stores/sqlite.js";
import { compare, head } from "./measure.mjs";

/** One durable collect, against one prepared insert of the same bytes with the same pragmas. */
export async function run() {
  const folder = mkdtempSync(join(tmpdir(), "drawer-bench-"));
  const store = openSqlite(join(folder, "drawers.db"));
  const drawer = new Drawer(store);
  const bare = new Database(join(folder, "bare.db"));
  for (const pragma of PRAGMAS) bare.pragma(pragma);
  bare.exec("CREATE TABLE snippets (id INTEGER PRIMARY KEY, content TEXT NOT NULL)");
  const insert = bare.prepare("INSERT INTO snippets (content) VALUES (?)");
  let n = 0;
  head("One snippet made durable, against a bare prepared insert through libsql with the same pragmas");
  await compare(
    "collect one paragraph",
    () =>
      drawer.collect([
        { ...readText(`Net round ${++n} began at 06:10; nine birds in the heath rides.`), origin: {} },
      ]),
    () =>
      insert.run(
        JSON.stringify(readText(`Net round ${++n} began at 06:10; nine birds in the heath rides.`).content),
      ),
    { runs: 300, warmup: 30 },
  );
  await store.close();
  bare.close();
  rmSync(folder, { recursive: true, force: true });
}
