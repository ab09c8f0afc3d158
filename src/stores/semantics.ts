import { hashBytes, type Hash } from "../content/encode.js";
import {
  changeOf,
  entriesIn,
  isLeaving,
  isSameGroup,
  isTakingOut,
  reversed,
  reversedValues,
  type Change,
  type Edit,
  type ValueEdit,
} from "../drawer/model/change.js";
import { encodeEntry, hashesOf, type Entry } from "../drawer/model/entry.js";
import { newId } from "../drawer/model/ids.js";
import { VALUES } from "../drawer/model/values.js";
import { Conflict, type Commit, type Forgetting, type Reverted } from "../drawer/store.js";
import { isTrace, strike, survivorsOf, tracesOf, withoutOpen, type Traces } from "../drawer/traces.js";
import { ask, type Job, type WipeReach } from "./engine.js";
import { changeIn, each, entryOf, mentions, size, value } from "./queries.js";
import { STORE_VALUES, type ChangeRow, type EntryRow, type WhyTouched } from "./schema.js";

/**
 * Makes a change: checks that each edit's `before` still stands, and writes what it means for every table.
 * @throws Conflict when a `before` no longer stands, or an `after` would take another entry's place in the order
 */
export function* commit(one: Commit): Job<void> {
  const now = Date.now();
  yield* write(one, now);
  yield* log(one.change);
  yield* noteTouched(one.change, now);
}

/**
 * The same, but for the log and for what other devices are to be told: for what came from them.
 * @throws Conflict
 */
export function* write({ change, contents }: Commit, now = Date.now()): Job<void> {
  yield* writeContents(change, contents, now);
  const rows = yield* standingRows(change.edits);
  const taken = yield* takeOut(change, rows);
  // What is collected or imported is new, and nothing of it has left before.
  const mayHaveLeft = change.operation !== "collect" && change.operation !== "import";
  // Those that keep their numbers first: a new one could be given the number of one that was taken out for a moment.
  const isNew = ({ before, after }: Edit) => !before || hasComeAgain(before, after!);
  const written = change.edits.filter(({ after }) => after);
  const staying = written.filter((edit) => !isNew(edit));
  const coming = written.filter(isNew);
  for (const { id, before, after } of [...staying, ...coming]) {
    yield* putEntry(after!, before, rows.get(id), taken.has(id), now);
    if (!before && mayHaveLeft) yield* dropGone(id);
  }
  for (const edit of change.values ?? []) yield* setValue(change.drawer, edit);
  yield* resize(change.edits);
}

/** Notes what the other devices are to be told of, where there are any. */
function* noteTouched(change: Change, at: number): Job<void> {
  if (!(yield* isSynced())) return;
  for (const edit of change.edits)
    yield* ask((all) => all.put("touched", { id: edit.id, why: whyTouched(change, edit), at }));
}

/** Whether the store is one of several devices. */
function* isSynced(): Job<boolean> {
  return (yield* value("", STORE_VALUES.sync)) !== undefined;
}

function whyTouched(change: Change, { before, after }: Edit): WhyTouched {
  if ((after ?? before)!.private) return "withdrawn";
  if (after) return "changed";
  return isTakingOut(change) ? "gone" : "evicted";
}

/** Stores contents that are not there yet; those of private snippets apart. */
function* writeContents(change: Change, contents: Commit["contents"], now: number): Job<void> {
  const secret = new Set<Hash>();
  for (const { id, after } of change.edits) {
    if (!after?.private) continue;
    for (const name of hashesOf(after)) {
      const bytes = contents.get(name);
      if (!bytes) continue;
      secret.add(name);
      yield* ask((all) => all.putIfAbsent("secrets", { id, name, came: now, bytes }));
    }
  }
  for (const [hash, bytes] of contents)
    if (!secret.has(hash)) yield* ask((all) => all.putIfAbsent("contents", { hash, bytes }));
}

/** What is read of the row of an entry that is to be changed. */
type StandingRow = Pick<EntryRow, "number" | "came" | "entry" | "drawer">;

/**
 * The rows of entries that edits change, by id, checked against what the edits expect. That an entry which comes is not
 * there yet is seen by the unique index of ids, when it is written.
 */
