import { readFileSync } from "node:fs";
import { DrawerError } from "../content/error.js";
import { notice, type Notice } from "../content/notice.js";
import { chordText, parseChord } from "../desktop/chord.js";
import { cliErrors, cliNotices } from "../messages/en/cli.js";
import type { OwnKey } from "../page/binding/host-desktop.js";
import { keysFile } from "./home-folder.js";
import { writeNewFile } from "./output.js";
import { UsageError } from "./refusal.js";

/** The user's own keys: what each does, by how it is written. */
export type Keys = Readonly<Record<string, string>>;

/**
 * The keys that are kept; none before the first was set.
 * @throws DrawerError `unreadable`
 */
export function readKeys(): Keys {
  const file = keysFile();
  try {
    const keys: unknown = JSON.parse(readFileSync(file, "utf8"));
    const isSound = typeof keys === "object" && keys !== null && !Array.isArray(keys);
    if (isSound && Object.values(keys).every((act) => typeof act === "string")) return keys as Keys;
    throw new DrawerError(cliErrors, "unreadable/keys", { file });
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === "ENOENT") return {};
    if (error instanceof SyntaxError)
      throw new DrawerError(cliErrors, "unreadable/keys", { file }, { cause: error });
    throw error;
  }
}

/** Keeps keys in place of those before. */
async function writeKeys(keys: Keys): Promise<void> {
  await writeNewFile(keysFile(), `${JSON.stringify(keys, null, 2)}\n`, { overwrite: true, isPrivate: true });
}

/**
 * Sets what keys do; an empty act takes a key back. Returns what is told of it.
 * @throws DrawerError `unreadable`
 */
export async function changeKeys(set: readonly OwnKey[]): Promise<readonly Notice[]> {
  const changed = new Map(Object.entries(readKeys()));
  for (const { key, act } of set) {
    if (act === "") changed.delete(key);
    else changed.set(key, act);
  }
  await writeKeys(Object.fromEntries(changed));
  return set.map(({ key, act }) =>
    act === "" ? notice(cliNotices, "key/removed", { key }) : notice(cliNotices, "key/set", { key, act }),
  );
}

/**
 * Reads what sets a key, or takes it back: `Super+F9=place last`, `Super+F9=`.
 * @throws UsageError `bad-option`
 * @throws DrawerError `bad-key`, `bad-pick`, `bad-option`
 */
export async function parseKey(typed: string): Promise<OwnKey> {
  const parted = /^([^=]+)=(.*)$/s.exec(typed);
  if (!parted) throw new UsageError("bad-option/key", { typed });
  const [key, act] = [chordText(parseChord(parted[1]!)), parted[2]!.trim()];
  if (act !== "") (await import("./desktop-actions.js")).parseAction(act);
  return { key, act };
}
