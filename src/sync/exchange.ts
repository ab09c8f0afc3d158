import type { Hash } from "../content/encode.js";
import { DrawerError } from "../content/error.js";
import { notice, type Notice } from "../content/notice.js";
import { decodeRules } from "../drawer/model/rules.js";
import { VALUES } from "../drawer/model/values.js";
import { Conflict } from "../drawer/store.js";
import { syncErrors, syncNotices } from "../messages/en/sync.js";
import { ask, type Job } from "../stores/engine.js";
import { contents } from "../stores/queries.js";
import type { RowStore } from "../stores/row-store.js";
import type { WhyAbsent } from "../stores/schema.js";
import { noteWiped } from "../stores/semantics.js";
import { fetchContent, sendContents } from "./contents.js";
import { isMember } from "./devices.js";
import { packKeys, presentKey } from "./facts.js";
import { firstWithin } from "./first-within.js";
import type { Hub } from "./hub.js";
import {
  HubFault,
  isSound,
  headAfter,
  withKeys,
  withKeysOf,
  neededBy,
  readPage,
  type Direction,
  type HubRecord,
  type Incoming,
  type Page,
} from "./incoming.js";
import { knownOf, putOut, writeOutgoing } from "./outgoing.js";
import { unpackRecord, type SealedRecord } from "./records.js";
import { isAlive } from "./registers.js";
import { newKey, newKeyId } from "./sealing.js";
import {
  readState,
  writeState,
  type DeviceSecrets,
  type GroupKey,
  type SecretKeeper,
  type SyncState,
} from "./state.js";
import { takeAgain, takeIn, type Taken, type TakingOptions } from "./taking.js";

/** How many records go and come at once. */
const PAGE = 200;
/** How many bytes of records go at once, about. */
const BATCH_BYTES = 1024 * 1024;
/** How often a page is read anew when another program of this device takes one meanwhile. */
const ATTEMPTS = 20;

/** What an exchange came to. */
export interface Exchanged extends Taken {
  /** How many records went out. */
  readonly sent: number;
  /** How many devices the group has. */
  readonly devices: number;
  /** Snippets that others have and that are not here, and why. */
  readonly absent: readonly { readonly id: string; readonly drawer: string; readonly why: WhyAbsent }[];
  /** Whether a key is still to come. */
  readonly isLocked: boolean;
  readonly notices: readonly Notice[];
}

/** How an exchange is done. */
export interface ExchangeOptions {
  /** Is told how many snippets have come, while a device that has joined hears what was collected before. */
  readonly progress?: (came: number) => void;
  /** Ends it between two steps; what was done until then stands. */
  readonly signal?: AbortSignal;
}

/** One device of a group, while it exchanges what was done with the hub. */
export class Exchange {
  #secrets!: DeviceSecrets;
  #sent = 0;
  #isLocked = false;
  #isAgain = false;
  #taken: Taken = { came: 0, changed: 0, left: 0, evicted: 0 };

  constructor(
    readonly store: RowStore,
    readonly keeper: SecretKeeper,
    readonly hub: Hub,
    readonly options: ExchangeOptions = {},
  ) {}

  /**
   * Takes what the others did, and sends what was done here, until both are in step.
   * @throws DrawerError `hub-away`, `hub-refused`, `hub-wrong`, `removed`, `not-joined`
   */
  async run(): Promise<Exchanged> {
    await this.#readSecrets();
    await this.#take("on");
    await this.#send();
    await this.#take("back");
    await this.#takeAbsent();
    // What was told again, because somebody had not heard all.
    await this.#send();
    // Its own records are heard too: an invitation begins after them.
    if (this.#sent > 0) await this.#take("on");
    return this.#result();
  }

  async #readSecrets(): Promise<void> {
    const secrets = await this.keeper.read();
    if (!secrets) throw new DrawerError(syncErrors, "not-joined", {});
    this.#secrets = secrets;
  }

  /** Keeps secrets, with the keys that another program of this device may have got meanwhile. */
  async #keepSecrets(secrets: DeviceSecrets): Promise<void> {
    const there = await this.keeper.read();
    this.#secrets = there ? withKeys(there, secrets.keys) : secrets;
    await this.keeper.write(this.#secrets);
  }

