// Does one operation in a drawer, or nothing but what is due, by a clock that is wrong, and is killed at a given statement of it.
// Arguments: the database, the drawer, the operation, the word of the drawer's texts, by how many milliseconds the clock is wrong,
// and at which statement.
import { Drawer } from "../dist/index.js";
import { openSqlite } from "../dist/stores/sqlite/index.js";
import { killAt } from "./kill-at.mjs";
import { OPERATIONS } from "./operations.mjs";

const [file, name, operation, word, shift, point] = process.argv.slice(2);
const now = Date.now;
Date.now = () => now() + Number(shift);
const store = openSqlite(file);
const statements = killAt(Number(point));
const drawer = new Drawer(store, name);
// As every command does first.
await drawer.applyRetention();
if (operation !== "nothing") await OPERATIONS[operation].act(drawer, word);
await store.close();
console.log(`ended after ${statements()}`);
