import { DrawerError } from "../content/error.js";
import { syncErrors } from "../messages/en/sync.js";
import type { RowStore } from "../stores/row-store.js";
import { deviceId } from "./devices.js";
import { Exchange, lastWritten, type Exchanged, type ExchangeOptions } from "./exchange.js";
import {
  beginGroup,
  devicesOf,
  findDevice,
  join,
  layInvitation,
  leaveGroup,
  noteInvited,
  noteRemoved,
  type ShownDevice,
} from "./group.js";
import { HttpHub, InvitedHttpHub } from "./http-hub.js";
import type { Hub } from "./hub.js";
import { checkHub, keysOf, newInvitation, readInvitation, writeInvitation } from "./invitation.js";
import { readState, type DeviceSecrets, type SecretKeeper } from "./state.js";

/** How a hub is reached. */
export type Connect = (secrets: DeviceSecrets, group: string) => Hub;

const overHttp: Connect = (secrets, group) =>
  new HttpHub({
    ...{ hub: secrets.hub, group, signing: secrets.signing },
    device: deviceId(secrets.signing.public),
  });

/**
 * A store's part in a group of devices: invites others, joins them, and exchanges with them through a hub what was done.
 *
 * @example
 * ```js
 * import { MemoryStore } from "drawer";
 * import { SyncClient } from "drawer/sync";
 *
 * let secrets;
 * const keeper = { read: async () => secrets, write: async (kept) => void (secrets = kept) };
 * const client = new SyncClient(new MemoryStore(), keeper);
 * console.log(await client.devices()); // []
 * ```
 */
export class SyncClient {
  /**
   * @param store whose drawers are shared
   * @param keeper where the device's secrets are kept
   */
  constructor(
    readonly store: RowStore,
    readonly keeper: SecretKeeper,
    readonly connect: Connect = overHttp,
  ) {}

  /** The devices of the group; none on one that is alone. */
  devices(): Promise<ShownDevice[]> {
    return devicesOf(this.store);
  }

  /**
   * Begins a group, of this device alone.
   * @param options the address of the hub, and what this device is called
   * @throws DrawerError `joined`, `bad-option`, `hub-away`, `hub-refused`
   */
  async begin({ hub, name }: { readonly hub: string; readonly name: string }): Promise<void> {
    await this.#refuseTwo();
    await beginGroup(this.store, this.keeper, { hub: checkHub(hub), name }, this.connect);
  }

  /**
   * Invites another device.
   * @returns the invitation, good once and for ten minutes: the address of the hub, and ten words
   * @throws DrawerError as {@link exchange}
   */
  async invite(): Promise<string> {
    const { secrets, hub } = await this.#group();
    const invitation = newInvitation(secrets.hub);
    const keys = await keysOf(invitation);
    await this.store.engine.write(() => noteInvited(secrets, keys));
    await this.exchange();
    await layInvitation(this.store, (await this.keeper.read())!, hub, keys);
    return writeInvitation(invitation);
  }

  /**
   * Enters a group. What is here already goes to the others, and what they have comes with the next exchange.
   * @param invitation as the other device gave it
   * @param options what this device is called, and the address of the hub where the invitation does not say it
   * @throws DrawerError `joined`, `invitation`, `bad-option`, `hub-away`, `hub-refused`
   */
  async join(
    invitation: string,
    { name, hub }: { readonly name: string; readonly hub?: string },
  ): Promise<void> {
    await this.#refuseTwo();
    const read = readInvitation(invitation, hub);
    const { hub: address } = read;
    await join(
      this.store,
      this.keeper,
      { hub: address, name, invitation: read },
      (keys) => new InvitedHttpHub(address, keys),
    );
  }

  /**
   * Takes another device out of the group: it hears nothing new.
   * @param called its name, or its four words
   * @throws DrawerError `no-device`, and as {@link exchange}
   */
  async remove(called: string): Promise<ShownDevice> {
    await this.exchange();
    const { secrets, hub } = await this.#group();
    const { id, shown } = await findDevice(this.store, called);
    await hub.remove(id);
    // Nothing more of it comes after this.
    await this.exchange();
    const after = await lastWritten(hub, (await this.store.engine.read(readState))!, id);
    await this.store.engine.write(() => noteRemoved(secrets, id, after));
    await this.exchange();
    return shown;
  }

  /** Forgets the group on this device; what it holds stays. */
  leave(): Promise<void> {
    return leaveGroup(this.store, this.keeper);
  }

  /**
   * Takes what the other devices did, and sends what was done here.
   * @throws DrawerError `not-joined`, `removed`, `hub-away`, `hub-refused`, `hub-wrong`
   */
  async exchange(options: ExchangeOptions = {}): Promise<Exchanged> {
    const { hub } = await this.#group();
    return new Exchange(this.store, this.keeper, hub, options).run();
  }

  /**
   * Calls `listener` when the hub has news, until the signal ends it. Settles when it does not hear any more.
   * @throws DrawerError as {@link exchange}
   */
  async listen(listener: () => void, signal: AbortSignal): Promise<void> {
    const { hub } = await this.#group();
    await hub.listen(listener, signal);
  }

  /** The hub of the group, and the secrets of this device. */
  async #group(): Promise<{ secrets: DeviceSecrets; hub: Hub }> {
    const secrets = await this.keeper.read();
    const state = await this.store.engine.read(readState);
    if (!secrets || !state) throw new DrawerError(syncErrors, "not-joined", {});
    return { secrets, hub: this.connect(secrets, state.group) };
  }

  async #refuseTwo(): Promise<void> {
    const secrets = await this.keeper.read();
    const state = await this.store.engine.read(readState);
    if (secrets && state) throw new DrawerError(syncErrors, "joined", { hub: secrets.hub });
  }
}
