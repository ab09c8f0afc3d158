import { isLeaving, type Change, type Edit } from "../../drawer/change.js";
import { encodeEntry, hashesOf, type Entry } from "../../drawer/entry.js";
import { Conflict, type Commit, type Forgetting } from "../../drawer/store.js";
import { isTrace, strike, tracesOf, withoutOpen, type Traces } from "../../drawer/traces.js";
import { hasComeAgain, secretsOf, sizeChanges } from "../records.js";
import { rowOf, textOf, type Row, type Tables, type Writing } from "./tables.js";

/** Under which name it is kept how often something was forgotten, so that other tabs notice. */
export const FORGOTTEN = "forgotten";

/** Writes a change and the contents it brings. */
export async function write(transaction: Writing, { change, contents }: Commit): Promise<void> {
  const secrets = secretsOf(change, contents);
  const secretNames = new Set(secrets.map(({ name }) => name));
  const now = Date.now();
  for (const { id, name } of secrets) {
    if (!(await transaction.objectStore("secrets").getKey([id, name])))
      await transaction.objectStore("secrets").put({ id, name, came: now, bytes: contents.get(name)! });
  }
  for (const [hash, bytes] of contents)
    if (!secretNames.has(hash)) await transaction.objectStore("contents").put(bytes, hash);
  const rows = await takeOut(transaction, change);
  const entries = transaction.objectStore("entries");
  let last = (await entries.index("byNumber").openKeyCursor(null, "prev"))?.key ?? 0;
  for (const { id, after } of change.edits) {
    if (!after) continue;
    const before = rows.get(id);
    const known = hasComeAgain(before ?? null, after) ? undefined : before;
    const row = rowOf(after, known?.number ?? ++last, known?.came ?? now);
    await entries.add(row);
    if (!before) await forgetGone(transaction, id);
    if (!after.private)
      await transaction
        .objectStore("texts")
        .put(await textOf(transaction, after), [after.drawer, row.number]);
  }
  for (const { name, before, after } of change.values ?? [])
    await writeValue(transaction, change.drawer, name, before, after);
  await resize(transaction, change.edits);
  await transaction.objectStore("changes").add(change);
}

/** Takes out what leaves or changes. Gives the rows as they were. */
async function takeOut(transaction: Writing, change: Change): Promise<Map<string, Row>> {
  const rows = new Map<string, Row>();
  const entries = transaction.objectStore("entries");
  for (const { id, before, after } of change.edits) {
    const row = await entries.get(id);
    if (encodeEntry(row ?? null) !== encodeEntry(before)) throw new Conflict(`Entry ${id} has changed.`);
    if (!row || !before) continue;
    rows.set(id, row);
    await entries.delete(id);
    await transaction.objectStore("texts").delete([row.drawer, row.number]);
    if (!after && isLeaving(change)) {
      const by = change.deed ?? change.what;
      await forgetGone(transaction, id);
      await transaction
        .objectStore("gone")
        .add({ id, drawer: before.drawer, at: change.at, by, entry: before });
    }
  }
  return rows;
}

async function forgetGone(transaction: Writing, id: string): Promise<number> {
  const key = await transaction.objectStore("gone").index("byId").getKey(id);
  if (key === undefined) return 0;
  await transaction.objectStore("gone").delete(key);
  return 1;
}

/** Writes a small value in place of what it must still be. */
export async function writeValue(
  transaction: Writing,
  drawer: string,
  name: string,
  before: string | undefined,
  after: string | undefined,
): Promise<void> {
  const settings = transaction.objectStore("settings");
  if ((await settings.get([drawer, name])) !== before) throw new Conflict(`“${name}” has changed.`);
  if (after === undefined) await settings.delete([drawer, name]);
  else await settings.put(after, [drawer, name]);
}

async function resize(transaction: Writing, edits: readonly Edit[]): Promise<void> {
  const sizes = transaction.objectStore("sizes");
  for (const { drawer, count: more, bytes: moreBytes } of sizeChanges(edits)) {
    const { count, bytes } = (await sizes.get(drawer)) ?? { count: 0, bytes: 0 };
    await sizes.put({ drawer, count: count + more, bytes: bytes + moreBytes });
  }
}

