import "fake-indexeddb/auto";
import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { gunzipSync } from "node:zlib";
import { SCHEMA, SYNC_TABLES } from "../../dist/stores/schema.js";
import { piece, textsOf } from "../support/pieces";
import { Drawer } from "drawer";
import { openIndexedDb } from "drawer/indexeddb";
import { openSqlite } from "drawer/sqlite";

const folder = mkdtempSync(join(tmpdir(), "drawer-homes-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** The database of a home as a Drawer of each form left it: with a label, a picture, one kept, one that left, a recipe. */
test.each(["form-1"])("a home of %s is opened, carried over, and kept as it was beside", async (form) => {
  const home = join(folder, form);
  mkdirSync(home);
  writeFileSync(join(home, "drawers.db"), gunzipSync(readFileSync(`test/stores/homes/${form}.db.gz`)));
  const store = openSqlite(join(home, "drawers.db"));
  const drawer = new Drawer(store, "main");
  expect(store.notices.map(({ message }) => message).join()).toContain(`drawers.${form}.db`);
  const [first, second] = await drawer.read(await drawer.list());
  expect([first!.entry.kept, second!.entry.kind, second!.pictures.size]).toEqual([true, "picture", 1]);
  expect(await drawer.recipe("letter")).toEqual({ as: "bullets" });
  await drawer.restore("1");
  expect((await drawer.list()).map(({ entry }) => entry.label)).toContain("wheat");
  await drawer.undo();
  await drawer.collect([piece("a wren")]);
  await store.close();
  expect(readdirSync(home)).toContain(`drawers.${form}.db`);
  const again = openSqlite(join(home, "drawers.db"));
  expect([again.notices, (await textsOf(new Drawer(again, "main"))).length]).toEqual([[], 3]);
  await again.close();
});

test("a browser's database of the first form is opened and carried over", async () => {
  const path = (columns: readonly string[]) => (columns.length === 1 ? columns[0]! : [...columns]);
  await new Promise<void>((settle, fail) => {
    const opening = indexedDB.open("drawer-first", 1);
    opening.onupgradeneeded = () => {
      for (const [table, { key, indexes }] of Object.entries(SCHEMA)) {
        if ((SYNC_TABLES as readonly string[]).includes(table)) continue;
        const store = opening.result.createObjectStore(table, { keyPath: path(key) });
        for (const [name, { columns, isUnique = false }] of Object.entries(indexes))
          store.createIndex(name, path(columns), { unique: isUnique });
      }
      opening.result.createObjectStore("texts", { keyPath: ["drawer", "number"] });
    };
    opening.onsuccess = () => (opening.result.close(), settle());
    opening.onerror = () => fail(opening.error!);
  });
  const store = await openIndexedDb("drawer-first");
  const drawer = new Drawer(store, "main");
  await drawer.collect([piece("a wren")]);
  expect(await textsOf(drawer)).toEqual(["a wren"]);
  await store.close();
});