function* standingRows(edits: readonly Edit[]): Job<Map<string, StandingRow>> {
  const rows = new Map<string, StandingRow>();
  const changing = edits.filter(({ before }) => before !== null);
  if (changing.length === 0) return rows;
  const ids = changing.map(({ id }) => [id]);
  const found = yield* ask((all) => all.get("entries", ids, "byId", ["number", "came", "entry", "drawer"]));
  changing.forEach(({ id, before }, index) => {
    const row = found[index];
    if (row?.entry !== encodeEntry(before)) throw new Conflict(`Entry ${id} has changed.`);
    rows.set(id, row!);
  });
  return rows;
}

/**
 * Takes out what leaves, what comes again, and what stands where another one is to stand, so that entries can change
 * places. Returns the ids of what was taken out.
 */
function* takeOut(change: Change, rows: ReadonlyMap<string, StandingRow>): Job<ReadonlySet<string>> {
  const taken = new Set<string>();
  const places = new Map(change.edits.flatMap(({ id, after }) => (after ? [[placeOf(after), id]] : [])));
  for (const { id, before, after } of change.edits) {
    const row = rows.get(id);
    if (!row || !before) continue;
    const isRenumbered = !after || hasComeAgain(before, after);
    const isInTheWay = (places.get(placeOf(before)) ?? id) !== id;
    if (isRenumbered || before.drawer !== after.drawer) yield* ask((all) => all.search?.remove(row));
    if (!isRenumbered && !isInTheWay) continue;
    yield* ask((all) => all.delete("entries", [row.number!]));
    taken.add(id);
    if (after || !isLeaving(change)) continue;
    yield* dropGone(id);
    const { at, operation, undoneOperation = operation } = change;
    // What is done again leaves by what is done; what is undone, by the undoing.
    const by = operation === "undo" ? operation : undoneOperation;
    const left = { id, drawer: before.drawer, at, by, entry: row.entry };
    yield* ask((all) => all.put("gone", left));
  }
  return taken;
}

function placeOf({ drawer, order }: Entry): string {
  return JSON.stringify([drawer, order]);
}

/** Whether an entry was collected again: it is as young as what is new, and gets a new number. */
function hasComeAgain(before: Entry, after: Entry): boolean {
  return before.collectedAt !== after.collectedAt;
}

/** Whether what is searched of an entry, or by what number it is found, becomes another. */
function isSearchedAnew(before: Entry, after: Entry): boolean {
  return (
    hasComeAgain(before, after) ||
    before.drawer !== after.drawer ||
    before.content !== after.content ||
    before.label !== after.label ||
    before.private !== after.private
  );
}

/** The row of an entry, besides what is known of it: its number, when it came, and how it is written. */
function rowOf(entry: Entry, known: Pick<EntryRow, "number" | "came" | "entry">): EntryRow {
  return {
    ...known,
    id: entry.id,
    drawer: entry.drawer,
    order: entry.order,
    kind: entry.kind,
    document: entry.origin.document ?? null,
    kept: entry.kept ? 1 : 0,
    age: entry.kept ? null : entry.kind === "picture" ? 1 : 0,
  };
}

/**
 * Writes an entry's row, and puts it into the search index when what is searched of it is new.
 * @param standing the row of what it was before
 * @param isTaken whether that row has been taken out
 */
function* putEntry(
  entry: Entry,
  before: Entry | null,
  standing: StandingRow | undefined,
  isTaken: boolean,
  now: number,
): Job<void> {
  const written = encodeEntry(entry)!;
  const isNew = !before || !standing || hasComeAgain(before, entry);
  const row = isNew
    ? rowOf(entry, { came: now, entry: written })
    : rowOf(entry, { number: standing.number!, came: standing.came, entry: written });
  const there = isNew || isTaken ? undefined : rowOf(before, standing);
  const number = yield* ask((all) => all.put("entries", row, there));
  if (before && !isSearchedAnew(before, entry)) return;
  const indexed = { ...row, number };
  if (!entry.private) yield* ask((all) => all.search?.add(indexed));
  else if (before) yield* ask((all) => all.search?.remove(indexed));
}

function* dropGone(id: string): Job<void> {
  const [row] = yield* ask((all) => all.get("gone", [[id]], "byId", ["number"]));
  if (row) yield* ask((all) => all.delete("gone", [row.number!]));
}

/**
 * Keeps a small value in place of what it must still be, or takes it away.
 * @throws Conflict when it is something else by now
 */
export function* setValue(drawer: string, { name, before, after }: ValueEdit): Job<void> {
  if ((yield* value(drawer, name)) !== before) throw new Conflict(`“${name}” has changed.`);
  if (after === undefined) yield* ask((all) => all.delete("values", [drawer, name]));
  else yield* ask((all) => all.put("values", { drawer, name, value: after }));
}