/** Forgets what is to be forgotten. Gives how many snippets that were. */
export async function forget(
  transaction: Writing,
  { drawer, ids, until, everything = false }: Forgetting,
): Promise<number> {
  const doomed = new Set(ids);
  const end = everything ? "\uffff" : (until ?? "");
  const [entries, gone] = [transaction.objectStore("entries"), transaction.objectStore("gone")];
  if (everything) {
    for await (const [id, entry] of recordsOf(tableOf(transaction, "entries")))
      if (entry.drawer === drawer && !entry.kept) doomed.add(id);
    for await (const [, one] of recordsOf(tableOf(transaction, "gone")))
      if (one.drawer === drawer) doomed.add(one.id);
  }
  const { logged, traces } = await tracesIn(transaction, doomed, ids !== undefined);
  let forgotten = 0;
  // What was private from its beginning shares no content with others.
  let wasOpen = end !== "";
  for (const id of doomed) {
    const row = await entries.get(id);
    if (row) {
      await entries.delete(id);
      await transaction.objectStore("texts").delete([row.drawer, row.number]);
      await resize(transaction, [{ id, before: row, after: null }]);
      wasOpen ||= !row.private;
    }
    if ((await forgetGone(transaction, id)) + (row ? 1 : 0) > 0) forgotten++;
  }
  for await (const [key, { entry, at }] of recordsOf(tableOf(transaction, "gone"))) {
    if (!isTrace(entry, traces) && !(entry.drawer === drawer && at <= end)) continue;
    await gone.delete(key);
    wasOpen ||= !entry.private;
    forgotten++;
  }
  if (await forgetChanges(transaction, { drawer, end, logged, traces })) wasOpen = true;
  await sweepSecrets(transaction);
  if (wasOpen) await sweepContents(transaction);
  const times = Number((await transaction.objectStore("settings").get(["", FORGOTTEN])) ?? 0);
  await transaction.objectStore("settings").put(String(times + 1), ["", FORGOTTEN]);
  return forgotten;
}

/** The changes of all logs, by their keys, from the oldest on. */
type Logged = ReadonlyMap<number, Change>;

/** The traces of snippets; and the log, read when there are any. */
async function tracesIn(
  transaction: Writing,
  doomed: ReadonlySet<string>,
  ofSecrets: boolean,
): Promise<{ logged: Logged; traces: Traces }> {
  const logged = new Map<number, Change>();
  if (doomed.size === 0) return { logged, traces: { ids: doomed, contents: new Set() } };
  for await (const [key, change] of recordsOf(tableOf(transaction, "changes"))) logged.set(key, change);
  const found = tracesOf(doomed, [...logged.values()]);
  if (!ofSecrets || found.contents.size === 0)
    return { logged, traces: { ids: found.ids, contents: new Set() } };
  const open: Entry[] = [];
  for await (const [id, entry] of recordsOf(tableOf(transaction, "entries")))
    if (!doomed.has(id)) open.push(entry);
  return { logged, traces: withoutOpen(found, open) };
}

/**
 * Forgets a drawer's log up to a time, and takes traces out of the logs of all drawers. Gives whether a log said more of
 * them than that they were there.
 */
async function forgetChanges(
  transaction: Writing,
  { drawer, end, logged, traces }: { drawer: string; end: string; logged: Logged; traces: Traces },
): Promise<boolean> {
  const changes = transaction.objectStore("changes");
  const struck = strike([...logged.values()], traces);
  let wasOpen = false;
  for (const [key, change] of logged) {
    if (!struck.has(change)) continue;
    const after = struck.get(change);
    wasOpen ||= change.edits.some(({ before, after: then }) =>
      [before, then].some((entry) => entry && !entry.private && isTrace(entry, traces)),
    );
    if (after) await changes.put(after, key);
    else await changes.delete(key);
  }
  if (end !== "")
    for await (const [key, change] of recordsOf(tableOf(transaction, "changes")))
      if (change.drawer === drawer && change.at <= end) await changes.delete(key);
  return wasOpen;
}

/** How many records are read at once. */
const PAGE = 500;

/** The records of a table and their keys, read in pages. */
async function* recordsOf<Name extends "entries" | "gone" | "changes">(
  store: ReturnType<typeof tableOf<Name>>,
): AsyncGenerator<[Tables[Name]["key"], Tables[Name]["value"]]> {
  for (let range: IDBKeyRange | undefined; ;) {
    const [keys, values] = await Promise.all([store.getAllKeys(range, PAGE), store.getAll(range, PAGE)]);
    for (const [at, key] of keys.entries()) yield [key, values[at]!];
    if (keys.length < PAGE) return;
    range = IDBKeyRange.lowerBound(keys.at(-1)!, true);
  }
}

function tableOf<Name extends "entries" | "gone" | "changes">(transaction: Writing, name: Name) {
  return transaction.objectStore(name);
}

/** Drops the contents of private snippets that are not there any more. */
async function sweepSecrets(transaction: Writing): Promise<void> {
  for (const [id, name] of await transaction.objectStore("secrets").getAllKeys()) {
    const isThere =
      (await transaction.objectStore("entries").getKey(id)) ??
      (await transaction.objectStore("gone").index("byId").getKey(id));
    if (isThere === undefined) await transaction.objectStore("secrets").delete([id, name]);
  }
}

/** Drops the contents that nothing needs any more. */
async function sweepContents(transaction: Writing): Promise<void> {
  const used = new Set<string>();
  const use = (entry: Entry | null) => entry && hashesOf(entry).forEach((hash) => used.add(hash));
  for await (const [, entry] of recordsOf(tableOf(transaction, "entries"))) use(entry);
  for await (const [, { entry }] of recordsOf(tableOf(transaction, "gone"))) use(entry);
  for await (const [, { edits }] of recordsOf(tableOf(transaction, "changes")))
    for (const { before, after } of edits) [before, after].forEach(use);
  for (const hash of await transaction.objectStore("contents").getAllKeys())
    if (!used.has(hash)) await transaction.objectStore("contents").delete(hash);
}
