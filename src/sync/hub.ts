import type { HubRecord } from "./incoming.js";
import type { InvitationKeys } from "./invitation.js";
import type { SealedRecord } from "./records.js";

/** Which records of the group to give. */
export interface RecordQuery {
  /** Those after this place in the hub's order, from the first on. */
  readonly after?: number;
  /** Those before this place, from the last back. */
  readonly before?: number;
  readonly limit: number;
}

/** Records, and the place of the last that there is. */
export interface RecordAnswer {
  readonly records: readonly HubRecord[];
  readonly last: number;
}

/** An invitation as it lies at the hub. */
export interface LaidInvitation {
  readonly group: string;
  /** What is sealed under the invitation's key. */
  readonly sealed: Uint8Array;
}

/** Where devices meet: it keeps records in order, and contents by their names, and can read neither. */
export interface Hub {
  /** Its address, for messages. */
  readonly address: string;
  /** Begins a group, of this device. */
  begin(): Promise<void>;
  /**
   * Adds records of this device, in their order; those that are there already are passed over.
   * @throws DrawerError `hub-wrong` when another record has one of their numbers
   */
  add(records: readonly SealedRecord[]): Promise<void>;
  /** Records of the group, in the hub's order. */
  records(query: RecordQuery): Promise<RecordAnswer>;
  /** Which of these contents are not there whole, and how many of their parts are. */
  lacking(blobs: readonly string[]): Promise<ReadonlyMap<string, number>>;
  /** Adds a part of a content: numbered from 0, of so many. */
  addBlob(blob: string, part: number, of: number, bytes: Uint8Array): Promise<void>;
  /** A part of a content, and how many it has; nothing when it is not there. */
  blob(blob: string, part: number): Promise<{ readonly bytes: Uint8Array; readonly of: number } | undefined>;
  /**
   * Lays an invitation down, which is good for ten minutes, once.
   * @param heard the place in the hub's order from which on who enters by it hears all
   */
  layInvitation(keys: InvitationKeys, sealed: Uint8Array, heard: number): Promise<void>;
  /** Lets nothing of a device in any more. */
  remove(device: string): Promise<void>;
  /**
   * Says up to which of its records each device is heard, durably: what all have heard may go there, once it is replaced.
   * @returns when each device was there last, in milliseconds since 1970
   */
  heard(numbers: Readonly<Record<string, number>>): Promise<Readonly<Record<string, number>>>;
  /** Calls `listener` when there is something new, until the signal says to stop; settles when it does not hear any more. */
  listen(listener: () => void, signal: AbortSignal): Promise<void>;
}

/** What somebody who was invited may do at a hub. */
export interface InvitedHub {
  /** The invitation; nothing when it is not good. */
  invitation(): Promise<LaidInvitation | undefined>;
  /** Enters the group with it. Returns whether it was good. */
  enter(group: string, device: { readonly id: string; readonly signing: Uint8Array }): Promise<boolean>;
}