  get #isEnded(): boolean {
    return this.options.signal?.aborted ?? false;
  }

  /** The state now. */
  async #state(): Promise<SyncState> {
    const state = await this.store.engine.read(readState);
    if (!state) throw new DrawerError(syncErrors, "not-joined", {});
    const own = state.devices.find(({ id }) => id === state.device);
    if (own && !isMember(own)) throw new DrawerError(syncErrors, "removed", {});
    return state;
  }

  async #take(direction: Direction): Promise<void> {
    for (let tried = 0; !this.#isEnded;) {
      const state = await this.#state();
      if (direction === "back" && state.below === undefined) return;
      try {
        if (!(await this.#takeNext(state, direction))) return;
        tried = 0;
      } catch (error) {
        if (error instanceof HubFault) await this.#hearAgain(state, error);
        else if (!(error instanceof Conflict) || ++tried > ATTEMPTS) throw error;
        // Another program of this device has taken it, and may have got keys.
        else await this.#readSecrets();
      }
    }
  }

  /** Takes the next page. Returns whether there may be more. */
  async #takeNext(state: SyncState, direction: Direction): Promise<boolean> {
    const { heard, below, replaced } = state;
    const query = direction === "on" ? { after: heard } : { before: below! };
    const { records, last } = await this.hub.records({ ...query, limit: PAGE });
    if (records.length === 0) {
      if (direction === "back") await this.#endBack(state);
      else if (replaced.length > 0 || last < heard) throw new HubFault("gap");
      return false;
    }
    const page = readPage(records, state, this.#secrets, direction);
    await this.#takePage(page, state, direction);
    this.options.progress?.(this.#taken.came);
    if (!page.locked || (await this.#findKeys(page.state, page.locked))) return true;
    this.#isLocked = true;
    return false;
  }

  /**
   * Begins anew with the hub's order, once, where something was left out: it may be given now. What was heard is passed over.
   * @throws DrawerError `hub-wrong`
   */
  async #hearAgain(state: SyncState, fault: HubFault): Promise<void> {
    if (fault.why !== "gap" || this.#isAgain) throw this.#wrong(fault.why, fault);
    this.#isAgain = true;
    await this.store.engine.write(function* () {
      yield* writeState({ ...(yield* unchanged(state)), heard: 0 });
    });
  }

  #wrong(why: HubFault["why"], cause?: unknown): DrawerError {
    return new DrawerError(syncErrors, "hub-wrong", { hub: this.hub.address, why }, { cause });
  }

  /** Looks for keys further on, for a record that cannot be opened. Returns whether there were any. */
  async #findKeys(state: SyncState, locked: HubRecord): Promise<boolean> {
    const before = this.#secrets.keys.length;
    for await (const records of recordsAfter(this.hub, state.heard))
      await this.#keepSecrets(withKeysOf(records, state, this.#secrets, locked));
    return this.#secrets.keys.length > before;
  }

  /** All that was collected before this device joined has come. */
  async #endBack(state: SyncState): Promise<void> {
    await this.store.engine.write(function* () {
      const now = yield* unchanged(state);
      const { below: _, ...rest } = now;
      yield* writeState(rest);
    });
  }

  async #takePage(page: Page, before: SyncState, direction: Direction): Promise<void> {
    // Keys first: what they open may not be taken without them.
    if (page.secrets !== this.#secrets) await this.#keepSecrets(page.secrets);
    const options = await this.#optionsFor(page.snippets, before.device, direction === "on");
    const taken = await this.store.engine.write(function* () {
      const now = yield* unchanged(before);
      const done = yield* takeIn(page.snippets, options);
      yield* writeState({ ...page.state, own: now.own, lastThere: now.lastThere });
      return done;
    });
    await this.#add(taken);
  }

  /** What could not come before, and may now. */
  async #takeAbsent(): Promise<void> {
    const absent = await this.store.engine.read(absentOnes);
    await this.#takeMissing(absent.filter(({ why }) => why === "missing").map(({ id }) => id));
    const room = await this.#roomFor(absent);
    if (room === "" || room === (await this.#state()).room) return;
    // What waited was not kept here: it is heard once more.
    await this.store.engine.write(function* () {
      const now = (yield* readState())!;
      yield* writeState({ ...now, below: now.heard + 1, room });
    });
    await this.#take("back");
  }

  /** Asks again for contents that were not at the hub. */
  async #takeMissing(all: readonly string[]): Promise<void> {
    const { device } = await this.#state();
    for (let at = 0; at < all.length && !this.#isEnded; at += PAGE) {
      const ids = all.slice(at, at + PAGE);
      const known = await this.store.engine.read(function* () {
        const found: Incoming[] = [];
        for (const id of ids) {
          const registers = yield* knownOf(id);
          if (registers) found.push({ id, registers, contents: new Map() });
        }
        return found;
      });
      const options = await this.#optionsFor(known, device, false);
      await this.#add(await this.store.engine.write(() => takeAgain(ids, options)));
    }
  }

  /** How much room there is in the drawers for which something waits, in a form that can be compared; `""` when there is none. */
  async #roomFor(absent: Exchanged["absent"]): Promise<string> {
    const found: string[] = [];
    for (const drawer of byDrawer(absent).keys()) {
      const { snippets, size } = decodeRules(await this.store.value(drawer, VALUES.rules));
      const { count, bytes } = await this.store.size(drawer);
      if (count < (snippets ?? Infinity) && bytes < (size ?? Infinity))
        found.push(JSON.stringify([drawer, snippets, size, count]));
    }
    return found.join();
  }

  async #add(taken: Taken): Promise<void> {
    const { came, changed, left, evicted } = this.#taken;
    this.#taken = {
      came: came + taken.came,
      changed: changed + taken.changed,
      left: left + taken.left,
      evicted: evicted + taken.evicted,
    };
    const { engine } = this.store;
    if (taken.reach === undefined || !engine.wipe) return;
    const { isWhole } = await engine.wipe(taken.reach);
    if (isWhole) await engine.write(noteWiped);
  }

  /** How snippets are taken in: with their contents, from the record, from here, or from the hub. */
  async #optionsFor(
    snippets: readonly Incoming[],
    device: string,
    makesRoom: boolean,
  ): Promise<TakingOptions> {
    const at = new Map<Hash, Uint8Array>(snippets.flatMap(({ contents: within }) => [...within]));
    const missing = new Set<string>();
    const isWiped = this.store.engine.wipe !== undefined;
    for (const { id, registers } of snippets) {
      const { held } = registers;
      if (!held || !isAlive(registers)) continue;
      const needed = neededBy(held.value).filter((hash) => !at.has(hash));
      const here = await this.store.engine.read(() => contents(needed));
      for (const hash of needed) {
        // What is here may be forgotten with another snippet of the same page.
        const bytes = here.get(hash) ?? (await fetchContent(this.hub, this.#secrets, hash));
        if (bytes) at.set(hash, bytes);
        else missing.add(id);
      }
      if (!isSound(held.value, at)) missing.add(id);
    }
    return { device, contents: at, missing, makesRoom, isWiped };
  }

  async #send(): Promise<void> {
    const key = await this.#key();
    for (let looked = 1; looked > 0 && !this.#isEnded;) {
      const secrets = this.#secrets;
      looked = await this.store.engine.write(() => writeOutgoing(secrets, key));
      await this.#sendOut(key);
    }
  }

  /**
   * The key under which is sealed: a new one when some device that is there has not the present one, or one has it that was removed.
   * What some of them lack is handed on.
   */
  async #key(): Promise<GroupKey> {
    const state = await this.#state();
    const members = state.devices.filter(isMember);
    const ids = members.map(({ id }) => id);
    const there = presentKey(this.#secrets.keys, state);
    const key = there ?? { id: newKeyId(), secret: newKey(), holders: ids };
    const known = there ? this.#secrets.keys : [...this.#secrets.keys, key];
    if (there && known.every(({ holders }) => ids.every((id) => holders.includes(id)))) return key;
    const keys = known.map((one) => ({ ...one, holders: [...new Set([...one.holders, ...ids])] }));
    await this.#keepSecrets({ ...this.#secrets, keys });
    const secrets = this.#secrets;
    await this.store.engine.write(function* () {
      const now = (yield* readState())!;
      const said = { sort: "key", slot: `key-${now.device}-${now.own.number + 1}`, key: "" } as const;
      const body = (place: Uint8Array) => packKeys(place, keys, members);
      yield* writeState(yield* putOut(now, secrets, { ...said, body }));
    });
    return key;
  }

  /** Sends the records that wait, with their contents before them. */
  async #sendOut(key: GroupKey): Promise<void> {
    while (!this.#isEnded) {
      const rows = await this.store.engine.read(() =>
        ask((all) => all.range({ table: "outbox", limit: PAGE })),
      );
      if (rows.length === 0) return;
      const batch = firstWithin(rows, ({ record }) => record.length, BATCH_BYTES);
      const hashes = batch.flatMap((row) => JSON.parse(row.contents) as Hash[]);
      await sendContents(this.store, this.hub, this.#secrets, key, [...new Set(hashes)]);
      await this.hub.add(batch.map(({ record }) => unpackRecord(record) as SealedRecord));
      this.#sent += batch.length;
      await this.store.engine.write(function* () {
        for (const { number } of batch) yield* ask((all) => all.delete("outbox", [number!]));
      });
    }
  }

  async #result(): Promise<Exchanged> {
    const { heads } = await this.#state();
    const numbers = Object.entries(heads).map(([device, { number }]) => [device, number] as const);
    const lastThere = await this.hub.heard(Object.fromEntries(numbers));
    await this.store.engine.write(function* () {
      yield* writeState({ ...(yield* readState())!, lastThere });
    });
    const state = await this.#state();
    const absent = await this.store.engine.read(absentOnes);
    const devices = state.devices.filter(isMember).length;
    const facts = { ...this.#taken, sent: this.#sent, devices, absent, isLocked: this.#isLocked };
    const notices = await this.#notices(facts, state.below !== undefined);
    return { ...facts, notices };
  }

  async #notices(facts: Omit<Exchanged, "notices">, isMoreToCome: boolean): Promise<Notice[]> {
    const { came, changed, left, sent, evicted, devices, absent, isLocked } = facts;
    const isSame = came + changed + left + sent === 0;
    const missing = absent.filter(({ why }) => why === "missing").length;
    const full: Notice[] = [];
    for (const [drawer, those] of byDrawer(absent)) {
      const rules = decodeRules(await this.store.value(drawer, VALUES.rules));
      full.push(notice(syncNotices, "synced/waiting", { drawer, count: those.length, most: rules.snippets }));
    }
    return [
      isSame
        ? notice(syncNotices, "synced/same", { devices })
        : notice(syncNotices, "synced", { came, changed, left, sent }),
      ...(evicted > 0 ? [notice(syncNotices, "synced/made-room", { count: evicted })] : []),
      ...full,
      ...(missing > 0 ? [notice(syncNotices, "synced/missing", { count: missing })] : []),
      ...(isMoreToCome ? [notice(syncNotices, "synced/more", {})] : []),
      ...(isLocked ? [notice(syncNotices, "synced/key", {})] : []),
    ];
  }
}

