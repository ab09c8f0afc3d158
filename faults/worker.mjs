// Collects snippets into the drawers of a file, one by one, and writes the number of each to standard output once it is
// acknowledged: node worker.mjs FILE NAME COUNT [PAUSE], with so many milliseconds between them
import { writeSync } from "node:fs";
import { Drawer, readText } from "../dist/index.js";
import { openSqlite } from "../dist/stores/sqlite/index.js";

const [file, name, count, pause = 0] = process.argv.slice(2);
const store = openSqlite(file);
const drawer = new Drawer(store);
if ((await drawer.rules()).snippets !== null) await drawer.setRules({ snippets: null });
for (let n = 0; n < Number(count); n++) {
  const middle = n % 10 === 9 ? "over the bar ".repeat(1000) : "over the bar ";
  await drawer.collect([
    { ...readText(`${name}:${n} terns ${middle}at low water`), origin: { document: name } },
  ]);
  writeSync(1, `${n}\n`);
  if (pause > 0) await new Promise((next) => setTimeout(next, pause));
}
await store.close();
