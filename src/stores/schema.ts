import type { Hash } from "../content/encode.js";
import type { OperationName } from "../drawer/model/change.js";
import type { DrawerSize } from "../drawer/store.js";

/** A snippet. Its columns are what is asked for; all that it is stands in `entry`. */
export interface EntryRow {
  /** Assigned by the engine, in the order in which snippets come. */
  readonly number?: number;
  readonly id: string;
  readonly drawer: string;
  readonly order: string;
  readonly kind: string;
  readonly document: string | null;
  readonly kept: 0 | 1;
  /** For one that age and limits may take out: 1 for a picture, 0 for anything else. Null for one that is kept. */
  readonly age: 0 | 1 | null;
  /** When it came into its drawer, in milliseconds since 1970. */
  readonly came: number;
  /** The entry, as {@link encodeEntry} writes it. */
  readonly entry: string;
}

/** The bytes of a content or a picture. */
export interface ContentRow {
  readonly hash: Hash;
  readonly bytes: Uint8Array;
}

/** The bytes of a content or a picture of a private snippet: apart from the others, so that they can be wiped out. */
export interface SecretRow {
  /** The snippet's id. */
  readonly id: string;
  readonly name: Hash;
  /** When it came, in milliseconds since 1970. */
  readonly came: number;
  readonly bytes: Uint8Array;
}

/** A change in the log. */
export interface ChangeRow {
  /** Assigned by the engine, in the order of the log. */
  readonly number?: number;
  readonly drawer: string;
  /** ISO 8601, in UTC. */
  readonly at: string;
  /** The change, as JSON. */
  readonly change: string;
}

/** A snippet that has left its drawer and can be brought back. */
export interface GoneRow {
  /** Assigned by the engine, in the order of leaving. */
  readonly number?: number;
  readonly id: string;
  readonly drawer: string;
  /** ISO 8601, in UTC. */
  readonly at: string;
  readonly by: OperationName;
  /** The entry, as {@link encodeEntry} writes it. */
  readonly entry: string;
}

/** A small named value of a drawer, as JSON; those of no drawer (`""`) belong to the store itself. */
export interface ValueRow {
  readonly drawer: string;
  readonly name: string;
  readonly value: string;
}

/** A snippet that was changed here since the other devices were last told; kept while the store is one of several devices. */
export interface TouchedRow {
  readonly id: string;
  readonly why: WhyTouched;
  /** When, in milliseconds since 1970. */
  readonly at: number;
}

/**
 * What has become of a snippet: it came or was changed, was taken out by a person, left by limits or age, was made private, was
 * forgotten for good; or others are to be told again what it is.
 */
export type WhyTouched = "changed" | "gone" | "evicted" | "withdrawn" | "forgotten" | "again";

/** What is known of a snippet on all devices. */
export interface SyncedRow {
  readonly id: string;
  /** Why it is not here though others have it; null where it is as the registers say. */
  readonly absent: WhyAbsent | null;
  /** The registers of `sync/registers.ts`, as JSON. */
  readonly registers: string;
}

/** Why a snippet that others have is not here: it left by limits or age, there is no room, or its content has not come. */
export type WhyAbsent = "evicted" | "waiting" | "missing";

/** A sealed record that the hub has not taken yet. */
export interface OutboxRow {
  /** The number of the record among those of this device. */
  readonly number?: number;
  readonly record: Uint8Array;
  /** The hashes of the contents that go with it, as JSON. */
  readonly contents: string;
}

/** The rows of each table. */
export interface Tables {
  readonly entries: EntryRow;
  readonly contents: ContentRow;
  readonly secrets: SecretRow;
  readonly changes: ChangeRow;
  readonly gone: GoneRow;
  readonly sizes: DrawerSize;
  readonly values: ValueRow;
  readonly touched: TouchedRow;
  readonly synced: SyncedRow;
  readonly outbox: OutboxRow;
}

/** The name of a table. */
export type TableName = keyof Tables;

/** A value of a key. */
export type Key = string | number;

