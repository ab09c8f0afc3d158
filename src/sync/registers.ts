import { canonicalJson } from "../content/encode.js";
import { piecesOf, type Entry, type Origin } from "../drawer/model/entry.js";
import type { WhyTouched } from "../stores/schema.js";
import { stampAfter, type Stamp } from "./stamp.js";

/** A fact that each device may write: what was written last holds, and two devices that have heard the same agree on it. */
export interface Register<Value> {
  readonly value: Value;
  readonly at: Stamp;
}

/**
 * Whether a snippet is there: it is; a person took it out; it was made private where it is, which takes it from all others; it was
 * forgotten for good, after which nothing brings it back.
 */
export type There = "here" | "gone" | "withdrawn" | "forgotten";

/** Where a snippet stands: a drawer, and a key in its order. */
export interface Place {
  readonly drawer: string;
  readonly order: string;
}

/** What a snippet holds, and where that came from. The path of a file stays on its device. */
export type Held = Pick<
  Entry,
  "kind" | "text" | "content" | "pictures" | "bytes" | "origin" | "collectedAt" | "parts"
>;

/** What is known of a snippet: a register for each of its facts. Those but `there` may be missing for one that is not there. */
export interface Registers {
  readonly there: Register<There>;
  readonly place?: Register<Place>;
  readonly label?: Register<string | null>;
  readonly kept?: Register<boolean>;
  readonly held?: Register<Held>;
}

/** The facts of a snippet besides whether it is there. */
const FACTS = ["place", "label", "kept", "held"] as const;

/** Registers of those facts, while they are put together. */
type Facts = Omit<{ -readonly [Name in keyof Registers]: Registers[Name] }, "there">;

/** What two devices know of a snippet, together. The order in which such knowledge comes together is of no importance. */
export function merged(one: Registers, other: Registers): Registers {
  const there = isLater(other.there, one.there) ? other.there : one.there;
  const forgotten = [one, other].filter((each) => each.there.value === "forgotten");
  if (forgotten.length > 0) {
    const last = forgotten.map((each) => each.there).reduce((a, b) => (isLater(b, a) ? b : a));
    return { there: last };
  }
  const facts: Record<string, unknown> = {};
  for (const name of FACTS) {
    const [a, b] = [one[name], other[name]];
    const last = a && b ? (isLater(b, a) ? b : a) : (a ?? b);
    // What was private afterwards is kept by nobody.
    if (last && !(there.value === "withdrawn" && last.at < there.at)) facts[name] = last;
  }
  return { there, ...(facts as Facts) };
}

/** Of registers with the same stamp, which only a broken device writes, all choose the same. */
function isLater(one: Register<unknown>, other: Register<unknown>): boolean {
  if (one.at !== other.at) return one.at > other.at;
  return canonicalJson(one.value) > canonicalJson(other.value);
}

/** Whether two devices know the same of a snippet. */
export function isSameKnowledge(one: Registers, other: Registers): boolean {
  return canonicalJson(one) === canonicalJson(other);
}

/** Whether a snippet is there: what was changed since somebody took it out stays. */
export function isAlive(registers: Registers): boolean {
  const { there, place, held } = registers;
  if (!place || !held) return false;
  if (there.value === "here") return true;
  return there.value === "gone" && FACTS.some((name) => (registers[name]?.at ?? "") > there.at);
}

/** What others are told: of a snippet that is not there, only that. */
export function told(registers: Registers): Registers {
  return isAlive(registers) ? registers : { there: registers.there };
}

/** Whether others would be told the same of a snippet. */
export function isSameTold(one: Registers, other: Registers): boolean {
  return isSameKnowledge(told(one), told(other));
}

/** The entry that registers come to; nothing when it is not there. */
export function entryIn(id: string, registers: Registers): Entry | undefined {
  const { place, label, kept, held } = registers;
  if (!isAlive(registers) || !place || !held) return undefined;
  return {
    id,
    ...place.value,
    ...held.value,
    ...(label?.value != null && { label: label.value }),
    kept: kept?.value ?? false,
    private: false,
  };
}

/** Whether an entry stays on its device: it, or a piece of it, is private. */
export function staysHere(entry: Entry): boolean {
  return piecesOf(entry).some((piece) => piece.private);
}

/** What was done to a snippet. */
export interface Done {
  readonly why: WhyTouched;
  /** When, in milliseconds since 1970. */
  readonly at: number;
  /** The id of the device on which it was done. */
  readonly device: string;
  /** Whether what it holds by the registers has not come: then it holds here what it held before, which is no change. */
  readonly isHeldMissing?: boolean;
}

/**
 * The registers of a snippet after something was done to it on this device.
 *
 * @param known what was known of it; nothing of a snippet that is new to the others
 * @param entry as it is here now; null when it is not here
 * @param done what was done to it
 * @returns nothing when the others need not be told
 */
export function registersAfter(
  known: Registers | undefined,
  entry: Entry | null,
  { why, at, device, isHeldMissing = false }: Done,
): Registers | undefined {
  const now = stampAfter(known && lastStamp(known), at, device);
  const there = (value: There): Register<There> => ({ value, at: now });
  if (known?.there.value === "forgotten") return undefined;
  if (!entry || staysHere(entry)) {
    const gone = entry ? "withdrawn" : goneBy(why);
    if (!known || !gone || known.there.value === "withdrawn") return undefined;
    if (gone === "gone" && !isAlive(known)) return undefined;
    return gone === "gone" ? { ...known, there: there(gone) } : { there: there(gone) };
  }
  const { drawer, order, label, kept, private: _, privateAge: __, id: ___, ...rest } = entry;
  const values = {
    place: { drawer, order },
    label: label ?? null,
    kept,
    held: shared(rest),
  };
  const isBack = known !== undefined && !isAlive(known);
  const facts: Record<string, unknown> = {};
  let isNew = !known || isBack;
  for (const name of FACTS) {
    const register = known?.[name];
    const isKnown =
      register &&
      !isBack &&
      ((name === "held" && isHeldMissing) || canonicalJson(register.value) === canonicalJson(values[name]));
    facts[name] = isKnown ? register : { value: values[name], at: now };
    isNew ||= !isKnown;
  }
  if (!isNew) return undefined;
  return { there: !known || isBack ? there("here") : known.there, ...(facts as Facts) };
}

/** How a snippet that is not here any more left it for all; nothing when it left this device alone. */
function goneBy(why: WhyTouched): There | undefined {
  if (why === "forgotten" || why === "withdrawn") return why;
  // What was changed and then left by the reach of something that is not told of leaves here alone.
  return why === "gone" ? "gone" : undefined;
}

/** The last stamp of registers. */
export function lastStamp(registers: Registers): Stamp {
  return FACTS.map((name) => registers[name]?.at ?? "").reduce(
    (last, at) => (at > last ? at : last),
    registers.there.at,
  );
}

/** Of how many pieces a snippet may be made for others to know them; one of more they cannot split. */
const MOST_PIECES = 1000;

/** What a snippet holds, as others may know it. */
function shared({ parts, ...held }: Held): Held {
  return {
    ...held,
    origin: withoutPath(held.origin),
    ...(parts &&
      parts.flatMap(piecesOf).length <= MOST_PIECES && {
        parts: parts.map((part) => ({ ...part, ...shared(part) })),
      }),
  };
}

function withoutPath({ path: _, ...origin }: Origin): Origin {
  return origin;
}
