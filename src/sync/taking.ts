import { defined } from "../content/defined.js";
import type { Hash } from "../content/encode.js";
import type { Edit } from "../drawer/model/change.js";
import { changeOf } from "../drawer/model/change.js";
import { encodeEntry, type Entry } from "../drawer/model/entry.js";
import { decodeRules, type Rules } from "../drawer/model/rules.js";
import { VALUES } from "../drawer/model/values.js";
import { ask, type Job, type WipeReach } from "../stores/engine.js";
import { oldest, size, value } from "../stores/queries.js";
import type { WhyAbsent } from "../stores/schema.js";
import { forget, write } from "../stores/semantics.js";
import { neededBy, type Incoming } from "./incoming.js";
import { orderBeside } from "./order.js";
import { entryById, knownOf, noteDone, registersIn } from "./outgoing.js";
import {
  entryIn,
  isAlive,
  isSameKnowledge,
  isSameTold,
  merged,
  staysHere,
  type Registers,
} from "./registers.js";
import { followingStamp } from "./stamp.js";

/** What became of snippets here by what other devices told. */
export interface Taken {
  readonly came: number;
  readonly changed: number;
  readonly left: number;
  /** How many left by limits, for those that came. */
  readonly evicted: number;
  /** How far traces of what was forgotten may lie. */
  readonly reach?: WipeReach;
}

/** How what comes is taken in. */
export interface TakingOptions {
  /** The id of this device. */
  readonly device: string;
  /** The contents that are at hand, by hash. */
  readonly contents: ReadonlyMap<Hash, Uint8Array>;
  /** The ids of snippets whose contents cannot be had, or are unsound. */
  readonly missing: ReadonlySet<string>;
  /** Whether what is here makes room for what comes. What was collected before this device joined takes no one's place. */
  readonly makesRoom: boolean;
  /** Whether traces of what is forgotten are wiped out afterwards. */
  readonly isWiped: boolean;
}

/** Takes in what other devices told of snippets, as far as the registers say. */
export function* takeIn(told: readonly Incoming[], options: TakingOptions): Job<Taken> {
  const plan = new Plan(options);
  for (const { id, registers } of told) yield* noteTold(id, registers, options.device);
  // Where there is not room for all, the newest come: their ids stand in the order of time.
  const ids = [...new Set(told.map((one) => one.id))].sort();
  for (const id of options.makesRoom ? ids : ids.reverse()) yield* planFor(id, plan);
  yield* settlePlaces(plan);
  return yield* carryOut(plan);
}

/** Takes in what is known, and could not come before. */
export function* takeAgain(ids: readonly string[], options: TakingOptions): Job<Taken> {
  const plan = new Plan(options);
  for (const id of ids) yield* planFor(id, plan);
  yield* settlePlaces(plan);
  return yield* carryOut(plan);
}

/** The edits that are to be made, by the ids of their snippets. */
class Plan {
  readonly edits = new Map<string, Edit>();
  readonly forgotten: string[] = [];
  readonly used = new Map<Hash, Uint8Array>();
  evicted = 0;
  /** What each drawer will hold. */
  readonly sizes = new Map<string, { count: number; bytes: number }>();

  constructor(readonly options: TakingOptions) {}
}

/** Brings what is known of a snippet up to what was done here since; that is still to be told. */
function* catchUp(id: string, device: string): Job<void> {
  const [touched] = yield* ask((all) => all.get("touched", [[id]]));
  const news = touched && (yield* noteDone(touched, device));
  if (news) yield* tellAgain(id);
}

function* tellAgain(id: string): Job<void> {
  const again = { id, why: "again", at: Date.now() } as const;
  yield* ask((all) => all.putIfAbsent("touched", again));
}

