import { jest } from "@jest/globals";
import fc from "fast-check";
import { Groups } from "../../dist/hub/groups.js";
import { portable, primitives } from "../../dist/sync/primitives.js";
import { later } from "../support/clock";
import { runs } from "../support/counts";
import { newHubDatabase, TestDevice } from "../support/group";
import { piece } from "../support/pieces";
import { Drawer, DrawerError, type Entry } from "drawer";

const HOUR = 3_600_000;
const DRAWERS = ["main", "spring"];
/** What is done, by name; each picks what it is done to by a number. */
const ACTS = [
  ...["collect", "collect", "collect", "large", "label", "keep", "release", "move", "discard", "merge"],
  ...["split", "append", "undo", "redo", "hide", "unhide", "empty", "emptyForGood", "restore", "moveInto"],
  ...["copyInto", "restart", "exchange", "exchange", "twice", "cutOff", "join", "remove"],
] as const;
type Act = (typeof ACTS)[number];

const step = fc.record({
  act: fc.constantFrom(...ACTS),
  device: fc.nat(5),
  drawer: fc.nat(9).map((number) => DRAWERS[number === 9 ? 1 : 0]!),
  at: fc.nat(30),
});
type Step = typeof step extends fc.Arbitrary<infer Value> ? Value : never;

/** Histories that once went wrong: one who let others in goes, and those have not heard of each other. */
const FOUND: [Step[]][] = [
  "join collect remove collect collect collect join collect remove collect collect",
  "join remove collect join collect remove",
  "join join collect remove collect join remove collect remove",
].map((acts) => [acts.split(" ").map((act) => ({ act: act as Act, device: 0, drawer: "main", at: 0 }))]);

beforeAll(() => {
  // Trying the words of an invitation is made slow on purpose: it would take two thirds of the time of all histories.
  jest
    .spyOn(primitives, "scrypt")
    .mockImplementation((words, salt, cost) => portable.scrypt(words, salt, { ...cost, N: 2 }));
});
afterAll(() => jest.restoreAllMocks());

/** All entries of a device, by id. */
async function entriesOf({ store }: TestDevice): Promise<Map<string, Entry>> {
  const found = new Map<string, Entry>();
  for (const drawer of DRAWERS)
    for (const { entry } of await store.entries({ drawer })) found.set(entry.id, entry);
  return found;
}

const large = (n: number) => piece(`Ringing sheet ${n}. ${"Reed bunting, first year. ".repeat(300)}`);

/** Several devices, what is done on them, and what is expected of it. */
class History {
  readonly devices: TestDevice[] = [];
  readonly removed = new Set<TestDevice>();
  /** The ids that somebody took out, or whose device let them go. */
  readonly takenOut = new Set<string>();
  /** What was collected and what was forgotten, and is known to others than the device where it was done. */
  readonly collected = new Set<string>();
  readonly forgotten = new Set<string>();
  /** What of both a device has not told yet. */
  readonly #untold = new Map<TestDevice, { collected: string[]; forgotten: string[] }>();
  readonly #clocks = new Map<TestDevice, number>();
  #count = 0;

  constructor(readonly groups: Groups) {}

  get members(): TestDevice[] {
    return this.devices.filter((device) => !this.removed.has(device));
  }

  async add(): Promise<void> {
    const device = new TestDevice(`device ${this.devices.length + 1}`, this.groups);
    this.#clocks.set(device, ((this.devices.length * 7) % 5) * HOUR - 2 * HOUR);
    const [first] = this.members;
    later(0);
    if (!first) await device.begin();
    else await device.join(await first.client.invite());
    this.devices.push(device);
  }

  async do({ act, device: number, drawer: name, at }: Step): Promise<void> {
    const device = this.members[number % this.members.length]!;
    later(this.#clocks.get(device)!);
    if (act === "join") return this.devices.length < 5 ? this.add() : undefined;
    if (act === "remove") return this.#remove(device);
    if (act === "restart") return device.restart();
    if (act === "twice") return device.exchangeTwice();
    if (act === "exchange" || act === "cutOff") return this.#exchange(device, act === "cutOff" ? at : 0);
    const before = await entriesOf(device);
    await this.#act(device, new Drawer(device.store, name), act, at);
    const after = await entriesOf(device);
    const untold = this.#untold.get(device) ?? { collected: [], forgotten: [] };
    this.#untold.set(device, untold);
    for (const id of after.keys()) if (!before.has(id)) untold.collected.push(id);
    for (const [id, entry] of before)
      if (!after.has(id) || after.get(id)!.private) {
        this.takenOut.add(id);
        if (act === "emptyForGood" && !entry.private) untold.forgotten.push(id);
      }
  }

  /** Notes that a device has told all that was done there. */
  #noteTold(device: TestDevice): void {
    const { collected = [], forgotten = [] } = this.#untold.get(device) ?? {};
    for (const id of collected) this.collected.add(id);
    for (const id of forgotten) this.forgotten.add(id);
    this.#untold.delete(device);
  }

