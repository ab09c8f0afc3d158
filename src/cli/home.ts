import { join } from "node:path";
import envPaths from "env-paths";
import { Drawer } from "../drawer/drawer.js";
import { openSqlite } from "../stores/sqlite.js";

/** The folder in which this user's drawers live: `DRAWER_HOME`, or the user's data folder. */
export function home(): string {
  return process.env["DRAWER_HOME"] || envPaths("drawer", { suffix: "" }).data;
}

/** Opens a drawer, does something with it, and closes it whatever happens. */
export async function withDrawer<Result>(
  name: string,
  use: (drawer: Drawer) => Promise<Result>,
): Promise<Result> {
  const store = openSqlite(join(home(), "drawers.db"));
  try {
    return await use(new Drawer(store, name));
  } finally {
    await store.close();
  }
}
