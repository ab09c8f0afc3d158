import { hostname } from "node:os";
import type { SyncClient } from "../sync/client.js";
import { INVITATION_LIFE, invitationLink } from "../sync/invitation.js";
import { UsageError } from "./refusal.js";

/** How the group of devices is begun with the first invitation. */
export interface FirstInvitation {
  /** The address of the hub. */
  readonly hub?: string | undefined;
  /** What this device is called; as the computer without it. */
  readonly name?: string | undefined;
}

/** An invitation, and until when it is good. */
export interface InvitedDevice {
  readonly invitation: string;
  /** The address at which a browser joins by it. */
  readonly link: string;
  /** ISO 8601, in UTC. */
  readonly until: string;
}

/**
 * Invites another device; begins the group where this device is alone.
 * @throws UsageError `bad-option` where the address of the hub is missing, or one is named in a group that has it
 */
export async function inviteDevice(
  client: SyncClient,
  { hub, name }: FirstInvitation,
): Promise<InvitedDevice> {
  if ((await client.devices()).length === 0) {
    if (hub === undefined) throw new UsageError("bad-option/no-hub", {});
    await client.begin({ hub, name: name ?? hostname() });
  } else if (hub !== undefined || name !== undefined) throw new UsageError("bad-option/named", {});
  const invitation = await client.invite();
  const until = new Date(Date.now() + INVITATION_LIFE).toISOString();
  return { invitation, link: invitationLink(invitation), until };
}