/** Counts what came and went, drawer by drawer. */
function* resize(edits: readonly Edit[]): Job<void> {
  const sums = new Map<string, { count: number; bytes: number }>();
  const add = (entry: Entry | null, sign: 1 | -1): void => {
    if (!entry) return;
    const sum = sums.get(entry.drawer) ?? { count: 0, bytes: 0 };
    sums.set(entry.drawer, { count: sum.count + sign, bytes: sum.bytes + sign * entry.bytes });
  };
  for (const { before, after } of edits) {
    add(before, -1);
    add(after, 1);
  }
  for (const [drawer, more] of sums) {
    if (more.count === 0 && more.bytes === 0) continue;
    const { count, bytes } = yield* size(drawer);
    const after = { drawer, count: count + more.count, bytes: bytes + more.bytes };
    yield* ask((all) => all.put("sizes", after));
  }
}

function* log(change: Change): Job<void> {
  const { drawer, at } = change;
  yield* ask((all) => all.put("changes", { drawer, at, change: JSON.stringify(change) }));
}

/**
 * Takes back a change, or, when it belongs to a group, all changes of that group, from the newest on.
 * @throws Conflict when what it made no longer stands
 */
export function* revert(target: Change, operation: "undo" | "redo"): Job<Reverted> {
  let count = 0;
  let first = target;
  const revertOne = function* (change: Change, more: Partial<Change>): Job<void> {
    count += change.edits.length;
    // An undo is written from the last change back, so its newest change is of what was first.
    if (change.operation !== "undo") first = change;
    yield* commit({
      change: {
        ...changeOf(change.drawer, operation),
        ...more,
        undoneOperation: change.undoneOperation ?? change.operation,
        edits: reversed(change.edits),
        ...(change.values && { values: reversedValues(change.values) }),
      },
      contents: new Map(),
    });
  };
  if (target.groupId === undefined) yield* revertOne(target, {});
  else {
    const groupId = newId();
    let part = 0;
    // Read one by one: together they may be larger than what there is room for.
    for (const number of yield* numbersOfGroup(target)) {
      const [row] = yield* ask((all) => all.get("changes", [[number]]));
      yield* revertOne(changeIn(row!), { groupId, part: ++part });
    }
  }
  return { count, first };
}

/** The numbers of the changes of a group, the newest first. */
function* numbersOfGroup(target: Change): Job<number[]> {
  const numbers: number[] = [];
  const ofDrawer = { table: "changes", index: "ofDrawer", equal: [target.drawer] } as const;
  const takeOwn = (row: ChangeRow): boolean => {
    const change = changeIn(row);
    if (!isSameGroup(change, target)) return true;
    numbers.push(row.number!);
    return change.part !== 1;
  };
  yield* each({ ...ofDrawer, reverse: true, holding: [target.groupId!] }, takeOwn, GROUP_PAGE);
  return numbers;
}

/** How many changes of a group, which may be large, are read at once. */
const GROUP_PAGE = 10;

/** What was forgotten, and how far traces of it may lie. */
export interface Forgotten {
  /** How many snippets that were in a drawer, or had left one, are not there any more. */
  readonly count: number;
  readonly reach: WipeReach;
}

/** Where the log and what left is forgotten up to, when all of it is. */
const END_OF_TIME = "\uffff";

/**
 * Forgets for good: entries, log and what left, and the contents that nothing needs any more.
 * @param isWiped whether the engine is then to wipe out traces, which is noted, so that a killed process does not end it
 */
export function* forget(
  { drawer, ids, until, everything = false }: Forgetting,
  isWiped: boolean,
): Job<Forgotten> {
  const doomed = everything ? yield* allOf(drawer) : new Set(ids);
  const end = everything ? END_OF_TIME : (until ?? "");
  const { logged, traces } = yield* tracesIn(doomed, ids !== undefined);
  // What was private from its beginning shares no content with others, and no text with the log.
  const facts = { hasPublic: end !== "", candidates: new Set<Hash>() };
  if (everything) yield* noteForgotten(doomed);
  let count = yield* dropEntries(doomed, facts);
  count += yield* dropGoneWhere(traces, drawer, end, facts);
  yield* strikeOut(logged, traces, facts);
  if (end !== "") yield* dropLog(drawer, end, facts);
  if (everything) yield* ask((all) => all.delete("values", [drawer, VALUES.deal]));
  yield* keepLivingSecrets();
  if (facts.hasPublic) yield* dropUnused(facts.candidates);
  const times = Number((yield* value("", STORE_VALUES.forgotten)) ?? 0);
  const forgotten = { drawer: "", name: STORE_VALUES.forgotten, value: String(times + 1) };
  yield* ask((all) => all.put("values", forgotten));
  const reach = everything ? "everything" : facts.hasPublic ? "everywhere" : "secrets";
  const pending = yield* value("", STORE_VALUES.wipe);
  if (isWiped && (pending === undefined || pending === "secrets"))
    yield* ask((all) => all.put("values", { drawer: "", name: STORE_VALUES.wipe, value: reach }));
  return { count, reach };
}

