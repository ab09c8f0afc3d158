import { openDB, type DBSchema, type IDBPDatabase, type IDBPTransaction } from "idb";
import type { Hash } from "../../content/encode.js";
import type { Change } from "../../drawer/change.js";
import type { Entry } from "../../drawer/entry.js";
import type { DrawerSize, Gone } from "../../drawer/store.js";
import { searchedOf } from "../records.js";

/** An entry as it is stored. */
export interface Row extends Entry {
  /** In the order in which they came into the store. */
  readonly number: number;
  /** When it came, in milliseconds since 1970. */
  readonly came: number;
  /** For one that is not kept: its drawer, whether it is a picture, its number. */
  readonly age?: readonly [drawer: string, picture: 0 | 1, number: number];
}

/** The content of a private snippet. */
export interface SecretRow {
  readonly id: string;
  readonly name: Hash;
  readonly came: number;
  readonly bytes: Uint8Array;
}

/** What is searched of an entry. */
export interface TextRow {
  readonly id: string;
  readonly text: string;
}

/** The tables of the database. */
export interface Tables extends DBSchema {
  entries: {
    key: string;
    value: Row;
    indexes: { inOrder: [string, string]; byAge: [string, number, number]; byNumber: number };
  };
  contents: { key: Hash; value: Uint8Array };
  secrets: { key: [string, Hash]; value: SecretRow; indexes: { byName: Hash } };
  changes: { key: number; value: Change; indexes: { ofDrawer: string } };
  gone: {
    key: number;
    value: Gone & { readonly id: string; readonly drawer: string };
    indexes: { byId: string; ofDrawer: string };
  };
  sizes: { key: string; value: DrawerSize };
  settings: { key: [drawer: string, name: string]; value: string };
  texts: { key: [drawer: string, number: number]; value: TextRow };
}

/** A transaction in which anything may be written. */
export type Writing = IDBPTransaction<Tables, (keyof Pick<Tables, TableName>)[], "readwrite">;

/** The names of the tables. */
export type TableName =
  "entries" | "contents" | "secrets" | "changes" | "gone" | "sizes" | "settings" | "texts";

/** All tables. */
export const TABLES: TableName[] = [
  "entries",
  "contents",
  "secrets",
  "changes",
  "gone",
  "sizes",
  "settings",
  "texts",
];

const VERSION = 3;

/** Opens the database and brings older tables up to date, in one transaction. */
export function openTables(name: string): Promise<IDBPDatabase<Tables>> {
  return openDB<Tables>(name, VERSION, {
    async upgrade(database, from, _to, transaction) {
      if (from < 1) {
        database
          .createObjectStore("entries", { keyPath: "id" })
          .createIndex("inOrder", ["drawer", "order"], { unique: true });
        database.createObjectStore("contents");
        database.createObjectStore("changes", { autoIncrement: true }).createIndex("ofDrawer", "drawer");
      }
      if (from < 2) database.createObjectStore("settings");
      if (from < 3) {
        const entries = transaction.objectStore("entries");
        entries.createIndex("byAge", "age");
        entries.createIndex("byNumber", "number");
        database.createObjectStore("secrets", { keyPath: ["id", "name"] }).createIndex("byName", "name");
        const gone = database.createObjectStore("gone", { autoIncrement: true });
        gone.createIndex("byId", "id", { unique: true });
        gone.createIndex("ofDrawer", "drawer");
        database.createObjectStore("sizes", { keyPath: "drawer" });
        database.createObjectStore("texts");
        if (from > 0) await numberAll(transaction as unknown as Writing);
      }
    },
    blocking: (_current, _blocked, event) => (event.target as IDBDatabase).close(),
  });
}

/** Numbers the entries of an older form, counts them, and notes what is searched of them. */
async function numberAll(transaction: Writing): Promise<void> {
  const sizes = new Map<string, DrawerSize>();
  let number = 0;
  // Ids sort by the time at which they were made.
  for (
    let cursor = await transaction.objectStore("entries").openCursor();
    cursor;
    cursor = await cursor.continue()
  ) {
    const entry = cursor.value;
    const { drawer } = entry;
    await cursor.update(rowOf(entry, ++number, Date.now()));
    await transaction.objectStore("texts").put(await textOf(transaction, entry), [drawer, number]);
    const { count, bytes } = sizes.get(drawer) ?? { count: 0, bytes: 0 };
    sizes.set(drawer, { drawer, count: count + 1, bytes: bytes + entry.bytes });
  }
  for (const size of sizes.values()) await transaction.objectStore("sizes").put(size);
}

/** An entry as it is stored. */
export function rowOf(entry: Entry, number: number, came: number): Row {
  const { age: _, ...rest } = entry as Row;
  return {
    ...{ ...rest, number, came },
    ...(!entry.kept && { age: [entry.drawer, entry.kind === "picture" ? 1 : 0, number] as const }),
  };
}

/** The entry of a row. */
export function entryOf({ number: _, came: __, age: ___, ...entry }: Row): Entry {
  return entry;
}

/** What is searched of an entry. */
export async function textOf(transaction: Writing, entry: Entry): Promise<TextRow> {
  const bytes = await transaction.objectStore("contents").get(entry.content);
  return { id: entry.id, text: searchedOf(entry, bytes) };
}
