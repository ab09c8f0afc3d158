import { join } from "node:path";
import { DrawerError, reasonOf } from "../content/error.js";
import { notice, type Notice } from "../content/notice.js";
import { Drawer } from "../drawer/drawer.js";
import { openSqlite, recoverSqlite, type SqliteStore } from "../stores/sqlite/index.js";
import { clearDrafts } from "./drafts.js";
import { home } from "./home-folder.js";
import { remark } from "./terminal.js";
import { placingNotices } from "../messages/en/notices/placing.js";

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
    say(await retained(drawer));
    return await use(drawer);
  } finally {
    await store.close();
  }
}

/**
 * Does what is due. Should that fail, whatever the reason, it is told and tried again next time: it never keeps the user
 * from what they came for.
 */
async function retained(drawer: Drawer): Promise<readonly Notice[]> {
  if (drawer.store.isReadOnly) return [];
  try {
    return await drawer.applyRetention();
  } catch (error) {
    if (error instanceof DrawerError && error.code === "damaged") throw error;
    const why = reasonOf(error);
    return [notice(placingNotices, "waits", { why })];
  }
}

function say(notices: readonly Notice[]): void {
  for (const { message } of notices) remark(message + "\n");
}