/** Notes that the other devices are to forget these too. */
function* noteForgotten(doomed: ReadonlySet<string>): Job<void> {
  if (!(yield* isSynced())) return;
  const at = Date.now();
  for (const id of doomed) yield* ask((all) => all.put("touched", { id, why: "forgotten", at }));
}

/** Notes that all traces have been wiped out. */
export function* noteWiped(): Job<void> {
  yield* ask((all) => all.delete("values", ["", STORE_VALUES.wipe]));
}

/** What was forgotten that could be seen, and the contents that may not be needed any more. */
interface ForgottenFacts {
  hasPublic: boolean;
  readonly candidates: Set<Hash>;
}

function note(entry: Entry, { candidates }: ForgottenFacts): void {
  for (const hash of hashesOf(entry)) candidates.add(hash);
}

/** The ids of all snippets that are not kept, and of all that have left. */
function* allOf(drawer: string): Job<Set<string>> {
  const found = new Set<string>();
  const inDrawer = { table: "entries", index: "inOrder", equal: [drawer], where: { kept: 0 } } as const;
  yield* each(inDrawer, (row) => void (row.kept === 0 && found.add(row.id)));
  yield* each({ table: "gone", index: "ofDrawer", equal: [drawer] }, ({ id }) => void found.add(id));
  return found;
}

function* dropEntries(doomed: ReadonlySet<string>, facts: ForgottenFacts): Job<number> {
  let count = 0;
  const edits: Edit[] = [];
  for (const id of doomed) {
    const [row] = yield* ask((all) => all.get("entries", [[id]], "byId"));
    if (row) {
      const entry = entryOf(row);
      yield* ask((all) => all.search?.remove(row));
      yield* ask((all) => all.delete("entries", [row.number!]));
      edits.push({ id, before: entry, after: null });
      note(entry, facts);
      facts.hasPublic ||= !entry.private;
    }
    const [left] = yield* ask((all) => all.get("gone", [[id]], "byId"));
    if (left) {
      const entry = entryOf(left);
      note(entry, facts);
      facts.hasPublic ||= !entry.private;
      yield* ask((all) => all.delete("gone", [left.number!]));
    }
    if (row || left) count++;
  }
  yield* resize(edits);
  return count;
}

/** Drops what left that is a trace, and what left the drawer up to a time. */
function* dropGoneWhere(traces: Traces, drawer: string, end: string, facts: ForgottenFacts): Job<number> {
  if (traces.ids.size === 0 && end === "") return 0;
  const dropped: number[] = [];
  yield* each({ table: "gone" }, (row) => {
    const entry = entryOf(row);
    if (!isTrace(entry, traces) && !(row.drawer === drawer && row.at <= end)) return;
    note(entry, facts);
    facts.hasPublic ||= !entry.private;
    dropped.push(row.number!);
  });
  for (const number of dropped) yield* ask((all) => all.delete("gone", [number]));
  return dropped.length;
}

/** Changes of all logs, by their numbers, from the oldest on. */
type Logged = ReadonlyMap<number, Change>;

/** The traces of snippets, and all changes that speak of them, or of snippets whose history is to be mended. */
function* tracesIn(doomed: ReadonlySet<string>, ofSecrets: boolean): Job<{ logged: Logged; traces: Traces }> {
  let logged: Logged = new Map();
  const own = ofSecrets ? yield* openNamesOf(doomed) : new Set<Hash>();
  let traces: Traces = { ids: doomed, contents: own };
  for (let known = -1; known !== traces.ids.size + traces.contents.size;) {
    known = traces.ids.size + traces.contents.size;
    logged = yield* changesAbout([...traces.ids, ...traces.contents]);
    const told = tracesOf(doomed, [...logged.values()]);
    const found = { ids: told.ids, contents: new Set([...told.contents, ...own]) };
    traces = ofSecrets
      ? withoutOpen(found, yield* openWith(found, doomed))
      : { ids: found.ids, contents: new Set() };
  }
  const survivors = survivorsOf([...logged.values()], traces);
  if (survivors.size > 0) logged = yield* changesAbout([...traces.ids, ...traces.contents, ...survivors]);
  return { logged, traces };
}

