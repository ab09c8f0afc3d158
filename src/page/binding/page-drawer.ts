import { DrawerError } from "../../content/error.js";
import { Drawer } from "../../drawer/drawer.js";
import type { Store } from "../../drawer/store.js";
import { openIndexedDb } from "../../stores/indexeddb/index.js";
import { MemoryStore } from "../../stores/memory.js";

/** The databases of the stores that were opened for pages. */
const databases = new WeakMap<Store, string>();

/** The name of the database in which a page keeps a store; nothing for a store that is elsewhere. */
export function databaseOf(store: Store): string | undefined {
  return databases.get(store);
}

/**
 * Opens a drawer that a page keeps in the browser, and asks the browser not to clear it away when room is short. Where the
 * browser keeps nothing for the page (a private window of some, a frame of another site), the drawer is in memory, and
 * `<snippet-drawer>` says so.
 *
 * @param options `database` is the name of the database, `name` that of the drawer in it
 * @throws DrawerError `store` when the database was written by a newer Drawer, `bad-option` for the name of a drawer
 */
export async function openPageDrawer({
  database = "drawer",
  name = "main",
}: { readonly database?: string; readonly name?: string } = {}): Promise<Drawer> {
  try {
    const drawer = new Drawer(await openIndexedDb(database), name);
    databases.set(drawer.store, database);
    // Whether it is granted changes nothing here; where a page may not ask, it is as if it had been refused.
    void navigator.storage?.persist?.().catch(() => false);
    return drawer;
  } catch (error) {
    if (!(error instanceof DrawerError) || error.reason !== "store/browser") throw error;
    return new Drawer(new MemoryStore(), name);
  }
}
