import { accessSync, chmodSync, constants, copyFileSync, existsSync, mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import { basename, dirname, join } from "node:path";
import { DrawerError } from "../../content/error.js";
import { notice, type Notice } from "../../content/notice.js";
import { whyNotOpened, sqliteErrors, sqliteNotices } from "../../messages/en/stores.js";
import { RowStore } from "../row-store.js";
import {
  closeFolder,
  Connection,
  DamagedFile,
  openConnection,
  reason,
  saysDamaged,
  saysReadOnly,
} from "./connection.js";
import { damaged, SqliteEngine } from "./engine.js";
import { isCutShort } from "./pages.js";
import { recover } from "./recover.js";
import { prepareTables } from "./tables.js";
import { finishWiping } from "./wipe.js";

/** A store in a SQLite database, through libsql. Made by {@link openSqlite}. */
export class SqliteStore extends RowStore {
  /** @internal */
  constructor(
    engine: SqliteEngine,
    /** What there is to say of how it was opened. */
    readonly notices: readonly Notice[],
  ) {
    super(engine);
  }
}

/** How a database is opened. */
export interface SqliteOptions {
  /**
   * Whether a damaged file is set aside, under a name that the store's notices tell, and what can be read of it is
   * brought into a new one. Otherwise it is refused, and left as it is.
   */
  readonly recover?: boolean;
  /** Is told for whom a write waits, when it has waited for two seconds. */
  readonly waiting?: (notice: Notice) => void;
}

/**
 * Opens a store in a SQLite database file, which is made, with its folder, when it is not there (folder 0700, file
 * 0600). Any number of processes may open it at once; every commit is on the disk before it is acknowledged. Tables of
 * an older Drawer are brought up to date, after a copy of the file was made beside it.
 *
 * @throws DrawerError `store` when the file cannot be opened or was written by a newer Drawer, `damaged` when it is no
 *   database, or a damaged one
 *
 * @example
 * ```js
 * import { mkdtempSync } from "node:fs";
 * import { tmpdir } from "node:os";
 * import { join } from "node:path";
 * import { Drawer, readText } from "drawer";
 * import { openSqlite } from "drawer/sqlite";
 *
 * const store = openSqlite(join(mkdtempSync(join(tmpdir(), "drawer-")), "drawers.db"));
 * await new Drawer(store, "spring").collect([{ ...readText("a wren"), origin: {} }]);
 * console.log((await store.drawers())[0]); // { drawer: 'spring', count: 1, bytes: 63 }
 * await store.close();
 * ```
 */
export function openSqlite(path: string, options: SqliteOptions = {}): SqliteStore {
  let database: Connection | undefined;
  try {
    if (existsSync(path) && isCutShort(path)) throw new DamagedFile("it is shorter than its head says");
    const wasOpen = closeFolder(path);
    database = openConnection(path);
    const copy = prepareTables(database, path);
    const notices: Notice[] = [];
    if (wasOpen) notices.push(notice(sqliteNotices, "closed", { folder: dirname(path) }));
    if (copy !== undefined) notices.push(notice(sqliteNotices, "recovered/updated", { copy }));
    finishWiping(database);
    return new SqliteStore(new SqliteEngine(database, path, options), notices);
  } catch (error) {
    database?.close();
    if (error instanceof DrawerError) throw error;
    if ((error as NodeJS.ErrnoException).code === "ELOOP")
      throw new DrawerError(sqliteErrors, "store/link", { path }, { cause: error });
    if (saysReadOnly(error) && canRead(path)) return openCopy(path);
    if (!saysDamaged(error))
      throw new DrawerError(sqliteErrors, "store/open", { path, why: whyOf(error) }, { cause: error });
    if (!options.recover) throw damaged(path, error);
    const recovered = recover(path);
    return new SqliteStore(
      new SqliteEngine(openConnection(path), path, options),
      recovered ? [recovered] : [],
    );
  }
}

function canRead(path: string): boolean {
  try {
    accessSync(path, constants.R_OK);
    return true;
  } catch {
    return false; // then the first error says why
  }
}

/** Opens a copy of a database that cannot be written, to be read; the copy goes when the store is closed. */
function openCopy(path: string): SqliteStore {
  const folder = mkdtempSync(join(tmpdir(), "drawer-read-"));
  const copy = join(folder, basename(path));
  for (const ending of ["", "-wal"]) {
    if (!existsSync(path + ending)) continue;
    copyFileSync(path + ending, copy + ending);
    chmodSync(copy + ending, 0o600);
  }
  const database = openConnection(copy);
  prepareTables(database, copy);
  return new SqliteStore(new SqliteEngine(database, path, {}, folder), [
    notice(sqliteNotices, "read-only", { folder: dirname(path) }),
  ]);
}

/**
 * Sets a damaged database aside, and brings what can be read of it into a new one in its place.
 * @returns what to say of it: where the damaged file is, and what was recovered; nothing when another process has done it
 */
export function recoverSqlite(path: string): Notice | undefined {
  return recover(path);
}

/** Why the database cannot be opened: by what the system calls it, or as it says it. */
function whyOf(error: unknown): keyof typeof whyNotOpened | { text: string } {
  const { code = "" } = error as NodeJS.ErrnoException;
  return Object.hasOwn(whyNotOpened, code) ? (code as keyof typeof whyNotOpened) : { text: reason(error) };
}
