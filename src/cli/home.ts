import { existsSync } from "node:fs";
import { DrawerError } from "../content/error.js";
import { notice, type Notice } from "../content/notice.js";
import { retainDue } from "../drawer/collecting-session.js";
import { Drawer } from "../drawer/drawer.js";
import { closestOf } from "../messages/core/closest.js";
import { cliNotices } from "../messages/en/cli.js";
import type { SqliteStore } from "../stores/sqlite/index.js";
import { clearDrafts } from "./drafts.js";
import { databaseFile, filesFolder } from "./home-folder.js";
import { remark } from "./terminal.js";

/** The drawer that is used where none is named. */
export const MAIN = "main";

/**
 * Opens a drawer, does what is due in it, uses it, and closes it whatever happens. What is said of the opening goes to
 * standard error, so that the command's own answer stays its own. Should the file turn out to be damaged on the way, it
 * is set aside and recovered, and the command begins again.
 */
export async function withDrawer<Result>(
  name: string,
  use: (drawer: Drawer) => Promise<Result>,
): Promise<Result> {
  // Where the database was left out of the installation, that is told as a refusal.
  const { openSqlite, recoverSqlite } = await import("../stores/sqlite/index.js");
  const path = databaseFile();
  try {
    clearDrafts();
    return await useStore(openSqlite(path, { recover: true, waiting }), name, use);
  } catch (error) {
    if (!(error instanceof DrawerError) || error.code !== "damaged") throw error;
    const recovered = recoverSqlite(path);
    if (recovered) say([recovered]);
    return useStore(openSqlite(path, { waiting }), name, use);
  }
}

/** Tells whom a command waits for. */
function waiting(told: Notice): void {
  say([told]);
}

async function useStore<Result>(
  store: SqliteStore,
  name: string,
  use: (drawer: Drawer) => Promise<Result>,
): Promise<Result> {
  try {
    say(store.notices);
    const drawer = new Drawer(store, name);
    say(await retainDue(drawer));
    if (existsSync(filesFolder())) say(await (await import("./file-acts.js")).settleFileChanges(drawer));
    await tellWhetherNew(drawer);
    return await use(drawer);
  } finally {
    await store.close();
  }
}

/** A drawer that nobody has used yet may be another one mistyped. */
async function tellWhetherNew(drawer: Drawer): Promise<void> {
  if (drawer.name === MAIN || (await drawer.count()) > 0) return;
  const names = (await drawer.store.drawers()).map((one) => one.drawer);
  const near = names.includes(drawer.name) ? undefined : closestOf(drawer.name, names);
  if (near !== undefined) say([notice(cliNotices, "new-drawer", { drawer: drawer.name, near })]);
}

function say(notices: readonly Notice[]): void {
  for (const { message } of notices) remark(message + "\n");
}