  async #act(device: TestDevice, drawer: Drawer, act: Act, at: number): Promise<void> {
    const count = await drawer.count();
    const pick = String((at % Math.max(1, count)) + 1);
    const place = { position: Number(pick) };
    const next = String((Number(pick) % Math.max(1, count)) + 1);
    const other = DRAWERS.find((name) => name !== drawer.name)!;
    const acts: Partial<Record<Act, () => Promise<unknown>>> = {
      collect: () => drawer.collect([piece(`snippet ${++this.#count} of ${device.name}`)]),
      large: () => drawer.collect([large(++this.#count)]),
      label: () => drawer.label(pick, `label ${++this.#count}`),
      keep: () => drawer.keep(pick),
      release: () => drawer.release(pick),
      move: () => drawer.move(pick, place.position > 1 ? { position: 1 } : "end"),
      discard: () => drawer.discard(pick),
      merge: () => drawer.merge(`${pick} ${next}`),
      split: () => drawer.split(place),
      append: () => drawer.append(piece(`more ${++this.#count}`), place),
      undo: () => drawer.undo(),
      redo: () => drawer.redo(),
      hide: () => drawer.hide(pick),
      unhide: () => drawer.unhide(pick),
      empty: () => drawer.empty(),
      emptyForGood: () => drawer.emptyForGood(),
      restore: () => drawer.restore("1"),
      moveInto: () => drawer.moveInto(other, pick),
      copyInto: () => drawer.copyInto(other, pick),
    };
    try {
      await acts[act]!();
    } catch (error) {
      // What cannot be done now is refused, and changes nothing.
      if (!(error instanceof DrawerError)) throw error;
    }
  }

  async #remove(device: TestDevice): Promise<void> {
    const other = this.members.find((one) => one !== device);
    if (this.members.length < 3 || !other) return;
    later(0);
    try {
      await other.client.remove(device.name);
    } catch (error) {
      // One that has joined and said nothing yet is not known to the others.
      if (error instanceof DrawerError && error.code === "no-device") return;
      throw error;
    }
    this.removed.add(device);
  }

  /** @param cutAfter the connection is cut after so many requests; never, for 0 */
  async #exchange(device: TestDevice, cutAfter: number): Promise<void> {
    let left = cutAfter;
    device.trouble = () => (cutAfter > 0 && --left <= 0 ? (left % 2 === 0 ? "request" : "answer") : "none");
    try {
      await device.client.exchange();
      this.#noteTold(device);
    } catch (error) {
      if (!(error instanceof DrawerError) || error.code !== "hub-away") throw error;
    }
    device.trouble = () => "none";
  }

  /** Lets all devices exchange until nobody has anything more to tell. */
  async settle(): Promise<void> {
    for (let round = 1, sent = 1; sent > 0; round++) {
      if (round > 12) throw new Error("The devices do not come to an end.");
      sent = 0;
      for (const device of this.members) {
        later(this.#clocks.get(device)!);
        const result = await device.client.exchange();
        this.#noteTold(device);
        sent += result.sent + result.came + result.changed + result.left;
      }
    }
    later(0);
  }
}

/** What everybody is to see of a device's snippets: in order, without those that are private somewhere. */
async function seen(device: TestDevice, hidden: ReadonlySet<string>): Promise<object[]> {
  const found: object[] = [];
  for (const drawer of DRAWERS)
    for (const { entry } of await device.store.entries({ drawer }))
      if (!hidden.has(entry.id)) found.push(entry);
  return found;
}

test("devices that have met hold the same, lose nothing that was kept, and bring back nothing that was forgotten", async () => {
  const histories = fc.array(step, { minLength: 10, maxLength: 60 });
  await fc.assert(
    fc.asyncProperty(histories, async (steps) => {
      const database = await newHubDatabase();
      const history = new History(new Groups(database, { group: 1e9 }));
      await history.add();
      await history.add();
      for (const one of steps) await history.do(one);
      await history.settle();
      const all = await Promise.all(history.members.map(entriesOf));
      const hidden = new Set(
        all.flatMap((entries) => [...entries.values()].filter((entry) => entry.private).map(({ id }) => id)),
      );
      const [first, ...others] = await Promise.all(history.members.map((device) => seen(device, hidden)));
      for (const other of others) expect(other).toEqual(first);
      // Each content is there: reading a drawer whose contents are not is refused.
      for (const { store } of history.members)
        for (const name of DRAWERS) {
          const drawer = new Drawer(store, name);
          await drawer.read(await drawer.list());
          expect((await store.size(name)).count).toBe((await store.entries({ drawer: name })).length);
        }
      const here = new Set([...all[0]!.keys()]);
      const lost = [...history.collected].filter((id) => !history.takenOut.has(id) && !here.has(id));
      expect(lost).toEqual([]);
      for (const entries of all)
        expect([...history.forgotten].filter((id) => entries.has(id) && !hidden.has(id))).toEqual([]);
      await database.close();
    }),
    { ...runs(12, 10_000), examples: FOUND, endOnFailure: false },
  );
});
