import { chmodSync, closeSync, constants, mkdirSync, openSync, statSync } from "node:fs";
import { dirname } from "node:path";
import Database from "libsql";

/** What a database must be set to, at each opening, for a commit to be durable and for processes to share it. */
export const PRAGMAS = [
  // While a database is opened others may be making it.
  "busy_timeout = 30000",
  "journal_mode = WAL",
  "synchronous = FULL",
  // What is deleted is overwritten with zeros.
  "secure_delete = ON",
];

/** After how many milliseconds of waiting for other writers it is said, and after how many it is given up. */
const TOLD_AFTER = 2000;
const PATIENCE = 120_000;

/** A connection to a database, set as it must be, that prepares each statement once. */
export class Connection {
  /** Is told when another connection has kept this one from writing for {@link TOLD_AFTER}. */
  waiting: () => void = () => undefined;
  readonly #database: Database.Database;
  readonly #statements = new Map<string, Database.Statement>();

  constructor(path: string, pragmas: readonly string[] = PRAGMAS) {
    this.#database = new Database(path);
    for (const pragma of pragmas) this.#database.pragma(pragma);
    this.#database.pragma(`busy_timeout = ${TOLD_AFTER}`);
  }

  /** Begins to write; waits while others do, and tells of it when they do so for long. */
  #begin(): void {
    try {
      this.exec("BEGIN IMMEDIATE");
    } catch (error) {
      if (!saysBusy(error)) throw error;
      this.waiting();
      this.#database.pragma(`busy_timeout = ${PATIENCE}`);
      try {
        this.exec("BEGIN IMMEDIATE");
      } finally {
        this.#database.pragma(`busy_timeout = ${TOLD_AFTER}`);
      }
    }
  }

  /** Executes a statement. */
  run(sql: string, ...values: readonly unknown[]): void {
    this.#statement(sql).run(checked(values));
  }

  /** Executes an `INSERT`. Returns the number (rowid) of the row. */
  insert(sql: string, ...values: readonly unknown[]): number {
    return Number(this.#statement(sql).run(checked(values)).lastInsertRowid);
  }

  /** All rows. */
  all<Row>(sql: string, ...values: readonly unknown[]): Row[] {
    return this.#statement(sql).all(checked(values)) as Row[];
  }

  /** The first row; nothing when there is none. */
  get<Row>(sql: string, ...values: readonly unknown[]): Row | undefined {
    return this.#statement(sql).get(checked(values)) as Row | undefined;
  }

  #statement(sql: string): Database.Statement {
    let statement = this.#statements.get(sql);
    if (!statement) this.#statements.set(sql, (statement = this.#database.prepare(sql)));
    return statement;
  }

  /** Does statements that give nothing. */
  exec(sql: string): void {
    this.#database.exec(sql);
  }

  /** A number that a pragma gives. */
  pragma(name: string): number {
    const [row] = this.#database.pragma(name) as Record<string, number>[];
    return Object.values(row!)[0]!;
  }

  /** Does something in one transaction: all of it, durably, or nothing. */
  transact<Result>(deed: () => Result): Result {
    this.#begin();
    try {
      const result = deed();
      this.exec("COMMIT");
      return result;
    } catch (error) {
      this.#rollBack();
      throw error;
    }
  }

  /** After some errors, such as a full disk, SQLite has rolled back by itself. */
  #rollBack(): void {
    if (this.#database.inTransaction) this.exec("ROLLBACK");
  }

  /** Brings what stands in the write-ahead log into the file, as far as that is possible now. */
  checkpoint(): void {
    try {
      this.#database.pragma("wal_checkpoint(PASSIVE)");
    } catch (error) {
      if (!isOfTheDatabase(error)) throw error;
    }
  }

  close(): void {
    this.#statements.clear();
    this.#database.close();
  }
}

/**
 * Connects to a database file, which is made, with its folder, when it is not there; both are for their owner alone.
 * @throws the system's error `ELOOP` when a link stands in its place
 */
export function openConnection(path: string, pragmas: readonly string[] = PRAGMAS): Connection {
  mkdirSync(dirname(path), { recursive: true, mode: 0o700 });
  closeSync(openSync(path, constants.O_CREAT | constants.O_RDWR | (constants.O_NOFOLLOW ?? 0), 0o600));
  chmodSync(path, 0o600);
  return new Connection(path, pragmas);
}

/**
 * Closes a folder of drawers that others can look into. A folder that many use, such as the one for temporary files, is
 * not ours to close.
 *
 * @returns whether it was open
 */
export function closeFolder(path: string): boolean {
  const there = statSync(dirname(path), { throwIfNoEntry: false });
  const isOpen = there !== undefined && (there.mode & 0o077) !== 0 && (there.mode & 0o1000) === 0;
  if (!isOpen || there.uid !== process.getuid?.()) return false;
  chmodSync(dirname(path), 0o700);
  return true;
}

/** Whether an error says that the files cannot be written, though they may be read. */
export function saysReadOnly(error: unknown): boolean {
  const { code = "", message = "" } = error as { code?: string; message?: string };
  return /^(?:EROFS|EACCES|EPERM)$/.test(code) || /READONLY|readonly|read-only/.test(code + message);
}

/** Whether an error is one of the database, and not of a program that uses it. */
export function isOfTheDatabase(error: unknown): error is Error & { readonly code: string } {
  return error instanceof Database.SqliteError;
}

/** Whether an error says that another connection is writing. */
export function saysBusy(error: unknown): boolean {
  return isOfTheDatabase(error) && /BUSY|locked/.test(error.code + error.message);
}

/** Whether an error says that the disk is full, or takes nothing. */
export function saysFull(error: unknown): boolean {
  return (
    isOfTheDatabase(error) && (/FULL|IOERR/.test(error.code) || /disk is full|disk I\/O/.test(error.message))
  );
}

/** What an error of the database says, without a full stop. */
export function reason(error: unknown): string {
  return error instanceof Error ? error.message.replace(/\.$/, "") : String(error);
}

/** That a file is damaged, found before the database was asked. */
export class DamagedFile extends Error {}

/** Whether an error says that the file itself is damaged. */
export function saysDamaged(error: unknown): boolean {
  if (error instanceof DamagedFile) return true;
  const code = (error as { code?: string } | null)?.code ?? "";
  return /SQLITE_(CORRUPT|NOTADB)/.test(code) || /malformed|not a database/.test(reason(error));
}

/**
 * Values that the driver knows: it ends the whole process for any other.
 * @throws TypeError for another one
 */
function checked(values: readonly unknown[]): unknown[] {
  for (const value of values)
    if (!isBindable(value)) throw new TypeError(`A store takes no ${typeof value} as a value.`);
  // As one list: the driver would flatten many, which takes as long as some statements.
  return values as unknown[];
}

function isBindable(value: unknown): boolean {
  if (value === null || value === undefined || value instanceof Uint8Array) return true;
  return ["string", "number", "bigint"].includes(typeof value);
}
