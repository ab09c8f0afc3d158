import { DrawerError } from "../../content/error.js";
import { Drawer } from "../../drawer/drawer.js";
import type { Store } from "../../drawer/store.js";
import { openIndexedDb } from "../../stores/indexeddb/index.js";
import type { CopiedOnPage } from "../capture/copies.js";
import { EarlyCopies } from "./early-copies.js";

/** The databases of the stores that were opened for pages. */
const databases = new WeakMap<Store, string>();

/** The name of the database in which a page keeps a store; nothing for a store that is elsewhere. */
export function databaseOf(store: Store): string | undefined {
  return databases.get(store);
}

/** What was copied on the page while the drawer of a store was being opened. */
const early = new WeakMap<Store, EarlyCopies>();

/** Gives what was copied on the page while this drawer was being opened, once. */
export function copiedBefore({ store }: Drawer): readonly CopiedOnPage[] {
  return early.get(store)?.take() ?? [];
}

/**
 * Opens a drawer that a page keeps in the browser, and asks the browser not to clear it away when room is short. Where the
 * browser keeps nothing for the page (a private window of some, a frame of another site), the drawer is in memory, and
 * `<snippet-drawer>` says so. What is copied on the page in the meantime is collected as soon as the drawer is bound.
 *
 * @param options `database` is the name of the database, `name` that of the drawer in it
 * @throws DrawerError `store` when the database was written by a newer Drawer, `bad-option` for the name of a drawer
 */
export async function openPageDrawer({
  database = "drawer",
  name = "main",
}: { readonly database?: string; readonly name?: string } = {}): Promise<Drawer> {
  const copies = typeof document === "undefined" ? undefined : new EarlyCopies();
  const drawer = await open(database, name).catch((error: unknown) => {
    copies?.take();
    throw error;
  });
  if (copies) early.set(drawer.store, copies);
  return drawer;
}

async function open(database: string, name: string): Promise<Drawer> {
  try {
    const drawer = new Drawer(await openIndexedDb(database), name);
    databases.set(drawer.store, database);
    // Whether it is granted changes nothing here; where a page may not ask, it is as if it had been refused.
    void navigator.storage?.persist?.().catch(() => false);
    return drawer;
  } catch (error) {
    if (!(error instanceof DrawerError) || error.reason !== "store/browser") throw error;
    const { MemoryStore } = await import("../../stores/memory.js");
    return new Drawer(new MemoryStore(), name);
  }
}