/** The hashes of what secrets say: the names under which the same may be stored where it could be seen. */
function* openNamesOf(ids: ReadonlySet<string>): Job<Set<Hash>> {
  const names = new Set<Hash>();
  for (const id of ids)
    for (const { bytes } of yield* ask((all) => all.range({ table: "secrets", equal: [id] })))
      names.add(hashBytes(bytes));
  return names;
}

/** How many words are looked for in the text of rows; for more, all rows are read. */
const FEW = 20;

function hint(words: readonly string[]): { holding?: readonly string[] } {
  return words.length > FEW ? {} : { holding: words };
}

/** The snippets that can be seen and have one of the contents of these traces. */
function* openWith({ contents }: Traces, doomed: ReadonlySet<string>): Job<Entry[]> {
  const found: Entry[] = [];
  if (contents.size === 0) return found;
  yield* each({ table: "entries", ...hint([...contents]) }, (row) => {
    const entry = entryOf(row);
    if (!doomed.has(entry.id) && hashesOf(entry).some((hash) => contents.has(hash))) found.push(entry);
  });
  return found;
}

/** The changes of all logs that mention one of these. */
function* changesAbout(words: readonly string[]): Job<Logged> {
  const found = new Map<number, Change>();
  if (words.length === 0) return found;
  const wanted = new Set(words);
  yield* each({ table: "changes", ...hint(words) }, (row) => {
    const change = changeIn(row);
    if (mentions(change, wanted)) found.set(row.number!, change);
  });
  return found;
}

/** Takes traces out of the logs of all drawers. */
function* strikeOut(logged: Logged, traces: Traces, facts: ForgottenFacts): Job<void> {
  const struck = strike([...logged.values()], traces);
  for (const [number, change] of logged) {
    if (!struck.has(change)) continue;
    for (const entry of entriesIn(change)) {
      note(entry, facts);
      facts.hasPublic ||= !entry.private && isTrace(entry, traces);
    }
    const rest = struck.get(change);
    if (!rest) yield* ask((all) => all.delete("changes", [number]));
    else {
      const { drawer, at } = rest;
      yield* ask((all) => all.put("changes", { number, drawer, at, change: JSON.stringify(rest) }));
    }
  }
}

/** Forgets a drawer's log up to a time. */
function* dropLog(drawer: string, end: string, facts: ForgottenFacts): Job<void> {
  const dropped: number[] = [];
  yield* each({ table: "changes", index: "ofDrawer", equal: [drawer] }, (row) => {
    if (row.at > end) return;
    for (const entry of entriesIn(changeIn(row))) note(entry, facts);
    dropped.push(row.number!);
  });
  for (const number of dropped) yield* ask((all) => all.delete("changes", [number]));
}

/**
 * Drops the contents of private snippets that are not there any more. The whole table is given up and what stays is
 * written anew: in a page from which one row was deleted, a copy of it from before the page was last put in order might
 * be left.
 */
function* keepLivingSecrets(): Job<void> {
  const all = yield* ask((rows) => rows.range({ table: "secrets" }));
  if (all.length === 0) return;
  const keys = all.map(({ id }) => [id]);
  const here = yield* ask((rows) => rows.get("entries", keys, "byId", ["id"]));
  const left = yield* ask((rows) => rows.get("gone", keys, "byId", ["id"]));
  yield* ask((rows) => rows.clear("secrets"));
  for (const [index, row] of all.entries())
    if (here[index] || left[index]) yield* ask((rows) => rows.put("secrets", row));
}

/** Drops those of the candidates that nothing needs any more. */
function* dropUnused(candidates: Set<Hash>): Job<void> {
  if (candidates.size === 0) return;
  /** Whether there may be more to find. */
  const keepUsed = (entries: readonly Entry[]): boolean => {
    for (const hash of entries.flatMap(hashesOf)) candidates.delete(hash);
    return candidates.size > 0;
  };
  for (const table of ["entries", "gone"] as const)
    yield* each({ table, ...hint([...candidates]) }, (row) => keepUsed([entryOf(row)]));
  yield* each({ table: "changes", ...hint([...candidates]) }, (row) => keepUsed(entriesIn(changeIn(row))));
  for (const hash of candidates) yield* ask((all) => all.delete("contents", [hash]));
}
