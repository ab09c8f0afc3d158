import { STORE_VALUES } from "../semantics.js";
import { saysBusy, type Connection } from "./connection.js";

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
  const named = ["", STORE_VALUES.wipe];
  const sql = `SELECT value FROM "values" WHERE drawer = ? AND name = ?`;
  const pending = database.get<{ value: string }>(sql, ...named);
  if (!pending) return;
  try {
    if (wipe(database, pending.value !== "secrets"))
      database.run(`DELETE FROM "values" WHERE drawer = ? AND name = ?`, ...named);
  } catch (error) {
    if (!saysBusy(error)) throw error;
  }
}
