import "fake-indexeddb/auto";
import { execFile } from "node:child_process";
import { cpSync, mkdtempSync, readdirSync, readFileSync, rmSync, statSync, truncateSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";
import { promisify } from "node:util";
import fc from "fast-check";
import { openDB } from "idb";
import pLimit from "p-limit";
import { later } from "../support/clock";
import { isFull, runs } from "../support/counts";
import { drawerFileOf, drawerWith, piece, textsOf } from "../support/pieces";
import { served } from "../support/served";
import { Drawer, DrawerError, MemoryStore, writeText, type Notice, type Store } from "drawer";
import { openIndexedDb } from "drawer/indexeddb";
import { openRemote } from "drawer/remote";
import { openSqlite } from "drawer/sqlite";

const folder = mkdtempSync(join(tmpdir(), "drawer-traces-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
let made = 0;

/** A store, and all that it holds, as bytes or JSON. */
interface Held {
  readonly store: Store;
  readonly held: () => Promise<string>;
  /** The folder of its file. */
  readonly home?: string;
}

function inFolder(): Required<Held> {
  const home = join(folder, `${++made}`);
  const held = async () =>
    readdirSync(home)
      .map((file) => readFileSync(join(home, file), "latin1"))
      .join("\n");
  return { store: openSqlite(join(home, "drawers.db")), held, home };
}

const STORES: Record<string, () => Promise<Held>> = {
  memory: async () => {
    const store = new MemoryStore();
    const held = async () => {
      const changes = await store.changes({});
      const drawers = (await store.drawers()).map(({ drawer }) => drawer);
      const gone = await Promise.all(drawers.map((drawer) => store.gone(drawer)));
      const entries = await Promise.all(drawers.map((drawer) => store.entries({ drawer })));
      const deal = await store.value("spring", "deal");
      return JSON.stringify([changes, gone, entries, deal]);
    };
    return { store, held };
  },
  sqlite: async () => inFolder(),
  // What a page of the window is answered, by a store of another kind.
  remote: async () => {
    const { store, held } = inFolder();
    const { address } = await served(store);
    const remote = await openRemote(address);
    const close = remote.close.bind(remote);
    remote.close = async () => void (await Promise.all([close(), store.close()]));
    return { store: remote, held };
  },
  indexeddb: async () => {
    const name = `traces-${++made}`;
    const store = await openIndexedDb(name);
    const held = async () => {
      const database = await openDB(name);
      const all = await Promise.all([...database.objectStoreNames].map((table) => database.getAll(table)));
      database.close();
      return JSON.stringify(all, (_, value: unknown) =>
        value instanceof Uint8Array ? Buffer.from(value).toString("latin1") : value,
      );
    };
    return { store, held };
  },
};

/** One step of a history: what is done, in which of two drawers, to which snippets. */
const step = fc.record({
  what: fc.constantFrom(
    ...([
      "collect",
      "collect",
      "collect",
      "secret",
      "same",
      "append",
      "merge",
      "split",
      "hide",
      "hide",
    ] as const),
    ...([
      "copy",
      "into",
      "discard",
      "restore",
      "undo",
      "undo",
      "redo",
      "deal",
      "next",
      "keep",
      "wait",
    ] as const),
    ...(["detect", "import", "unhide", "empty", "label", "back", "skip", "limit", "move"] as const),
  ),
  drawer: fc.constantFrom("spring", "autumn"),
  one: fc.nat(40),
  two: fc.nat(40),
});
const steps = fc.array(step, { minLength: 4, maxLength: 24 });
const longSteps = fc.array(step, { minLength: 30, maxLength: 40 });
type Step = typeof steps extends fc.Arbitrary<readonly (infer One)[]> ? One : never;

/** The tokens in what a store's snippets say: in those that can be seen, and in those that cannot. */
async function tokens(store: Store): Promise<{ open: Set<string>; secret: Set<string> }> {
  const [open, secret] = [new Set<string>(), new Set<string>()];
  for (const name of ["spring", "autumn"]) {
    const drawer = new Drawer(store, name);
    // What was kept stays, private or not, also where it was discarded; and so does what was hidden for no time.
    const kept = (await store.gone(name)).filter(
      ({ entry }) => entry.private && (entry.kept || entry.privateAge === null),
    );
    const held = [...(await drawer.list()), ...kept.map(({ entry }) => ({ position: 0, entry }))];
    for (const { entry, content } of await drawer.read(held))
      for (const [token] of writeText(content).matchAll(/tok\d+x/g))
        (entry.private ? secret : open).add(token);
  }
  return { open, secret };
}

/** All that is given out of two drawers. */
async function givenOut(store: Store): Promise<string> {
  const all: unknown[] = [];
  for (const name of ["spring", "autumn"]) {
    const drawer = new Drawer(store, name);
    all.push(await drawer.list(), await drawer.gone(), await drawer.find("tok"));
    for await (const change of drawer.log()) all.push(change);
    const exported = drawer.exportFile();
    for await (const line of exported.lines) all.push(line);
  }
  return JSON.stringify(all);
}

/** All that the commands say of both drawers, for people and for programs. */
async function saidByCommands(home: string): Promise<string> {
  const run = promisify(execFile);
  const lines = [
    "list --limit all",
    "list --gone",
    "list --find tok",
    "log",
    "show all",
    "place all",
    "deal --left",
  ].flatMap((line) => [line, `${line} --json`]);
  const names = ["spring", "autumn"];
  const exports = names.map((name) => `export ${join(home, `${name}.jsonl`)} --json`);
  const all = [
    "drawers",
    ...[...lines, "place all --as rows --out csv"].flatMap((line) =>
      names.map((name) => `${line} --drawer ${name}`),
    ),
    ...exports.map((line, at) => `${line} --drawer ${names[at]}`),
  ];
  const env = { ...process.env, DRAWER_HOME: home };
  const said = await Promise.all(
    all.map((line) =>
      atOnce(() =>
        run(process.execPath, [resolve("dist/bin/main.js"), ...line.split(" ")], { env }).catch(
          // What is refused, since there is nothing that may be shown, has said so.
          (refused: { stdout: string; stderr: string }) => refused,
        ),
      ),
    ),
  );
  const files = readdirSync(home).filter((file) => file.endsWith(".jsonl"));
  return [
    ...said.flatMap(({ stdout, stderr }) => [stdout, stderr]),
    ...files.map((file) => readFileSync(join(home, file), "utf8")),
  ].join("\n");
}
const atOnce = pLimit(3);

/** What is given out of a file that was cut short and recovered. */
async function givenOutRecovered(home: string, cut: number): Promise<string> {
  const copy = join(folder, `${++made}`);
  cpSync(home, copy, { recursive: true });
  const file = join(copy, "drawers.db");
  truncateSync(file, Math.max(4096, statSync(file).size - 4096 * cut));
  const store = openSqlite(file, { recover: true });
  try {
    return JSON.stringify(store.notices) + (await givenOut(store));
  } finally {
    await store.close();
  }
}

async function take(
  store: Store,
  { what, drawer: name, one, two }: Step,
  n: number,
): Promise<readonly Notice[]> {
  const drawer = new Drawer(store, name);
  const other = name === "spring" ? "autumn" : "spring";
  const count = await drawer.count();
  const at = count === 0 ? "1" : String((one % count) + 1);
  const next = count === 0 ? "1" : String((two % count) + 1);
  switch (what) {
    case "collect":
      return (await drawer.collect([piece(`tok${n}x and words`)])).notices;
    case "secret":
      return (await drawer.collect([{ ...piece(`tok${n}x and words`), private: true }])).notices;
    case "same":
      return (await drawer.collect([piece(`tok${one % Math.max(n, 1)}x and words`)])).notices;
    case "detect":
      return (await drawer.collect([piece(`Password: tok${n}x-Gannet7`)])).notices;
    case "import":
      return drawer.importFile(() =>
        drawerFileOf([`tok${one % Math.max(n, 1)}x and words`, `tok${n}x and words`]),
      );
    case "label":
      return drawer.label(at, "harbour");
    case "back":
      return (await drawer.dealBack())?.notices ?? [];
    case "skip":
      await drawer.dealSkip();
      return [];
    case "limit":
      return drawer.setRules({ snippets: two % 2 === 0 ? 4 : null });
    case "empty":
      return drawer.empty();
    case "append":
      return (await drawer.append(piece(`tok${n}x more`), { position: Number(at) })).notices;
    case "merge":
      return (await drawer.merge(`${at} ${next}`)).notices;
    case "split":
      return (await drawer.split({ position: Number(at) })).notices;
    case "copy":
      return drawer.copyInto(other, at);
    case "into":
      return drawer.moveInto(other, at);
    case "move":
      return drawer.move(at, "end");
    case "restore":
      return drawer.restore(String((one % Math.max(1, (await drawer.gone()).length)) + 1));
    case "deal":
      await drawer.deal("all");
      return [];
    case "next":
      return (await drawer.dealNext())?.notices ?? [];
    case "undo":
      return drawer.undo();
    case "redo":
      return drawer.redo();
    case "wait":
      return [];
    case "hide":
      return drawer.hide(at, two % 3 === 0 ? undefined : 120_000);
    case "keep":
    case "unhide":
    case "discard":
      return drawer[what](at);
  }
}

function expectNone(hidden: readonly string[], said: string): void {
  expect(hidden.filter((token) => said.includes(token))).toEqual([]);
}

describe.each(Object.entries(STORES))("with the %s store", (kind, make) => {
  test("nothing that is given out holds what is private, and nothing holds it after its time, whatever was done before", async () => {
    await fc.assert(
      fc.asyncProperty(steps, async (history) => {
        later(0);
        const { store, held, home } = await make();
        try {
          let clock = 0;
          const due = new Set<string>();
          for (const [n, step] of history.entries()) {
            const before = await tokens(store);
            const said = await take(store, step, n).catch((error: unknown) => {
              if (error instanceof DrawerError) return [{ code: "nothing", message: error.message }];
              throw error;
            });
            if (step.what === "wait") {
              later((clock += 70_000));
              await new Drawer(store, "spring").applyRetention();
            }
            const { open, secret } = await tokens(store);
            if (step.what === "wait")
              for (const token of before.secret) if (!secret.has(token)) due.add(token);
            // The same words may be collected again once the secret is gone; then they are none.
            for (const token of open) due.delete(token);
            const [out, told] = [await givenOut(store), JSON.stringify(said)];
            for (const token of secret) {
              if (open.has(token)) continue;
              expect(out).not.toContain(token);
              if (before.secret.has(token) && !before.open.has(token)) expect(told).not.toContain(token);
            }
          }
          const now = await tokens(store);
          const hidden = [...now.secret].filter((token) => !now.open.has(token));
          if (home !== undefined) expectNone(hidden, await givenOutRecovered(home, 1 + (history.length % 3)));
          later((clock += 200_000));
          const before = await tokens(store);
          await new Drawer(store, "autumn").applyRetention();
          const { open, secret } = await tokens(store);
          const bytes = await held();
          for (const token of [...before.secret, ...due])
            if (!open.has(token) && !secret.has(token)) expect(bytes).not.toContain(token);
        } finally {
          await store.close();
        }
      }),
      kind === "memory" ? runs(40, 1000) : runs(6, 150),
    );
  });

  test("several private snippets go each in its time, kept ones stay, and no command is kept from its work", async () => {
    later(0);
    const { store, held } = await make();
    const drawer = await drawerWith(store, "open");
    const add = (text: string) => drawer.collect([{ ...piece(text), private: true }]);
    await add("first hush");
    await add("kept hush");
    await drawer.keep("3");
    later(60_000);
    await add("second hush");
    later(121_000);
    expect((await drawer.applyRetention()).map(({ code }) => code)).toEqual(["private"]);
    expect([await drawer.count(), (await held()).includes("first hush")]).toEqual([3, false]);
    expect((await drawer.snippets("2..3")).map(({ content }) => writeText(content))).toEqual([
      "kept hush",
      "second hush",
    ]);
    later(182_000);
    await new Drawer(store, "autumn").applyRetention();
    expect([await drawer.count(), (await held()).includes("second hush")]).toEqual([2, false]);
    await store.close();
  });
});

test("no command shows what is private, for people or for programs, whatever was done before", async () => {
  const histories = fc.sample(longSteps, {
    numRuns: isFull ? 60 : 1,
    ...(isFull ? {} : { seed: 20_310_408 }),
  });
  let tried = 0;
  for (const history of histories) {
    const { store, home } = inFolder();
    for (const [n, step] of history.entries())
      await take(store, step, n).catch((error: unknown) => {
        if (!(error instanceof DrawerError)) throw error;
      });
    const { open, secret } = await tokens(store);
    const hidden = [...secret].filter((token) => !open.has(token));
    tried += hidden.length;
    await store.close();
    expectNone(hidden, await saidByCommands(home));
  }
  expect(tried).toBeGreaterThan(0);
}, 600_000);

test("what was collected again just now is not the oldest", async () => {
  const drawer = new Drawer(new MemoryStore(), "spring");
  await drawer.setRules({ repeats: "move", snippets: 3 });
  await drawer.collect([piece("one"), piece("two"), piece("three")]);
  await drawer.collect([piece("one")]);
  await drawer.collect([piece("four")]);
  expect(await textsOf(drawer)).toEqual(["three", "one", "four"]);
  await drawer.collect([piece("five"), piece("three")]);
  expect(await textsOf(drawer)).toEqual(["four", "three", "five"]);
});

test("a copy of what was merged is split and undone by itself", async () => {
  const drawer = await drawerWith(new MemoryStore(), "one", "two");
  const autumn = new Drawer(drawer.store, "autumn");
  await drawer.merge("1 2");
  await drawer.copyInto("autumn", "1");
  await drawer.split({ position: 1 });
  await autumn.split({ position: 1 });
  await autumn.discard("1");
  await drawer.discard("2");
  for (const each of [autumn, autumn, drawer, drawer]) await each.undo();
  expect([await textsOf(drawer), await textsOf(autumn)]).toEqual([["one · two"], ["one · two"]]);
});

test("a deal that cannot be put down stays where it is, and passes over what is gone for good", async () => {
  const drawer = await drawerWith(new MemoryStore(), "one", "two", "three");
  await drawer.deal("all");
  await expect(
    drawer.dealNext(() => {
      throw new Error("full");
    }),
  ).rejects.toThrow("full");
  expect(await drawer.dealStatus()).toEqual({ left: 3, of: 3 });
  expect((await drawer.dealNext())!.snippet.entry.text).toBe("one");
  await drawer.merge("2 3");
  expect((await drawer.dealNext())!.snippet.entry.text).toBe("two");
  await drawer.empty();
  await drawer.store.forget({ drawer: "spring", until: new Date(Date.now() + 1000).toISOString() });
  expect(await drawer.dealNext()).toBeUndefined();
});

test("a clock that was set back keeps no secret, and takes none before its time", async () => {
  later(0);
  const drawer = await drawerWith(new MemoryStore(), "open");
  await drawer.collect([{ ...piece("before hush"), private: true }]);
  later(60_000);
  await drawer.applyRetention();
  later(-3_600_000);
  expect(await drawer.applyRetention()).toEqual([]);
  await drawer.collect([{ ...piece("after hush"), private: true }]);
  const until = [...(await drawer.privateUntil()).values()].map((time) =>
    Math.round((time - Date.now()) / 10_000),
  );
  expect(until.sort((a, b) => a - b)).toEqual([6, 12]);
  later(-3_600_000 + 61_000);
  expect((await drawer.applyRetention()).map(({ code }) => code)).toEqual(["private"]);
  expect(await textsOf(drawer)).toEqual(["open", "••••••"]);
  later(-3_600_000 + 121_000);
  await drawer.applyRetention();
  expect(await textsOf(drawer)).toEqual(["open"]);
});
