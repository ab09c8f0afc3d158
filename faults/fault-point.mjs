// Forgets what is due, or imports a file, and is killed at a given statement of the database: no chance decides where.
// Arguments: the database, what to do, at which statement, and for an import the file.
import { readFileSync } from "node:fs";
import { Drawer } from "../dist/index.js";
import { openSqlite } from "../dist/stores/sqlite/index.js";
import { killAt } from "./kill-at.mjs";

const [file, what, point, drawerFile] = process.argv.slice(2);
const store = openSqlite(file);
const statements = killAt(Number(point));
const drawer = new Drawer(store);
if (what === "forget") {
  const now = Date.now();
  Date.now = () => now + 3 * 60_000;
  await drawer.applyRetention();
} else await drawer.importFile(() => readFileSync(drawerFile, "utf8").split("\n"));
await store.close();
console.log(`ended after ${statements()}`);
