import { createHash } from "node:crypto";
import { readdirSync, readFileSync } from "node:fs";
import { dirname, join, resolve } from "node:path";
import Database from "libsql";
import { Drawer, readText } from "../dist/index.js";
import { openSqlite } from "../dist/stores/sqlite/index.js";
import { VERSION } from "../dist/stores/sqlite/tables.js";
import { drawer, inFolder, integrity, run } from "./support.mjs";

const sha = (file) => createHash("sha256").update(readFileSync(file)).digest("hex");
const update = (file) => run([process.execPath, resolve("faults/update-worker.mjs"), file]);

/**
 * A home from a newer version is refused and left as it is; one from an older version is brought up to date, once, with
 * a copy beside it, however many come upon it. The newer one is made up (test/stores/homes.test.ts opens real older ones).
 */
export const otherVersions = ({ count = 500 } = {}) =>
  inFolder(async (folder) => {
    const newer = join(folder, "newer", "drawers.db");
    await drawer(join(folder, "newer"), ["collect"], { input: "from the future" });
    sqlite(newer, (future) => future.exec("PRAGMA user_version = 99"));
    const before = sha(newer);
    const refused = await drawer(join(folder, "newer"), ["list"]);
    const isRefused =
      refused.code === 1 && refused.err.includes("written by a newer Drawer") && sha(newer) === before;

    const older = join(folder, "older", "drawers.db");
    const store = openSqlite(older);
    const pieces = Array.from({ length: count }, (_, n) => ({ ...readText(`piece ${n}`), origin: {} }));
    await new Drawer(store).collect(pieces);
    await store.close();
    const made = (await Promise.all(Array.from({ length: 4 }, () => update(older)))).filter(
      ({ code, out }) => code === 0 && out.trim() !== "",
    );
    const copies = readdirSync(dirname(older)).filter((name) => name.includes(".form-"));
    const entries = (file) =>
      sqlite(file, (database) => database.prepare("SELECT count(*) AS n FROM entries").get().n);
    const isCopied = copies.join() === `drawers.form-${VERSION}.db` && made.length >= 1;
    const copy = join(dirname(older), copies[0] ?? "none");
    const isWhole =
      isCopied && entries(copy) === count && entries(older) === count && integrity(older) === "ok";
    const versions = isCopied ? [versionOf(copy), versionOf(older)] : [];
    const isMoved = isWhole && versions.join() === `${VERSION},${VERSION + 1}`;
    return {
      passed: isRefused && isMoved,
      said: `a home from a newer version: ${isRefused ? "refused, unharmed" : "NOT refused"}; from an older one, opened by four at once: ${isMoved ? `${count} of ${count} there, brought up to date once, a copy beside it` : "NOT brought up to date"}`,
    };
  });

function sqlite(file, use) {
  const database = new Database(file);
  try {
    return use(database);
  } finally {
    database.close();
  }
}

function versionOf(file) {
  return sqlite(file, (database) => Object.values(database.prepare("PRAGMA user_version").get())[0]);
}
