/**
 * For those who write a store: the interface of an engine, which carries rows and knows nothing of drawers, and the store
 * that stands over any of them. `stores/memory.ts` is the plainest engine, and the shortest to read.
 */
export { decodeContent, encodeContent, hashBytes, type Hash } from "../content/encode.js";
export {
  Conflict,
  type ChangeQuery,
  type Commit,
  type DrawerSize,
  type EntryQuery,
  type FindQuery,
  type Forgetting,
  type Gone,
  type OldestQuery,
  type Positioned,
  type PrivateEntry,
  type Reverted,
  type Store,
} from "../drawer/store.js";
export * from "./engine.js";
export { RowStore } from "./row-store.js";
export { SCHEMA, TABLE_NAMES, type TableName, type Tables, type TableSchema } from "./schema.js";
