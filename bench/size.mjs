import { spawnSync } from "node:child_process";
import { createHash } from "node:crypto";
import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import Database from "libsql";
import { Drawer, readText } from "../dist/index.js";
import { openSqlite } from "../dist/stores/sqlite/index.js";
import { PRAGMAS } from "../dist/stores/sqlite/connection.js";
import { compare, head, median, spread } from "./measure.mjs";

const SIZES = [100, 100_000];

/** What grows with a drawer and what must not: with a hundred and with a hundred thousand snippets in it. */
export async function run() {
  const folder = mkdtempSync(join(tmpdir(), "drawer-bench-"));
  const homes = [];
  for (const size of SIZES) {
    const home = join(folder, String(size));
    homes.push(home);
    spawnSync(process.execPath, ["bench/fill.mjs", join(home, "drawers.db"), String(size)], {
      stdio: "inherit",
    });
  }
  await processes(homes);
  memory(homes, join(folder, "peak"));
  await collecting(homes);
  await finding(join(homes.at(-1), "drawers.db"));
  rmSync(folder, { recursive: true, force: true });
}

function node(words, { home, input, more = [] } = {}) {
  const env = { ...process.env, ...(home && { DRAWER_HOME: home }) };
  const { status, stderr } = spawnSync(process.execPath, [...more, ...words], { env, input });
  if (status !== 0) throw new Error(String(stderr));
}

async function processes(homes) {
  const commands = { list: ["list"], collect: ["collect"], "place last": ["place", "last"] };
  head("The command as a whole process, against node -e 0");
  for (const [name, words] of Object.entries(commands)) {
    let n = 0;
    const once = (home) => () =>
      node(["dist/bin/main.js", ...words], { home, input: `Net round ${n++} of the bench` });
    for (const [index, home] of homes.entries())
      await compare(`drawer ${name}, of ${SIZES[index].toLocaleString("en")}`, once(home), () =>
        node(["-e", "0"]),
      );
    await compare(
      `drawer ${name}, of ${SIZES[1].toLocaleString("en")} against ${SIZES[0]}`,
      once(homes[1]),
      once(homes[0]),
    );
  }
}

/** The most memory that a process has held, as it says itself at its end. */
function memory(homes, file) {
  const peak = (words, home) => {
    const all = Array.from({ length: 5 }, () => {
      node(words, { home: home ?? homes[0], more: ["--import", "./bench/peak.mjs"], input: "" });
      return Number(readFileSync(process.env.DRAWER_PEAK, "utf8"));
    });
    return median(all) / 1024;
  };
  process.env.DRAWER_PEAK = file;
  console.log("\nPeak memory, against node -e 0");
  const bare = peak(["-e", "0"]);
  for (const [index, home] of homes.entries()) {
    const ours = peak(["dist/bin/main.js", "list"], home);
    console.log(
      `${`drawer list, of ${SIZES[index].toLocaleString("en")}`.padEnd(78)} ${ours.toFixed(0).padStart(8)} MB ${bare.toFixed(0).padStart(8)} MB   × ${(ours / bare).toFixed(2)}`,
    );
  }
}

/**
 * One durable collect, against two bare inserts in files of their own: of the same rows into the same tables by SQL
 * alone, and of all that they hold into one row of one table.
 */
async function collecting(homes) {
  for (const [index, home] of homes.entries()) {
    const size = SIZES[index].toLocaleString("en");
    const store = openSqlite(join(home, "drawers.db"));
    const drawer = new Drawer(store);
    let n = 0;
    const collect = () =>
      drawer.collect([
        {
          ...readText(`Net round ${++n} began at 06:10; nine birds in the heath rides.`),
          origin: { document: "log.txt" },
        },
      ]);
    await collect();
    const [last] = await drawer.snippets("last");
    const [change] = await store.changes({ drawer: "main", limit: 1 });
    const row = [
      JSON.stringify(last.entry),
      Buffer.from(JSON.stringify(last.content)),
      JSON.stringify(change),
    ];
    const runs = { runs: 400, warmup: 50 };
    head(`One snippet made durable, of ${size}`);
    const same = sameRows(join(home, "same.db"), last.entry, row);
    await compare("collect one paragraph, against the same rows by SQL alone", collect, same, runs);
    const one = oneRow(join(home, "one.db"), row);
    await compare("collect one paragraph, against one row that holds the same", collect, one, runs);
    await store.close();
  }
}