/** How a table is laid out. */
export interface TableSchema {
  /** The columns of the primary key. A single column `number` is assigned by the engine: one more than the last. */
  readonly key: readonly string[];
  /** All columns, and what they hold. */
  readonly columns: Readonly<Record<string, "text" | "integer" | "bytes">>;
  /** Those of them that may be null. */
  readonly nullable?: readonly string[];
  /** Rows in which a column of an index is null are not in that index. */
  readonly indexes: Readonly<Record<string, IndexSchema>>;
  /** The column of JSON that `holding` of a range looks into. */
  readonly body?: string;
}

/** How an index is laid out. */
export interface IndexSchema {
  readonly columns: readonly string[];
  readonly isUnique?: boolean;
}

/** The tables of a store, from which each engine makes its own. A change here is a new version of the tables. */
export const SCHEMA: { readonly [Name in TableName]: TableSchema } = {
  entries: {
    key: ["number"],
    columns: {
      number: "integer",
      id: "text",
      drawer: "text",
      order: "text",
      kind: "text",
      document: "text",
      kept: "integer",
      age: "integer",
      came: "integer",
      entry: "text",
    },
    nullable: ["document", "age"],
    indexes: {
      byId: { columns: ["id"], isUnique: true },
      inOrder: { columns: ["drawer", "order"], isUnique: true },
      byAge: { columns: ["drawer", "age", "number"] },
    },
    body: "entry",
  },
  contents: { key: ["hash"], columns: { hash: "text", bytes: "bytes" }, indexes: {} },
  secrets: {
    key: ["id", "name"],
    columns: { id: "text", name: "text", came: "integer", bytes: "bytes" },
    indexes: { byName: { columns: ["name"] } },
  },
  changes: {
    key: ["number"],
    columns: { number: "integer", drawer: "text", at: "text", change: "text" },
    indexes: { ofDrawer: { columns: ["drawer", "number"] } },
    body: "change",
  },
  gone: {
    key: ["number"],
    columns: {
      number: "integer",
      id: "text",
      drawer: "text",
      at: "text",
      by: "text",
      entry: "text",
    },
    indexes: {
      byId: { columns: ["id"], isUnique: true },
      ofDrawer: { columns: ["drawer", "number"] },
    },
    body: "entry",
  },
  sizes: { key: ["drawer"], columns: { drawer: "text", count: "integer", bytes: "integer" }, indexes: {} },
  values: { key: ["drawer", "name"], columns: { drawer: "text", name: "text", value: "text" }, indexes: {} },
  touched: { key: ["id"], columns: { id: "text", why: "text", at: "integer" }, indexes: {} },
  synced: {
    key: ["id"],
    columns: { id: "text", absent: "text", registers: "text" },
    nullable: ["absent"],
    indexes: { byAbsence: { columns: ["absent", "id"] } },
  },
  outbox: {
    key: ["number"],
    columns: { number: "integer", record: "bytes", contents: "text" },
    indexes: {},
  },
};

/** The tables that the second version of the tables has, and the first had not. */
export const SYNC_TABLES = ["touched", "synced", "outbox"] as const;

/** The names of all tables. */
export const TABLE_NAMES = Object.keys(SCHEMA) as TableName[];

/** The columns of an index, or of the primary key when none is named. */
export function columnsOf(table: TableName, index?: string): readonly string[] {
  return index === undefined ? SCHEMA[table].key : SCHEMA[table].indexes[index]!.columns;
}

/** Whether a table's primary key is a number that the engine assigns. */
export function isNumbered(table: TableName): boolean {
  return SCHEMA[table].key[0] === "number";
}

/** The names of the values that belong to the store itself, and not to a drawer. */
export const STORE_VALUES = {
  /** How often something was forgotten: who holds copies of rows reads them again. */
  forgotten: "forgotten",
  /** What has been forgotten and not been wiped out yet, so that a killed process does not end it. */
  wipe: "wipe",
  /** What this device knows of the others, where the store is one of several: see `sync/state.ts`. */
  sync: "sync",
} as const;
