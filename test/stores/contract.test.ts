import "fake-indexeddb/auto";
import { mkdtempSync, rmSync, statSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import fc from "fast-check";
import { postgresPrograms, startPostgres } from "../../scripts/postgres.mjs";
import { runs } from "../support/counts";
import { drawerWith, piece, textsOf } from "../support/pieces";
import { served } from "../support/served";
import { Drawer, MemoryStore, type Change, type Entry, type Store } from "drawer";
import { Conflict } from "drawer/engine";
import { openIndexedDb } from "drawer/indexeddb";
import { openPostgres } from "drawer/postgres";
import { openRemote, remoteHandler } from "drawer/remote";
import { openSqlite } from "drawer/sqlite";

const folder = mkdtempSync(join(tmpdir(), "drawer-stores-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const isTherePostgres = postgresPrograms() !== undefined || process.env["CI"] !== undefined;
if (!isTherePostgres) console.log("Skipped: the store in PostgreSQL, which is not installed.");
const postgres = isTherePostgres ? startPostgres() : undefined;
afterAll(() => postgres?.stop());
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
  ...(postgres && {
    postgres: async () => {
      const schema = `store_${++made}`;
      const open = () =>
        openPostgres({ schema, url: `postgresql://hub@/postgres?host=${postgres.env.PGHOST}` });
      return [await open(), open];
    },
  }),
  // What it asks is asked over HTTP, of a store of another kind.
  remote: async () => {
    const { address } = await served(openSqlite(join(folder, `${++made}`, "drawers.db")));
    return [await openRemote(address), () => openRemote(address)];
  },
};

describe.each(Object.entries(STORES))("the %s store", (_, make) => {
  let store: Store;
  let again: (() => Promise<Store>) | undefined;
  beforeEach(async () => ([store, again] = await make()));

  test("keeps all that an origin says, and takes back what knows it", async () => {
    const drawer = new Drawer(store);
    const origin = {
      document: "a.docx",
      at: "p3",
      title: "A",
      address: "https://merrow-spit.example/",
      app: "x",
      path: "/home/a.docx",
    };
    await drawer.collect([{ ...piece("wren"), origin }]);
    expect((await drawer.list()).map(({ entry }) => entry.origin)).toEqual([origin]);
    await drawer.label("1", "bird");
    await drawer.undo();
    await drawer.undo();
    expect(await drawer.list()).toEqual([]);
    await drawer.redo();
    expect((await drawer.list()).map(({ entry }) => entry.origin)).toEqual([origin]);
  });
  afterEach(() => store.close());

  const entry = (id: string, order: string, more: Partial<Entry> = {}): Entry => ({
    ...{ id, drawer: "spring", order, kind: "text", text: id, content: "hash", bytes: 1 },
    ...{ kept: false, private: false, origin: {}, collectedAt: "2031-04-08T05:50:00.000Z" },
    ...more,
  });
  const change = (id: string, ...edits: [before: Entry | null, after: Entry | null][]): Change => ({
    ...{ id, drawer: "spring", at: "2031-04-08T05:50:00.000Z", operation: "collect" },
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

  test("lets a new entry take the place of one that moves on in the same change", async () => {
    await commit(change("1", [null, a]));
    const moved = entry("a", "a2");
    await commit(change("2", [null, entry("n", "a1")], [a, moved]));
    expect(await ids()).toEqual(["1n", "2a"]);
    expect((await store.size("spring")).count).toBe(2);
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

  test("gives many contents and entries by their keys, in any order, whatever else is there", async () => {
    const names = Array.from({ length: 300 }, (_, n) => `h${(n * 7919) % 300}`);
    const contents = new Map(names.map((name) => [name, new TextEncoder().encode(name)]));
    const edits = names.map((name, n): [null, Entry] => [
      null,
      entry(name, `a${String(n).padStart(3, "0")}1`),
    ]);
    await commit(change("1", ...edits), contents);
    const read = async (asked: readonly string[]) =>
      [...(await store.contents(asked))].map(([name, bytes]) =>
        [name, new TextDecoder().decode(bytes)].join(),
      );
    const own = (asked: readonly string[]) => asked.map((name) => `${name},${name}`).sort();
    for (const asked of [
      names,
      names.filter((_, n) => n % 2 === 0),
      ["none", ...names.slice(0, 200), "h299z"],
    ])
      expect((await read(asked)).sort()).toEqual(own(asked.filter((name) => contents.has(name))));
    expect(
      (await store.entries({ drawer: "spring", ids: [...names].sort() })).map((one) => one.entry.id),
    ).toEqual(names);
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
    await store.setValue("spring", "recipe b", undefined, "1");
    await store.setValue("spring", "recipe a", undefined, "2");
    await store.setValue("autumn", "recipe c", undefined, "3");
    await expect(store.setValue("spring", "recipe a", undefined, "4")).rejects.toThrow(Conflict);
    await store.setValue("spring", "recipe a", "2", "5");
    expect([await store.valueNames("spring", "recipe "), await store.valueNames("spring", "x")]).toEqual([
      ["recipe a", "recipe b"],
      [],
    ]);
    await store.setValue("spring", "recipe b", "1", undefined);
    expect([await store.value("spring", "recipe a"), await store.value("spring", "recipe b")]).toEqual([
      "5",
      undefined,
    ]);
  });

  test("makes several changes at once, or none of them", async () => {
    const all = (...made: Change[]) =>
      store.commit(made.map((one) => ({ change: one, contents: new Map<string, Uint8Array>() })));
    await all(change("1", [null, a]), change("2", [a, { ...a, label: "x" }], [null, b]));
    expect(await ids()).toEqual(["1b", "2a"]);
    await expect(all(change("3", [null, c]), change("4", [a, null]))).rejects.toThrow(Conflict);
    expect([await ids(), (await store.changes({ drawer: "spring" })).length]).toEqual([["1b", "2a"], 2]);
  });

  test("reverts a change, or all of a group, or none of it", async () => {
    const part = (id: string, n: number, ...edits: Parameters<typeof change>[1][]): Change => ({
      ...change(id, ...edits),
      groupId: "g",
      part: n,
    });
    await commit(part("1", 1, [null, a]));
    await commit(change("2", [null, entry("x", "a9")]));
    await commit(part("3", 2, [null, b]));
    const [last] = await store.changes({ drawer: "spring" });
    const { count, first } = await store.revert(last!, "undo");
    expect([count, first.id, await ids()]).toEqual([2, "1", ["1x"]]);
    const [undone] = await store.changes({ drawer: "spring" });
    expect([undone!.operation, undone!.undoneOperation, undone!.part]).toEqual(["undo", "collect", 2]);
    await store.revert(undone!, "redo");
    expect(await ids()).toEqual(["1b", "2a", "3x"]);
    await commit(change("4", [a, null]));
    const redone = (await store.changes({ drawer: "spring" }))[1]!;
    await expect(store.revert(redone, "undo")).rejects.toThrow(Conflict);
    expect(await ids()).toEqual(["1b", "2x"]);
  });

  test("takes a limit or an offset of any size, and a part of a number for the whole below it", async () => {
    await commit(change("1", [null, a], [null, b], [null, c]));
    const pages = [{ limit: -1 }, { limit: 1.9 }, { offset: -2 }, { offset: 1.5, limit: 1 }, { offset: 9 }];
    expect(await Promise.all(pages.map((page) => ids(page)))).toEqual([
      [],
      ["1b"],
      ["1b", "2c", "3a"],
      ["2c"],
      [],
    ]);
    expect([await ids({ ids: ["a", "b", "c"], last: 2 }), await ids({ kind: "text", last: 1 })]).toEqual([
      ["2c", "3a"],
      ["3a"],
    ]);
    const log = async (page: object) => (await store.changes({ drawer: "spring", ...page })).length;
    expect([await log({ limit: -1 }), await log({ limit: 0.5 }), await log({ offset: -1 })]).toEqual([
      0, 0, 1,
    ]);
  });

  test("names the drawers that hold something, or have values or a log, and no others", async () => {
    const names = async () => (await store.drawers()).map(({ drawer }) => drawer);
    await store.setValue("autumn", "rules", undefined, "{}");
    expect(await names()).toEqual(["autumn"]);
    await store.setValue("autumn", "rules", "{}", undefined);
    expect(await names()).toEqual([]);
    await commit(change("1", [null, a], [null, entry("x", "a0", { drawer: "other" })]));
    await store.forget({ drawer: "spring", everything: true });
    expect(await names()).toEqual(["other"]);
  });

  test("changes a value twice in one change, one after the other", async () => {
    const values = [
      { name: "rules", after: "1" },
      { name: "rules", before: "1", after: "2" },
    ];
    await commit({ ...change("1"), values });
    expect(await store.value("spring", "rules")).toBe("2");
    const wrong = [
      { name: "rules", before: "2", after: "3" },
      { name: "rules", before: "2", after: "4" },
    ];
    await expect(commit({ ...change("2"), values: wrong })).rejects.toThrow(Conflict);
    expect(await store.value("spring", "rules")).toBe("2");
  });

  test("writes values with a change, and only in place of what was expected", async () => {
    const valued = (id: string, before?: string, after?: string): Change => ({
      ...change(id, [null, entry(id, `a${id}`)]),
      values: [{ name: "rules", ...(before && { before }), ...(after && { after }) }],
    });
    await commit(valued("1", undefined, "{}"));
    await expect(commit(valued("2", undefined, "[]"))).rejects.toThrow(Conflict);
    await commit(valued("3", "{}", undefined));
    expect([await store.value("spring", "rules"), (await store.size("spring")).count]).toEqual([
      undefined,
      2,
    ]);
  });

  test("counts what it holds, and tells the oldest, without those that are kept", async () => {
    const picture = entry("p", "a3", { kind: "picture", bytes: 5 });
    await commit(change("1", [null, a], [null, b], [null, picture], [null, { ...c, kept: true }]));
    expect(await store.size("spring")).toEqual({ drawer: "spring", count: 4, bytes: 8 });
    const oldest = async (query: object) =>
      (await store.oldest({ drawer: "spring", limit: 9, ...query })).map(({ id }) => id).join("");
    expect([
      await oldest({}),
      await oldest({ limit: 1 }),
      await oldest({ picture: true }),
      await oldest({ picture: false }),
      await oldest({ cameBefore: Date.now() - 60_000 }),
      await oldest({ cameBefore: Date.now() + 60_000 }),
    ]).toEqual(["abp", "a", "p", "ab", "", "abp"]);
    expect(await store.drawers()).toEqual([{ drawer: "spring", count: 4, bytes: 8 }]);
    expect(await store.positions([a, picture, entry("gone", "a9")])).toEqual(
      new Map([
        ["a", 3],
        ["p", 4],
      ]),
    );
    expect(await ids({ ids: ["p", "b", "x"] })).toEqual(["1b", "4p"]);
    expect(await ids({ kept: true })).toEqual(["2c"]);
  });

  test("finds words and parts of words, whatever their case and accents, in text, label and origin, the newest first", async () => {
    const drawer = await drawerWith(
      store,
      "Réti watched the wheatear",
      "WHEATEARS on the seawall",
      "a stray",
    );
    await drawer.collect([
      { ...piece("the tide", "Ébauche.docx"), label: "Wheat" },
      piece("password: hunter2wheat"),
    ]);
    const found = async (words: string, options = {}) =>
      (await drawer.positioned((await drawer.find(words, options)).map((one) => one.entry))).map(
        (one) => one.position,
      );
    for (let round = 0; round < 2; round++) {
      expect(await found("wheat")).toEqual([4, 2, 1]);
      expect(await found("RETI wheatear")).toEqual([1]);
      expect(await found("ebauche")).toEqual([4]);
      expect(await found("ti")).toEqual([4, 1]);
      expect(await found('"the wheat"')).toEqual([1]);
      expect(await found("wheat", { limit: 1 })).toEqual([4]);
      expect(await found("wheat", { document: "notes.txt" })).toEqual([2, 1]);
      expect(await found('"; DROP TABLE')).toEqual([]);
      expect(await found("hunter2")).toEqual([]);
      const [one] = await drawer.find("sea", { length: 30 });
      const { text, matches } = one!.context;
      expect(matches.map(([from, to]) => text.slice(from, to))).toEqual(["sea"]);
      // The same once enough has come for all of it to have been put into an index.
      await drawer.collect(Array.from({ length: 80 }, (_, n) => piece(`filler ${n}`)));
    }
    await drawer.label("1", "");
    await drawer.discard("2");
    await drawer.label("2", "sparrowhawk");
    expect([await found("wheat"), await found("sparrow")]).toEqual([[3, 1], [2]]);
    await drawer.undo();
    await drawer.undo();
    expect([(await found("wheat")).sort(), await found("sparrow")]).toEqual([[1, 2, 4], []]);
  });

  test("keeps what has left for a while, and private snippets apart; forgets both, and their contents, for good", async () => {
    const drawer = await drawerWith(store, "one", "two", "three");
    await drawer.keep("1");
    await drawer.discard("2");
    await drawer.collect([{ ...piece("sesame"), private: true }]);
    expect((await store.privateEntries()).map(({ drawer: name, kept }) => [name, kept])).toEqual([
      ["spring", false],
    ]);
    const hashes = [...(await drawer.list()), ...(await drawer.gone())].map(
      ({ entry: { content } }) => content,
    );
    expect((await store.contents(hashes)).size).toBe(4);
    const [secret] = await store.privateEntries();
    expect(await store.forget({ drawer: "spring", ids: [secret!.id] })).toEqual({ forgotten: 1 });
    expect([
      await textsOf(drawer),
      await store.privateEntries(),
      (await store.contents(hashes)).size,
    ]).toEqual([["one", "three"], [], 3]);
    expect(JSON.stringify(await store.changes({ drawer: "spring" }))).not.toContain(secret!.id);
    await store.forget({ drawer: "spring", until: new Date(0).toISOString() });
    expect((await drawer.gone()).map((one) => [one.entry.text, one.by])).toEqual([["two", "discard"]]);
    expect((await store.forget({ drawer: "spring", everything: true })).forgotten).toBe(2);
    expect([await textsOf(drawer), await drawer.gone(), await store.changes({ drawer: "spring" })]).toEqual([
      ["one"],
      [],
      [],
    ]);
    expect((await store.contents(hashes)).size).toBe(1);
    expect(await drawer.find("three")).toEqual([]);
    await expect(drawer.undo()).rejects.toThrow("There is nothing to undo.");
  });

  test("forgets a snippet that has moved between drawers in the logs of both, which can still be undone", async () => {
    const drawer = await drawerWith(store, "one", "swordfish");
    const letters = new Drawer(store, "letters");
    await drawer.moveInto("letters", "2");
    await letters.emptyForGood();
    expect(JSON.stringify(await store.changes({ drawer: "spring" }))).not.toContain("swordfish");
    await drawer.undo();
    expect([await textsOf(drawer), await textsOf(letters)]).toEqual([[], []]);
    await drawer.redo();
    expect(await textsOf(drawer)).toEqual(["one"]);
  });

  /** Operations as data, so that any sequence of them can be tried. */
  const at = fc.nat(9);
  const operation = fc.oneof(
    fc.record({ do: fc.constant("collect" as const), text: fc.string({ minLength: 1, maxLength: 4 }) }),
    fc.record({ do: fc.constant("move" as const), from: at, to: at }),
    fc.record({
      do: fc.constantFrom("discard" as const, "keep" as const, "release" as const, "label" as const),
      from: at,
    }),
    fc.record({ do: fc.constantFrom("empty" as const, "undo" as const, "redo" as const, "undo" as const) }),
  );

  test("lets a drawer do what a plain list with a history does, whatever is done to it", async () => {
    type Plain = { text: string; kept: boolean; label?: string };
    await fc.assert(
      fc.asyncProperty(fc.array(operation, { maxLength: 30 }), async (operations) => {
        const [own] = await make();
        const drawer = new Drawer(own);
        let list: Plain[] = [];
        const past: Plain[][] = [];
        const future: Plain[][] = [];
        const become = (next: Plain[]) => {
          if (JSON.stringify(next) === JSON.stringify(list)) return;
          past.push(list);
          future.length = 0;
          list = next;
        };
        for (const step of operations) {
          if (step.do === "collect") {
            const text = `x${step.text.trim()}`;
            if (list.at(-1)?.text !== text) become([...list, { text, kept: false }]);
            await drawer.collect([{ ...piece(text), private: false }]);
          } else if (step.do === "undo" || step.do === "redo") {
            const [from, to] = step.do === "undo" ? [past, future] : [future, past];
            if (from.length === 0) await expect(drawer[step.do]()).rejects.toThrow("nothing");
            else {
              await drawer[step.do]();
              to.push(list);
              list = from.pop()!;
            }
          } else if (step.do === "empty") {
            become(list.filter(({ kept }) => kept));
            await drawer.empty();
          } else if ("from" in step && list.length > 0) {
            const from = step.from % list.length;
            const pick = String(from + 1);
            const altered = (more: Partial<Plain>) =>
              list.map((one, index) => (index === from ? { ...one, ...more } : one));
            if (step.do === "move") {
              const to = step.to % (list.length + 1);
              const left = list.slice(0, to).filter((_, index) => index !== from);
              const right = list.slice(to).filter((_, index) => index + to !== from);
              past.push(list);
              future.length = 0;
              list = [...left, list[from]!, ...right];
              await drawer.move(pick, to === list.length ? "end" : { position: to + 1 });
            } else if (step.do === "discard") {
              become(list.filter((_, index) => index !== from));
              await drawer.discard(pick);
            } else if (step.do === "label") {
              become(altered({ label: "tern" }));
              await drawer.label(pick, "tern");
            } else {
              become(altered({ kept: step.do === "keep" }));
              await drawer[step.do](pick);
            }
          }
          const held = (await drawer.list()).map(({ entry: { text, kept, label } }) => ({
            text,
            kept,
            ...(label && { label }),
          }));
          expect(held).toEqual(list.map((one) => ({ ...one, text: one.text.replace(/\s+/g, " ").trim() })));
        }
        const size = await drawer.size();
        const entries = (await drawer.list()).map((one) => one.entry);
        expect(size).toMatchObject({
          count: list.length,
          bytes: entries.reduce((sum, { bytes }) => sum + bytes, 0),
        });
        const found = new Set((await drawer.find("notes.txt")).map((one) => one.entry.id));
        expect(found).toEqual(new Set(entries.map(({ id }) => id)));
        await own.close();
      }),
      runs(12, 200),
    );
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

test("a store elsewhere refuses as it would here, is heard of at once, and says when it cannot be reached", async () => {
  const store = openSqlite(join(folder, "elsewhere", "drawers.db"));
  const { address, port, server } = await served(store);
  const remote = await openRemote(address);
  const here = await drawerWith(store, "one");
  const there = new Drawer(remote, "spring");
  await expect(there.discard("9")).rejects.toMatchObject({
    reason: "no-position",
    message: await here.discard("9").catch((error: Error) => error.message),
  });

  const states: boolean[] = [];
  remote.whenReached((isReached) => states.push(isReached));
  const texts: string[][] = [];
  there.watch(() => void textsOf(there).then((held) => texts.push(held)));
  await until(() => states.length > 0);
  // Somebody else's connection is looked at now and then; one's own changes are told at once.
  await new Promise((listens) => setTimeout(listens, 100));
  const began = performance.now();
  await here.collect([piece("two")]);
  await until(() => texts.some((held) => held.includes("two")));
  expect(performance.now() - began).toBeLessThan(1000);

  server.closeAllConnections();
  server.close();
  await until(() => states.at(-1) === false);
  await expect(textsOf(there)).rejects.toMatchObject({ code: "store", reason: "store/away" });
  await here.collect([piece("three")]);
  await served(store, port);
  await until(() => texts.at(-1)?.includes("three") ?? false, 10_000);
  expect(states).toEqual([true, false, true]);
  await remote.close();
  await store.close();
});

test("what is no question to a store is answered with 400, and does nothing", async () => {
  const store = new MemoryStore();
  const { fetch: ask } = remoteHandler(store);
  const bodies = [
    "",
    "close",
    Uint8Array.of(0x92, 0xa5, 0x63),
    Uint8Array.of(0x91, 0xa5, 0x63, 0x6c, 0x6f, 0x73, 0x65),
  ];
  for (const body of bodies) {
    const answer = await ask(new Request("http://localhost/call", { method: "POST", body }));
    expect(answer.status).toBe(400);
  }
});

/** Waits until something is so. */
async function until(is: () => boolean, most = 5000): Promise<void> {
  for (const end = Date.now() + most; !is(); await new Promise((again) => setTimeout(again, 10)))
    if (Date.now() > end) throw new Error("It never came to be so.");
}
