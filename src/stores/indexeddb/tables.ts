import { openDB, type IDBPDatabase } from "idb";
import { SCHEMA, TABLE_NAMES } from "../schema.js";

/** The table of what is searched of entries. */
export const TEXTS = "texts";

/** What is searched of an entry. */
export interface TextRow {
  readonly drawer: string;
  /** The number of the entry's row. */
  readonly number: number;
  readonly id: string;
  readonly text: string;
}

/** The version of the tables that this Drawer writes. A later one adds what brings older tables up to date. */
const VERSION = 1;

/** Opens the database, and makes the tables of the schema in a new one. */
export function openTables(name: string): Promise<IDBPDatabase> {
  return openDB(name, VERSION, {
    upgrade(database, from) {
      if (from < 1) createTables(database);
    },
    blocking: (_current, _blocked, event) => (event.target as IDBDatabase).close(),
  });
}

function createTables(database: IDBPDatabase): void {
  const path = (columns: readonly string[]) => (columns.length === 1 ? columns[0]! : [...columns]);
  for (const table of TABLE_NAMES) {
    const { key, indexes } = SCHEMA[table];
    const store = database.createObjectStore(table, { keyPath: path(key) });
    for (const [name, { columns, isUnique = false }] of Object.entries(indexes))
      store.createIndex(name, path(columns), { unique: isUnique });
  }
  database.createObjectStore(TEXTS, { keyPath: ["drawer", "number"] });
}
