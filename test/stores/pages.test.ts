import { mkdtempSync, readFileSync, rmSync, truncateSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import fc from "fast-check";
import Database from "libsql";
import { isCutShort, readRecords } from "../../dist/stores/sqlite/pages.js";

const folder = mkdtempSync(join(tmpdir(), "drawer-pages-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
let made = 0;

/** Values of every type that a record can hold, from none to many pages long. */
const value = fc.oneof(
  fc.constant(null),
  fc.integer(),
  fc.constantFrom(0, 1, -1, 127, -128, 32_768, 8_388_608, 2 ** 40, -(2 ** 47)),
  fc.constantFrom(0.5, -1.25, 1e300),
  fc.string({ unit: "grapheme" }),
  fc.integer({ min: 0, max: 30_000 }).map((length) => "tide ".repeat(length / 5)),
  fc.integer({ min: 0, max: 12_000 }).map((length) => new Uint8Array(length).fill(length % 251)),
);
const rows = fc.array(fc.tuple(value, value), { minLength: 1, maxLength: 60 });

const plain = (list: Iterable<unknown>) =>
  JSON.stringify(
    Array.from(list, (one) => (one instanceof Uint8Array || Buffer.isBuffer(one) ? [...one] : one)),
  );

test.each([
  ["a table", "CREATE TABLE t (n INTEGER PRIMARY KEY, a, b)"],
  ["a table that is an index", "CREATE TABLE t (n INTEGER, a, b, PRIMARY KEY (n)) WITHOUT ROWID"],
])("the records of %s are read from its pages as SQLite reads them", (_, schema) => {
  fc.assert(
    fc.property(rows, fc.boolean(), (list, inLog) => {
      const path = join(folder, `${++made}.db`);
      const database = new Database(path);
      // What is not in the file yet is read from its log.
      database.pragma(inLog ? "journal_mode = WAL" : "journal_mode = DELETE");
      database.exec(schema);
      const insert = database.prepare("INSERT INTO t VALUES (?, ?, ?)");
      list.forEach(([a, b], n) => insert.run(n, a, b));
      const read = [...readRecords(path)]
        .filter((record) => record.length === 3)
        .map((record, n) => [record[0] ?? n, ...record.slice(1)]);
      const stored = database.prepare("SELECT a, b FROM t").raw(true).all() as unknown[][];
      const found = new Set(read.map(([, ...values]) => plain(values)));
      for (const row of stored) expect(found.has(plain(row))).toBe(true);
      expect(read.length).toBe(stored.length);
      database.close();
    }),
    { numRuns: 40 },
  );
});

test("junk of any kind is read to its end, and makes no record that was not there", () => {
  const path = join(folder, "junk.db");
  fc.assert(
    fc.property(
      fc.uint8Array({ minLength: 0, maxLength: 9000 }),
      fc.constantFrom(0x0d, 0x0a, 0x02, 0),
      (bytes, type) => {
        if (bytes.length > 4096) bytes[4096] = type;
        writeFileSync(path, bytes);
        for (const record of readRecords(path)) expect(Array.isArray(record)).toBe(true);
      },
    ),
    { numRuns: 300 },
  );
});

test("a file is cut short when it is shorter than its head says, and at no other time", () => {
  const path = join(folder, "whole.db");
  const database = new Database(path);
  database.exec("CREATE TABLE t (a)");
  for (let n = 0; n < 40; n++) database.prepare("INSERT INTO t VALUES (?)").run("tide ".repeat(400));
  database.close();
  const { length } = readFileSync(path);
  expect(isCutShort(path)).toBe(false);
  truncateSync(path, length - 1);
  expect(isCutShort(path)).toBe(true);
  writeFileSync(path, "");
  expect(isCutShort(path)).toBe(false);
  writeFileSync(path, "no database");
  expect(isCutShort(path)).toBe(false);
});