function bareDatabase(file, tables) {
  const database = new Database(file);
  for (const pragma of PRAGMAS) database.pragma(pragma);
  database.exec(tables);
  return database;
}

function oneRow(file, row) {
  const database = bareDatabase(
    file,
    "CREATE TABLE bare (id TEXT PRIMARY KEY, entry TEXT, content BLOB, change TEXT)",
  );
  const insert = database.prepare("INSERT INTO bare VALUES (?, ?, ?, ?)");
  let n = 0;
  return () => insert.run(`id ${String(++n).padStart(9, "0")}`, ...row);
}

function sameRows(file, entry, [json, content, change]) {
  const database = bareDatabase(
    file,
    `CREATE TABLE entries (number INTEGER PRIMARY KEY, id TEXT UNIQUE, drawer TEXT, place TEXT, kind TEXT, document TEXT, kept INTEGER, came INTEGER, entry TEXT);
     CREATE UNIQUE INDEX in_order ON entries (drawer, place);
     CREATE INDEX by_age ON entries (drawer, kind = 'picture') WHERE kept = 0;
     CREATE TABLE contents (hash TEXT PRIMARY KEY, bytes BLOB) WITHOUT ROWID;
     CREATE TABLE changes (number INTEGER PRIMARY KEY, drawer TEXT, at TEXT, change TEXT);
     CREATE INDEX of_drawer ON changes (drawer);
     CREATE TABLE sizes (drawer TEXT PRIMARY KEY, count INTEGER, bytes INTEGER) WITHOUT ROWID;
     INSERT INTO sizes VALUES ('main', 0, 0);`,
  );
  const [addEntry, addContent, addChange, count] = [
    "INSERT INTO entries (id, drawer, place, kind, document, kept, came, entry) VALUES (?, 'main', ?, 'text', 'log.txt', 0, 0, ?)",
    "INSERT INTO contents VALUES (?, ?)",
    "INSERT INTO changes VALUES (?, 'main', ?, ?)",
    "UPDATE sizes SET count = count + 1, bytes = bytes + ?",
  ].map((sql) => database.prepare(sql));
  let n = 0;
  return () => {
    const key = String(++n).padStart(9, "0");
    database.exec("BEGIN IMMEDIATE");
    addEntry.run(entry.id.slice(0, -9) + key, key, json);
    addContent.run(createHash("sha256").update(key).digest("hex"), content);
    addChange.run(n, entry.collectedAt, change);
    count.run(entry.bytes);
    database.exec("COMMIT");
  };
}

/** Finding words in the library, against the query of the index alone. */
async function finding(file) {
  const store = openSqlite(file);
  const drawer = new Drawer(store);
  const bare = new Database(file);
  const query = bare.prepare("SELECT rowid FROM found WHERE found MATCH ? ORDER BY rowid DESC LIMIT 20");
  const words = [
    "wheatear",
    "wheat",
    "seawall morning",
    "05:50",
    "eatear on the sea",
    "round 777",
    "99999",
    "zebra",
    "Réti",
    "ing",
    "log.txt tern",
  ];
  head("Finding words among 100,000, the newest 20, against the bare query of the index");
  const all = [];
  for (const word of words) {
    const match = word
      .split(" ")
      .map((term) => `"${term.normalize("NFKD").replace(/\p{M}/gu, "").toLowerCase()}"`)
      .join(" ");
    const deed = () => drawer.find(word, { limit: 20 });
    await compare(`find ${word}`, deed, () => query.all(match), { runs: 60, warmup: 10 });
    all.push(...(await spread(deed, 40)));
    all.sort((a, b) => a - b);
  }
  console.log(
    `${"all of these: 95 in 100 take at most".padEnd(78)} ${all[Math.floor(all.length * 0.95)].toFixed(2).padStart(8)} ms`,
  );
  const placed = await spread(
    async () => drawer.positioned((await drawer.find("round 777", { limit: 20 })).map(({ entry }) => entry)),
    40,
  );
  console.log(
    `${"and with positions, for matches strewn over all".padEnd(78)} ${median(placed).toFixed(2).padStart(8)} ms`,
  );
  await store.close();
  bare.close();
}