/** Adds to what is known of a snippet what was told, after what was done here since. */
function* noteTold(id: string, told: Registers, device: string): Job<void> {
  yield* catchUp(id, device);
  const [row] = yield* ask((all) => all.get("synced", [[id]]));
  const known = row && registersIn(row);
  const both = known ? merged(known, told) : told;
  const absent = row?.absent ?? null;
  if (!known || !isSameKnowledge(known, both))
    yield* ask((all) => all.put("synced", { id, absent, registers: JSON.stringify(both) }));
  // Who wrote this had not heard all that is known here: they are told.
  if (known && !isSameTold(both, told)) yield* tellAgain(id);
}

/** Plans what a snippet is to become here. */
function* planFor(id: string, plan: Plan): Job<void> {
  const registers = (yield* knownOf(id))!;
  const here = yield* entryById(id);
  if (here && staysHere(here)) return;
  const { value: there } = registers.there;
  if (!isAlive(registers)) {
    if (there === "withdrawn" || there === "forgotten") plan.forgotten.push(id);
    else if (here) plan.edits.set(id, { id, before: here, after: null });
    yield* noteAbsence(id, null);
    return;
  }
  const entry = withOwn(entryIn(id, registers)!, here);
  if (here) {
    const isMissing = plan.options.missing.has(id);
    const after = isMissing ? withHeld(entry, here) : entry;
    plan.edits.set(id, { id, before: here, after });
    if (!isMissing) useContents(registers, plan);
    yield* noteAbsence(id, isMissing ? "missing" : null);
    return;
  }
  const [row] = yield* ask((all) => all.get("synced", [[id]]));
  if (row?.absent === "evicted") return;
  const why = plan.options.missing.has(id) ? "missing" : (yield* hasRoom(entry, plan)) ? null : "waiting";
  yield* noteAbsence(id, why);
  if (why === null) plan.edits.set(id, { id, before: null, after: entry });
  // What came of one that is not whole is kept until the rest comes.
  if (why !== "waiting") useContents(registers, plan);
}

/** An entry that holds what another one does. */
function withHeld({ id, drawer, order, label, kept }: Entry, held: Entry): Entry {
  const { label: _, ...rest } = held;
  return { ...rest, ...defined({ label }), id, drawer, order, kept };
}

/** An entry with what is known on this device alone: the path of its file, and pieces that were too many to tell. */
function withOwn(entry: Entry, here: Entry | null): Entry {
  if (here?.content !== entry.content) return entry;
  const { parts = here.parts } = entry;
  const { path } = here.origin;
  const isSame = here.origin.document === entry.origin.document;
  return {
    ...entry,
    ...defined({ parts }),
    origin: { ...entry.origin, ...(isSame && defined({ path })) },
  };
}

function useContents({ held }: Registers, { options, used }: Plan): void {
  for (const hash of held ? neededBy(held.value) : []) {
    const bytes = options.contents.get(hash);
    if (bytes) used.set(hash, bytes);
  }
}

function* noteAbsence(id: string, absent: WhyAbsent | null): Job<void> {
  const [row] = yield* ask((all) => all.get("synced", [[id]]));
  if (row && row.absent !== absent) yield* ask((all) => all.put("synced", { ...row, absent }));
}

/** Whether a drawer has room for one more, by its rules; where it may, the oldest that are not kept make room. */
function* hasRoom(entry: Entry, plan: Plan): Job<boolean> {
  const { drawer, bytes } = entry;
  const rules = decodeRules(yield* value(drawer, VALUES.rules));
  const held = plan.sizes.get(drawer) ?? (yield* size(drawer));
  const sum = { count: held.count + 1, bytes: held.bytes + bytes };
  while (isOver(sum, rules)) {
    if (!plan.options.makesRoom) return false;
    const leaving = yield* oldestBut(drawer, plan);
    if (!leaving) return false;
    plan.edits.set(leaving.id, { id: leaving.id, before: leaving, after: null });
    plan.evicted++;
    // What nobody else has heard of is told before it goes.
    yield* catchUp(leaving.id, plan.options.device);
    yield* noteAbsence(leaving.id, "evicted");
    sum.count--;
    sum.bytes -= leaving.bytes;
  }
  plan.sizes.set(drawer, sum);
  return true;
}

