import { openDB, type IDBPDatabase } from "idb";
import { SCHEMA, SYNC_TABLES, TABLE_NAMES, type TableName } from "../schema.js";

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

/** The version of the tables that this Drawer writes. */
const VERSION = 2;

/** Opens the database, makes the tables of the schema in a new one, and brings older ones up to date. */
export function openTables(name: string): Promise<IDBPDatabase> {
  return openDB(name, VERSION, {
    upgrade(database, from) {
      if (from < 1) {
        createTables(database, TABLE_NAMES);
        database.createObjectStore(TEXTS, { keyPath: ["drawer", "number"] });
      } else if (from < 2) createTables(database, SYNC_TABLES);
    },
    blocking: (_current, _blocked, event) => (event.target as IDBDatabase).close(),
  });
}

function createTables(database: IDBPDatabase, tables: readonly TableName[]): void {
  const path = (columns: readonly string[]) => (columns.length === 1 ? columns[0]! : [...columns]);
  for (const table of tables) {
    const { key, indexes } = SCHEMA[table];
    const store = database.createObjectStore(table, { keyPath: path(key) });
    for (const [name, { columns, isUnique = false }] of Object.entries(indexes))
      store.createIndex(name, path(columns), { unique: isUnique });
  }
}
