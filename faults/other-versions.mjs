import { createHash } from "node:crypto";
import { existsSync, mkdirSync, readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import Database from "libsql";
import { encodeContent, hashBytes, readText } from "../dist/index.js";
import { audit, drawer, inFolder, integrity } from "./support.mjs";

const sha = (file) => createHash("sha256").update(readFileSync(file)).digest("hex");

/** A home from a newer version is refused and left as it is; one from an older version is brought up to date, with a copy. */
export const otherVersions = ({ count = 500 } = {}) =>
  inFolder(async (folder) => {
    const newer = join(folder, "newer", "drawers.db");
    await drawer(join(folder, "newer"), ["collect"], { input: "from the future" });
    const future = new Database(newer);
    future.exec("PRAGMA user_version = 99");
    future.close();
    const before = sha(newer);
    const refused = await drawer(join(folder, "newer"), ["list"]);
    const isRefused =
      refused.code === 1 && refused.err.includes("written by a newer Drawer") && sha(newer) === before;

    const home = join(folder, "older");
    const older = join(home, "drawers.db");
    mkdirSync(home);
    makeOlder(older, count);
    const listed = await drawer(home, ["list", "--find", "piece 7"]);
    const copy = /they are in “([^”]+)”/.exec(listed.err)?.[1];
    const { texts } = await audit(older);
    const undone = await drawer(home, ["undo"]);
    const isMoved =
      texts.length === count && /^Undone: collecting “piece/.test(undone.out) && /piece 7\b/.test(listed.out);
    const isCopied = copy !== undefined && existsSync(copy) && integrity(copy) === "ok";
    const crowded = join(folder, "crowded");
    mkdirSync(crowded);
    makeOlder(join(crowded, "drawers.db"), count);
    const lists = await Promise.all(Array.from({ length: 4 }, () => drawer(crowded, ["list"])));
    const copies = readdirSync(crowded).filter((name) => name.includes(".form-"));
    const isShared =
      lists.every(({ code }) => code === 0) &&
      copies.join() === "drawers.form-2.db" &&
      versionOf(join(crowded, copies[0])) === 2 &&
      (await audit(join(crowded, "drawers.db"))).texts.length === count;
    return {
      passed: isRefused && isMoved && isCopied && isShared && integrity(older) === "ok",
      said: `a home from a newer version: ${isRefused ? "refused, unharmed" : "NOT refused"}; from an older one: ${texts.length} of ${count} there, found and undone as before, ${isCopied ? "a copy beside it" : "NO copy"}; opened by four at once: ${isShared ? "the same" : "NOT the same"}`,
    };
  });

function versionOf(file) {
  const database = new Database(file);
  try {
    return Object.values(database.prepare("PRAGMA user_version").get())[0];
  } finally {
    database.close();
  }
}

/** A file as the second version of the tables had it. */
function makeOlder(file, count) {
  const database = new Database(file);
  database.exec(`
    CREATE TABLE entries (id TEXT PRIMARY KEY, drawer TEXT NOT NULL, place TEXT NOT NULL, kind TEXT NOT NULL, document TEXT, entry TEXT NOT NULL) STRICT, WITHOUT ROWID;
    CREATE UNIQUE INDEX entries_in_order ON entries (drawer, place);
    CREATE TABLE contents (hash TEXT PRIMARY KEY, bytes BLOB NOT NULL) STRICT;
    CREATE TABLE changes (number INTEGER PRIMARY KEY AUTOINCREMENT, drawer TEXT NOT NULL, change TEXT NOT NULL) STRICT;
    CREATE INDEX changes_of_drawer ON changes (drawer, number);
    CREATE TABLE settings (drawer TEXT NOT NULL, name TEXT NOT NULL, value TEXT NOT NULL, PRIMARY KEY (drawer, name)) STRICT, WITHOUT ROWID;
    PRAGMA user_version = 2;
  `);
  for (let n = 0; n < count; n++) {
    const text = `piece ${n}`;
    const bytes = encodeContent(readText(text).content);
    const place =
      `b${String(n + 1).padStart(2, "0")}`.length === 3
        ? `b${String(10 + n)}`
        : `c${String(n).padStart(3, "0")}`;
    const at = new Date(1_900_000_000_000 + n).toISOString();
    const entry = {
      ...{
        id: `01900000-0000-7000-8000-${String(n).padStart(12, "0")}`,
        drawer: "main",
        order: n < 90 ? place : `c${String(100 + n)}`,
        kind: "text",
        text,
      },
      ...{
        content: hashBytes(bytes),
        bytes: bytes.length,
        kept: false,
        private: false,
        origin: { document: "log.txt" },
        collectedAt: at,
      },
    };
    const change = {
      id: `c${n}`,
      drawer: "main",
      at: new Date().toISOString(),
      what: "collect",
      edits: [{ id: entry.id, before: null, after: entry }],
    };
    database
      .prepare("INSERT INTO entries VALUES (?, ?, ?, ?, ?, ?)")
      .run(entry.id, "main", entry.order, "text", "log.txt", JSON.stringify(entry));
    database.prepare("INSERT INTO contents VALUES (?, ?)").run(entry.content, bytes);
    database
      .prepare("INSERT INTO changes (drawer, change) VALUES (?, ?)")
      .run("main", JSON.stringify(change));
  }
  database.close();
}
