import "fake-indexeddb/auto";
import { mkdtempSync, rmSync, statSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { Conflict, Drawer, MemoryStore, type Change, type Entry, type Store } from "drawer";
import { openIndexedDb } from "drawer/indexeddb";
import { openSqlite } from "drawer/sqlite";
import { drawerWith, piece, textsOf } from "../support/pieces";

const folder = mkdtempSync(join(tmpdir(), "drawer-stores-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
let made = 0;

/** Each kind of store: how to make one, and how to open the same one a second time, where that means anything. */
const STORES: Record<string, () => Promise<[store: Store, again: (() => Promise<Store>) | undefined]>> = {
  memory: async () => [new MemoryStore(), undefined],
  sqlite: async () => {
    const path = join(folder, `${++made}`, "drawers.db");
    return [openSqlite(path), async () => openSqlite(path)];
  },
  indexeddb: async () => {
    const name = `drawers-${++made}`;
    return [await openIndexedDb(name), () => openIndexedDb(name)];
  },
};

describe.each(Object.entries(STORES))("the %s store", (_, make) => {
  let store: Store;
  let again: (() => Promise<Store>) | undefined;
  beforeEach(async () => ([store, again] = await make()));
  afterEach(() => store.close());

  const entry = (id: string, order: string, more: Partial<Entry> = {}): Entry => ({
    ...{ id, drawer: "spring", order, kind: "text", text: id, content: "hash", bytes: 1 },
    ...{ kept: false, private: false, origin: {}, collectedAt: "2031-04-08T05:50:00.000Z" },
    ...more,
  });
  const change = (id: string, ...edits: [before: Entry | null, after: Entry | null][]): Change => ({
    ...{ id, drawer: "spring", at: "2031-04-08T05:50:00.000Z", what: "collect" },
    edits: edits.map(([before, after]) => ({ id: (before ?? after)!.id, before, after })),
  });
  const commit = (made: Change, contents: ReadonlyMap<string, Uint8Array> = new Map()) =>
    store.commit([{ change: made, contents }]);
  const ids = async (query: object = {}) =>
    (await store.entries({ drawer: "spring", ...query })).map((one) => `${one.position}${one.entry.id}`);
  const [a, b, c] = [
    entry("a", "a1"),
    entry("b", "Zz", { kind: "table", origin: { document: "diary.docx" } }),
    entry("c", "a0V"),
  ];

  test("gives entries in the order of their keys, by code unit, with their positions", async () => {
    await commit(
      change("1", [null, a], [null, b], [null, c], [null, entry("x", "a0", { drawer: "other" })]),
      new Map(),
    );
    expect(await ids()).toEqual(["1b", "2c", "3a"]);
    expect(await ids({ offset: 1, limit: 1 })).toEqual(["2c"]);
    expect(await ids({ kind: "text" })).toEqual(["2c", "3a"]);
    expect(await ids({ kind: "text", offset: 1 })).toEqual(["3a"]);
    expect(await ids({ document: "diary.docx" })).toEqual(["1b"]);
    expect(await ids({ limit: 0 })).toEqual([]);
    expect([(await store.size("spring")).count, (await store.size("nowhere")).count]).toEqual([3, 0]);
  });

  test("commits all of a change or none, and only on what still stands", async () => {
    await commit(change("1", [null, a], [null, b]), new Map([["h", new Uint8Array([1])]]));
    const moved = entry("b", "a2");
    const stale = change("2", [a, null], [moved, null]);
    await expect(commit(stale, new Map([["g", new Uint8Array([2])]]))).rejects.toThrow(Conflict);
    await expect(commit(change("3", [null, a]), new Map())).rejects.toThrow(Conflict);
    await expect(commit(change("4", [null, c], [null, entry("d", "a1")]), new Map())).rejects.toThrow(
      Conflict,
    );
    expect(await ids()).toEqual(["1b", "2a"]);
    expect([...(await store.contents(["h", "g", "none"])).keys()]).toEqual(["h"]);
    expect((await store.changes({ drawer: "spring" })).map(({ id }) => id)).toEqual(["1"]);
  });

  test("lets two entries change places in one change", async () => {
    await commit(change("1", [null, a], [null, b]), new Map());
    await commit(change("2", [a, { ...a, order: b.order }], [b, { ...b, order: a.order }]), new Map());
    expect(await ids()).toEqual(["1a", "2b"]);
  });

  test("gives its log from the newest change back, page by page", async () => {
    for (const n of [1, 2, 3, 4]) await commit(change(`${n}`, [null, entry(`${n}`, `a${n}`)]), new Map());
    const page = async (query: object) =>
      (await store.changes({ drawer: "spring", ...query })).map(({ id }) => id);
    expect([await page({ limit: 2 }), await page({ offset: 2 })]).toEqual([
      ["4", "3"],
      ["2", "1"],
    ]);
    expect((await store.changes({ drawer: "spring", limit: 1 }))[0]).toEqual(
      change("4", [null, entry("4", "a4")]),
    );
  });

  test("keeps small values by name, and only in place of what was expected", async () => {
    await store.keepValue("spring", "recipe b", undefined, "1");
    await store.keepValue("spring", "recipe a", undefined, "2");
    await store.keepValue("autumn", "recipe c", undefined, "3");
    await expect(store.keepValue("spring", "recipe a", undefined, "4")).rejects.toThrow(Conflict);
    await store.keepValue("spring", "recipe a", "2", "5");
    expect([await store.valueNames("spring", "recipe "), await store.valueNames("spring", "x")]).toEqual([
      ["recipe a", "recipe b"],
      [],
    ]);
    await store.keepValue("spring", "recipe b", "1", undefined);
    expect([await store.value("spring", "recipe a"), await store.value("spring", "recipe b")]).toEqual([
      "5",
      undefined,
    ]);
  });

  test("keeps everything when it is opened again, undo too", async () => {
    const drawer = await drawerWith(store, "one", "two", "three");
    await drawer.discard("2");
    const second = again ? await again() : store;
    const later = new Drawer(second, "spring");
    expect(await textsOf(later)).toEqual(["one", "three"]);
    await later.undo();
    expect(await textsOf(drawer)).toEqual(["one", "two", "three"]);
    if (second !== store) await second.close();
  });

  test("lets two work on one drawer at once, and neither loses anything", async () => {
    const drawers = [new Drawer(store, "spring"), new Drawer(again ? await again() : store, "spring")];
    const heard = new Promise<void>((resolve) => void drawers[1]!.watch(resolve));
    await Promise.all(
      drawers.flatMap((drawer, d) =>
        Array.from({ length: 20 }, (_, n) => drawer.collect([piece(`${d}:${n}`)])),
      ),
    );
    const texts = await textsOf(drawers[0]!);
    expect(new Set(texts).size).toBe(40);
    await heard;
    if (drawers[1]!.store !== store) await drawers[1]!.store.close();
  });
});

test("a database file and its folder are for their owner alone", () => {
  const path = join(folder, "owner", "drawers.db");
  void openSqlite(path).close();
  expect([statSync(path).mode & 0o777, statSync(join(folder, "owner")).mode & 0o777]).toEqual([0o600, 0o700]);
});

test("a file that is no database is refused by name, and left as it is", () => {
  expect(() => openSqlite("demo/diary.docx")).toThrow(/“demo\/diary.docx” cannot be opened/);
});
