import { runNow } from "../engine.js";
import { value } from "../queries.js";
import { STORE_VALUES } from "../schema.js";
import { noteWiped } from "../semantics.js";
import { saysBusy, saysFull, type Connection } from "./connection.js";
import { SqlRows } from "./rows.js";

/**
 * Empties the write-ahead log, and, when more than the contents of private snippets was forgotten, writes all that is
 * there anew, so that no trace stays of what is not there.
 *
 * @returns whether the log could be emptied; it cannot while another connection reads from it
 */
export function wipe(database: Connection, isEverywhere: boolean): boolean {
  if (isEverywhere) {
    database.exec("INSERT INTO found (found) VALUES ('optimize')");
    database.exec("VACUUM");
  }
  return database.pragma("wal_checkpoint(TRUNCATE)") === 0;
}

/** Wipes out what a process had forgotten that was killed before it could; while others have the file open, later. */
export function finishWiping(database: Connection): void {
  const rows = new SqlRows(database);
  const pending = runNow(value("", STORE_VALUES.wipe), rows);
  if (pending === undefined) return;
  try {
    if (wipe(database, pending !== "secrets")) runNow(noteWiped(), rows);
  } catch (error) {
    if (!saysBusy(error) && !saysFull(error)) throw error;
  }
}
