// Fills a drawer: node fill.mjs FILE COUNT
import { Drawer } from "../dist/index.js";
import { openSqlite } from "../dist/stores/sqlite/index.js";
import { piece } from "./pieces.mjs";

const [file, count] = process.argv.slice(2);
const store = openSqlite(file);
const drawer = new Drawer(store);
await drawer.setRules({ snippets: null, size: null });
for (let from = 0; from < Number(count); from += 1000)
  await drawer.collect(Array.from({ length: Math.min(1000, count - from) }, (_, n) => piece(from + n)));
await drawer.applyRetention();
await store.close();
