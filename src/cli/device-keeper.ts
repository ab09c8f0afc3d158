import { readFile, rm } from "node:fs/promises";
import { DrawerError } from "../content/error.js";
import { syncErrors } from "../messages/en/sync.js";
import type { RowStore } from "../stores/row-store.js";
import { SyncClient } from "../sync/client.js";
import { readSecrets, writeSecrets, type SecretKeeper } from "../sync/state.js";
import { deviceFile } from "./home-folder.js";
import { writeNewFile } from "./output.js";

/** Keeps the secrets of this device in a file of the home, which its owner alone can read. */
const keeper: SecretKeeper = {
  async read() {
    const file = deviceFile();
    const text = await readFile(file, "utf8").catch((error: NodeJS.ErrnoException) => {
      if (error.code === "ENOENT") return undefined;
      throw error;
    });
    if (text === undefined) return undefined;
    const secrets = readSecrets(text);
    if (!secrets) throw new DrawerError(syncErrors, "not-joined/secrets", { file });
    return secrets;
  },
  async write(secrets) {
    if (!secrets) return rm(deviceFile(), { force: true });
    await writeNewFile(deviceFile(), writeSecrets(secrets), { overwrite: true, isPrivate: true });
  },
};

/** This home's part in a group of devices. */
export function syncClient(store: RowStore): SyncClient {
  return new SyncClient(store, keeper);
}