/** Those that wait for room, by their drawers. */
function byDrawer(absent: Exchanged["absent"]): Map<string, Exchanged["absent"][number][]> {
  const found = new Map<string, Exchanged["absent"][number][]>();
  for (const one of absent)
    if (one.why === "waiting")
      found
        .set(one.drawer, found.get(one.drawer) ?? [])
        .get(one.drawer)!
        .push(one);
  return found;
}

/**
 * The state, when it is still what was read.
 * @throws Conflict when another program of this device has heard more meanwhile
 */
function* unchanged(before: SyncState): Job<SyncState> {
  const now = yield* readState();
  const heard = ({ own: _, lastThere: __, ...rest }: SyncState) => JSON.stringify(rest);
  if (!now || heard(now) !== heard(before)) throw new Conflict("Another program has heard more.");
  return now;
}

/** The snippets that others have and that are not here. */
function* absentOnes(): Job<Exchanged["absent"]> {
  const found: { id: string; drawer: string; why: WhyAbsent }[] = [];
  for (const why of ["missing", "waiting"] as const) {
    const rows = yield* ask((all) => all.range({ table: "synced", index: "byAbsence", equal: [why] }));
    for (const { id } of rows) {
      const registers = yield* knownOf(id);
      if (registers?.place) found.push({ id, drawer: registers.place.value.drawer, why });
    }
  }
  return found;
}

/**
 * The number of the last record that a device has written, heard or not: a key that opens it may be yet to come.
 * @throws DrawerError `hub-away`
 */
export async function lastWritten(
  hub: Hub,
  { heads, heard, devices }: SyncState,
  id: string,
): Promise<number> {
  const device = devices.find((each) => each.id === id)!;
  let head = heads[id];
  for await (const records of recordsAfter(hub, heard)) head = headAfter(records, device, head);
  return head?.number ?? 0;
}

/** The records after a place in the hub's order, page by page. */
async function* recordsAfter(hub: Hub, place: number): AsyncGenerator<readonly HubRecord[], void> {
  for (let after = place; ;) {
    const { records } = await hub.records({ after, limit: PAGE });
    if (records.length === 0) return;
    yield records;
    after = records.at(-1)!.at;
  }
}
