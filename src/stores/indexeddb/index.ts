import { DrawerError } from "../../content/error.js";
import { indexeddbErrors } from "../../messages/en/stores.js";
import { RowStore } from "../row-store.js";
import { IndexedDbEngine } from "./engine.js";
import { openTables } from "./tables.js";

/** A store in IndexedDB. Made by {@link openIndexedDb}. */
export type IndexedDbStore = RowStore;

/**
 * Opens a store in the browser's IndexedDB. Tabs of one origin share it, and each hears of the others' changes.
 *
 * @param name the name of the database
 * @throws DrawerError `store` when the browser does not allow it, or it was written by a newer Drawer
 */
export async function openIndexedDb(name = "drawer"): Promise<IndexedDbStore> {
  try {
    return new RowStore(new IndexedDbEngine(await openTables(name), name));
  } catch (error) {
    const { name: kind, message = String(error) } = error as Partial<DOMException>;
    if (kind === "VersionError")
      throw new DrawerError(indexeddbErrors, "store/browser-newer", {}, { cause: error });
    throw new DrawerError(indexeddbErrors, "store/browser", { reason: message }, { cause: error });
  }
}
