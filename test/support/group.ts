import { existsSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { Groups, NotTaken } from "../../dist/hub/groups.js";
import type { HubDatabase } from "../../dist/hub/sql.js";
import { openSqliteHub } from "../../dist/hub/sqlite.js";
import type { RowStore } from "../../dist/stores/row-store.js";
import { deviceId } from "../../dist/sync/devices.js";
import { join as joinGroup } from "../../dist/sync/group.js";
import type { Hub, RecordAnswer, RecordQuery } from "../../dist/sync/hub.js";
import { readInvitation } from "../../dist/sync/invitation.js";
import { readHeader, type SealedRecord } from "../../dist/sync/records.js";
import { DrawerError, MemoryStore } from "drawer";
import { readSecrets, SyncClient, writeSecrets, type DeviceSecrets, type SecretKeeper } from "drawer/sync";

/** A folder in memory where the system has one: what is tested here is not whether a disk keeps what it is given. */
const folder = mkdtempSync(join(existsSync("/dev/shm") ? "/dev/shm" : tmpdir(), "drawer-hub-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
let made = 0;

/** A hub's database of a test's own. */
export function newHubDatabase(): Promise<HubDatabase> {
  return openSqliteHub(join(folder, `${++made}.db`));
}

/** Keeps the secrets of a device as a file would: as text. */
export class TextKeeper implements SecretKeeper {
  text: string | undefined;

  async read(): Promise<DeviceSecrets | undefined> {
    return this.text === undefined ? undefined : readSecrets(this.text);
  }

  async write(secrets: DeviceSecrets | undefined): Promise<void> {
    this.text = secrets && writeSecrets(secrets);
  }
}

/** What goes wrong on the way to a hub: nothing, a request that does not arrive, or an answer that does not. */
export type Trouble = () => "none" | "request" | "answer";

/** A hub without HTTP between, on which the network may do what it likes. */
export class LocalHub implements Hub {
  readonly address = "https://hub.example";

  constructor(
    readonly groups: Groups,
    readonly group: string,
    readonly secrets: DeviceSecrets,
    readonly trouble: Trouble = () => "none",
  ) {}

  get device(): string {
    return deviceId(this.secrets.signing.public);
  }

  async #through<Result>(ask: () => Promise<Result>): Promise<Result> {
    const trouble = this.trouble();
    const away = () => new DrawerError(AWAY, "hub-away", { hub: this.address, reason: "cut off" });
    if (trouble === "request") throw away();
    const known = await this.groups.device(this.group, this.device);
    if (known?.isRemoved) throw new DrawerError(REMOVED, "removed", {});
    const result = await ask();
    if (trouble === "answer") throw away();
    return result;
  }

  begin(): Promise<void> {
    return this.groups.begin(this.group, this.secrets.signing.public);
  }

  add(records: readonly SealedRecord[]): Promise<void> {
    return this.#through(async () => {
      const read = records.map((record) => ({ ...record, body: record.body!, read: readHeader(record)! }));
      try {
        await this.groups.add(this.group, this.device, read);
      } catch (error) {
        if (!(error instanceof NotTaken)) throw error;
        throw new DrawerError(WRONG, "hub-wrong", { hub: this.address, why: "copied" }, { cause: error });
      }
    });
  }

  records(query: RecordQuery): Promise<RecordAnswer> {
    return this.#through(() => this.groups.records(this.group, query));
  }

  lacking(blobs: readonly string[]): Promise<ReadonlyMap<string, number>> {
    return this.#through(async () => new Map(Object.entries(await this.groups.lacking(this.group, blobs))));
  }

  addBlob(blob: string, part: number, of: number, bytes: Uint8Array): Promise<void> {
    return this.#through(() => this.groups.addBlob(this.group, blob, part, of, bytes));
  }

  blob(blob: string, part: number): ReturnType<Hub["blob"]> {
    return this.#through(() => this.groups.blob(this.group, blob, part));
  }

  layInvitation: Hub["layInvitation"] = ({ id, signing }, sealed, heard) =>
    this.#through(() =>
      this.groups.layInvitation(this.group, this.device, { id, key: signing.public, sealed, heard }),
    );

  remove(device: string): Promise<void> {
    return this.#through(() => this.groups.remove(this.group, device));
  }

  heard(numbers: Readonly<Record<string, number>>): ReturnType<Hub["heard"]> {
    return this.#through(async () => {
      await this.groups.heard(this.group, this.device, numbers);
      return this.groups.lastThere(this.group);
    });
  }

  async listen(): Promise<void> {
    throw new Error("Nobody listens in these tests.");
  }
}

const sentence = () => "";
const AWAY = { "hub-away": sentence };
const WRONG = { "hub-wrong": sentence };
const REMOVED = { removed: sentence };

/** A device with a store of its own. */
export class TestDevice {
  readonly keeper = new TextKeeper();
  readonly store: RowStore;
  client: SyncClient;
  trouble: Trouble = () => "none";

  constructor(
    readonly name: string,
    readonly groups: Groups,
    store?: RowStore,
    /** Stands between the device and the hub. */
    readonly between: (hub: Hub) => Hub = (hub) => hub,
  ) {
    this.store = store ?? (new MemoryStore() as unknown as RowStore);
    this.client = this.#client();
  }

  #client(): SyncClient {
    return new SyncClient(this.store, this.keeper, (secrets, group) =>
      this.between(new LocalHub(this.groups, group, secrets, () => this.trouble())),
    );
  }

  /** Starts the program anew. */
  restart(): void {
    this.client = this.#client();
  }

  /** Exchanges by two programs at the same moment. */
  async exchangeTwice(): Promise<void> {
    await Promise.all([this.client.exchange(), this.#client().exchange()]);
  }

  begin(): Promise<void> {
    return this.client.begin({ hub: "https://hub.example", name: this.name });
  }

  /** Joins by an invitation, without HTTP between. */
  async join(invitation: string): Promise<void> {
    const read = readInvitation(invitation);
    await joinGroup(
      this.store,
      this.keeper,
      { hub: read.hub, name: this.name, invitation: read },
      (keys) => ({
        invitation: () => this.groups.invitation(keys.id),
        enter: (_, { id, signing }) => this.groups.enter(keys.id, id, signing),
      }),
    );
  }
}
