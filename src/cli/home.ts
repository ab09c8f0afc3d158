import { join } from "node:path";
import envPaths from "env-paths";
import { DrawerError } from "../content/error.js";
import type { Notice } from "../content/notice.js";
import { Drawer } from "../drawer/drawer.js";
import { openSqlite, recoverSqlite, type SqliteStore } from "../stores/sqlite.js";
import { remark } from "./terminal.js";

/** The folder in which this user's drawers live: `DRAWER_HOME`, or the user's data folder. */
export function home(): string {
  return process.env["DRAWER_HOME"] || envPaths("drawer", { suffix: "" }).data;
}

/**
 * Opens a drawer, does what is due in it, uses it, and closes it whatever happens. What is said of the opening goes to
 * standard error, so that the command's own answer stays its own. Should the file turn out to be damaged on the way, it
 * is set aside and recovered, and the command begins again.
 */
export async function withDrawer<Result>(
  name: string,
  use: (drawer: Drawer) => Promise<Result>,
): Promise<Result> {
  const path = join(home(), "drawers.db");
  try {
    return await useStore(openSqlite(path, { recover: true, waiting }), name, use);
  } catch (error) {
    if (!(error instanceof DrawerError) || error.code !== "damaged") throw error;
    const notice = recoverSqlite(path);
    if (notice) say([notice]);
    return useStore(openSqlite(path, { waiting }), name, use);
  }
}

/** Tells whom a command waits for. */
function waiting(sentence: string): void {
  remark(`${sentence}\n`);
}

async function useStore<Result>(
  store: SqliteStore,
  name: string,
  use: (drawer: Drawer) => Promise<Result>,
): Promise<Result> {
  try {
    say(store.notices);
    const drawer = new Drawer(store, name);
    say(await tended(drawer));
    return await use(drawer);
  } finally {
    await store.close();
  }
}

/** What was due. On a full disk it waits, and what the user came for can still be done. */
async function tended(drawer: Drawer): Promise<readonly Notice[]> {
  try {
    return await drawer.tend();
  } catch (error) {
    if (!(error instanceof DrawerError) || error.code !== "store") throw error;
    return [{ code: "aged", message: `What is due by age waits: ${error.message}` }];
  }
}

function say(notices: readonly Notice[]): void {
  for (const { message } of notices) remark(message + "\n");
}