function isOver(
  { count, bytes }: { count: number; bytes: number },
  { snippets, size: most }: Rules,
): boolean {
  return (snippets !== null && count > snippets) || (most !== null && bytes > most);
}

/** The oldest that may go, and that nothing else is planned for. */
function* oldestBut(drawer: string, { edits }: Plan): Job<Entry | undefined> {
  const found = yield* oldest({ drawer, limit: edits.size + 1 });
  return found.find(({ id }) => !edits.has(id));
}

/**
 * Gives snippets that are to stand in one place their own, one beside the other: which of them moves, and where to, every device
 * works out alike.
 */
function* settlePlaces(plan: Plan): Job<void> {
  const taken = new Map<string, string>();
  const pending = [...plan.edits.keys()];
  for (let id = pending.shift(); id !== undefined; id = pending.shift()) {
    const { after } = plan.edits.get(id)!;
    if (!after) continue;
    const key = JSON.stringify([after.drawer, after.order]);
    const other = taken.get(key) ?? (yield* whoStandsAt(after, plan));
    if (other === undefined || other === id) {
      taken.set(key, id);
      continue;
    }
    const moving = yield* whoMoves(id, other, plan);
    if (moving !== id) taken.set(key, id);
    yield* moveBeside(moving, plan);
    pending.push(moving);
  }
}

/** The id of the snippet that stands in a place and stays there. */
function* whoStandsAt({ drawer, order }: Entry, { edits, forgotten }: Plan): Job<string | undefined> {
  const [row] = yield* ask((all) => all.get("entries", [[drawer, order]], "inOrder", ["id"]));
  const planned = row && edits.get(row.id);
  if (row && forgotten.includes(row.id)) return undefined;
  const stays = !planned || (planned.after?.drawer === drawer && planned.after.order === order);
  return row && stays ? row.id : undefined;
}

/** Which of two goes: one that the others do not know, or the one with the later id. */
function* whoMoves(one: string, other: string, plan: Plan): Job<string> {
  for (const id of [one, other]) {
    const here = plan.edits.get(id)?.after ?? (yield* entryById(id));
    if ((yield* knownOf(id)) === undefined || (here && staysHere(here))) return id;
  }
  return one > other ? one : other;
}

function* moveBeside(id: string, plan: Plan): Job<void> {
  yield* catchUp(id, plan.options.device);
  const edit = plan.edits.get(id) ?? { id, before: yield* entryById(id), after: yield* entryById(id) };
  const after = edit.after!;
  const order = orderBeside(after.order, id);
  plan.edits.set(id, { ...edit, after: { ...after, order } });
  const known = yield* knownOf(id);
  if (!known?.place) return;
  const place = { value: { drawer: after.drawer, order }, at: followingStamp(known.place.at) };
  const [row] = yield* ask((all) => all.get("synced", [[id]]));
  const registers = JSON.stringify({ ...known, place });
  yield* ask((all) => all.put("synced", { ...row!, registers }));
  yield* tellAgain(id);
}

function* carryOut({ edits, forgotten, used, evicted, options }: Plan): Job<Taken> {
  const made = [...edits.values()].filter(({ before, after }) => encodeEntry(before) !== encodeEntry(after));
  const gone =
    forgotten.length > 0 ? yield* forget({ drawer: "", ids: forgotten }, options.isWiped) : undefined;
  if (made.length > 0 || used.size > 0) {
    const change = { ...changeOf("", "sync"), edits: made };
    yield* write({ change, contents: used });
  }
  const counted = (test: (edit: Edit) => boolean) => made.filter(test).length;
  return {
    came: counted(({ before }) => !before),
    changed: counted(({ before, after }) => before !== null && after !== null),
    left: counted(({ after }) => !after) - evicted + (gone?.count ?? 0),
    evicted,
    ...(gone && { reach: gone.reach }),
  };
}
