import { generateNKeysBetween } from "fractional-indexing";
import { defined } from "../../content/defined.js";
import { DrawerError } from "../../content/error.js";
import { notice, toldOnce, type Notice } from "../../content/notice.js";
import { isBlank } from "../../content/traverse.js";
import { actErrors, actNotices } from "../../messages/en/acts.js";
import {
  checkIncoming,
  prepare,
  SAME_AS_PRIVATE,
  type Incoming,
  type Prepared,
  contentHash,
} from "../incoming.js";
import type { Edit } from "../model/change.js";
import type { Entry } from "../model/entry.js";
import type { Rules } from "../model/rules.js";
import { privateByHash } from "../private-traces.js";
import type { Positioned, Store } from "../store.js";
import type { Operation } from "../transaction.js";

/** What was collected, and what the drawer has to say of it. */
export interface Collected {
  readonly collected: readonly Positioned[];
  readonly notices: readonly Notice[];
}

/**
 * Collects all of these at the end, in order, by the drawer's rules; or none of them. Nothing goes, and nothing is
 * left out, without a notice.
 * @throws DrawerError `paused` when collecting is off, `full` when nothing that may go would make room enough
 */
export const collect: Operation<[incoming: readonly Incoming[]], Collected> = {
  name: "collect",
  async plan(transaction, incoming) {
    checkIncoming(incoming);
    const { store, drawer } = transaction;
    const rules = await transaction.rules();
    if (!rules.collecting) throw paused(drawer);
    const prepared = await prepareAll(store, drawer, incoming, rules);
    const size = await transaction.size();
    const [latest] = await store.entries({ drawer, last: 1 });
    const { fresh, again, notices } = await sortOut(store, rules, incoming, prepared, latest?.entry);
    const arriving = { count: fresh.length, bytes: fresh.reduce((sum, { entry }) => sum + entry.bytes, 0) };
    const room =
      arriving.count > 0
        ? await transaction.makeRoom(arriving, new Set(again.map(({ id }) => id)))
        : { leaving: [], notices: [] };
    const orders = generateNKeysBetween(latest?.entry.order ?? null, null, again.length + fresh.length);
    const first = size.count - room.leaving.length - again.length + 1;
    // What is collected again is as young as what is new; stores know it by its later time.
    const young = again.map((entry) => ({ ...entry, collectedAt: nowOrAfter(entry.collectedAt) }));
    const collected = [...young, ...fresh.map(({ entry }) => entry)].map((entry, index): Positioned => ({
      position: first + index,
      entry: { ...entry, order: orders[index]! },
    }));
    const told = collected.map(({ position, entry }, index) =>
      index < again.length
        ? notice(actNotices, "repeat/moved", { position, snippet: entry })
        : taken({ position, entry }, fresh[index - again.length]!, rules),
    );
    const edits = collected.map(({ entry }, index): Edit => ({
      id: entry.id,
      before: again[index] ?? null,
      after: entry,
    }));
    return {
      edits: [...room.leaving, ...edits],
      contents: new Map(fresh.flatMap(({ blobs }) => [...blobs])),
      result: {
        collected,
        notices: [...noticesOf(incoming), ...notices, ...told, ...room.notices],
      },
    };
  },
};

/** What was told while the pieces were read: of one document, of which several may come, each thing once. */
function noticesOf(incoming: readonly Incoming[]): Notice[] {
  const byDocument = new Map<string | undefined, Notice[]>();
  for (const { origin, notices } of incoming) {
    if (notices.length === 0) continue;
    const told = byDocument.get(origin.document);
    if (told) told.push(...notices);
    else byDocument.set(origin.document, [...notices]);
  }
  return [...byDocument.values()].flatMap(toldOnce);
}

/** This time, or, within the same millisecond, the next one. */
function nowOrAfter(time: string): string {
  return new Date(Math.max(Date.now(), Date.parse(time) + 1)).toISOString();
}

/** Prepares all pieces; undefined for one that is blank. What says the same as a private snippet is private as well. */
async function prepareAll(
  store: Store,
  drawer: string,
  incoming: readonly Incoming[],
  rules: Rules,
): Promise<(Prepared | undefined)[]> {
  const secrets = await privateByHash(store);
  const all: (Prepared | undefined)[] = [];
  for (const piece of incoming) {
    if (rules.blanks === "skip" && isBlank(piece.content)) {
      all.push(undefined);
      continue;
    }
    const prepared = await prepare(piece, drawer, rules.detect);
    const isKnown = piece.private === undefined && !prepared.entry.private && secrets.has(prepared.hash);
    all.push(
      isKnown
        ? {
            ...(await prepare(
              { ...piece, private: true, stays: secrets.get(prepared.hash)!.privateAge === null },
              drawer,
              false,
            )),
            looks: SAME_AS_PRIVATE,
          }
        : prepared,
    );
  }
  return all;
}

/** That a drawer does not collect now. */
export function paused(drawer: string): DrawerError {
  return new DrawerError(actErrors, "paused", { drawer });
}

/** Which of the pieces are new, and which are there already and are only to become the latest. */
async function sortOut(
  store: Store,
  rules: Rules,
  incoming: readonly Incoming[],
  pieces: readonly (Prepared | undefined)[],
  last: Entry | undefined,
): Promise<{ fresh: Prepared[]; again: Entry[]; notices: Notice[] }> {
  const notices: Notice[] = [];
  const again = new Map<string, Entry>();
  let fresh: Prepared[] = [];
  let before = last && (await contentHash(store, last));
  let latest: Omit<Entry, "order"> | undefined = last;
  for (const [index, prepared] of pieces.entries()) {
    if (!prepared) {
      notices.push(notice(actNotices, "blank", { origin: incoming[index]!.origin }));
      continue;
    }
    const { entry, hash } = prepared;
    if (rules.repeats !== "allow" && hash === before) {
      notices.push(notice(actNotices, "repeat/skipped", { snippet: latest?.private ? latest : entry }));
      continue;
    }
    before = hash;
    latest = entry;
    if (rules.repeats === "move") {
      fresh = fresh.filter((other) => other.hash !== hash);
      const [there] = await store.entries({ drawer: entry.drawer, content: hash, limit: 1 });
      if (there) {
        // Deleted first, so that it stands after those that came between.
        again.delete(there.entry.id);
        again.set(there.entry.id, there.entry);
        continue;
      }
    }
    fresh.push(prepared);
  }
  return { fresh, again: [...again.values()], notices };
}

function taken({ position, entry }: Positioned, { looks }: Prepared, rules: Rules): Notice {
  if (!entry.private) return notice(actNotices, "collected", { position, entry });
  const age = entry.privateAge === undefined ? rules.privateAge : entry.privateAge;
  return notice(actNotices, "private/collected", { position, age, ...defined({ looks }) });
}
