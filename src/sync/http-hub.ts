import * as v from "valibot";
import { DrawerError, reasonOf } from "../content/error.js";
import { syncErrors } from "../messages/en/sync.js";
import { MESSAGE, pack, unpackAsked } from "../stores/remote/wire.js";
import type { Hub, InvitedHub, LaidInvitation, RecordAnswer, RecordQuery } from "./hub.js";
import type { InvitationKeys } from "./invitation.js";
import type { SealedRecord } from "./records.js";
import { bytes } from "./schemas.js";
import { digest, encodeBytes, sign, type KeyPair } from "./sealing.js";

/** How long a request may take, in milliseconds. */
const PATIENCE = 60_000;
/** That a group has no more room (RFC 4918, 507). */
const FULL = 507;
/** What a request is signed for. */
export const REQUEST_PURPOSE = "request";

/** Who speaks to a hub. */
export interface Speaker {
  readonly hub: string;
  readonly group: string;
  readonly device: string;
  readonly signing: KeyPair;
}

const RECORDS = v.object({
  records: v.array(v.object({ at: v.number(), header: bytes, signature: bytes, body: v.nullable(bytes) })),
  last: v.number(),
});
const COUNTS = v.record(v.string(), v.number());
const INVITATION = v.object({ group: v.string(), sealed: bytes });

/** A request to a hub, before it is signed. */
interface Request {
  readonly method: "GET" | "POST" | "PUT" | "DELETE";
  readonly path: string;
  readonly body?: unknown;
  readonly signal?: AbortSignal;
}

/** A hub over HTTP, as a device of a group speaks to it: each request is signed by the device. */
export class HttpHub implements Hub {
  /** By how much the hub's clock is before that of this device, in milliseconds. */
  #ahead = 0;

  constructor(readonly speaker: Speaker) {}

  get address(): string {
    return this.speaker.hub;
  }

  async begin(): Promise<void> {
    await this.#ask({ method: "PUT", path: "", body: { key: this.speaker.signing.public } });
  }

  async add(records: readonly SealedRecord[]): Promise<void> {
    await this.#ask({ method: "POST", path: "/records", body: records });
  }

  async records({ after, before, limit }: RecordQuery): Promise<RecordAnswer> {
    const query = new URLSearchParams({ limit: String(limit) });
    for (const [name, value] of Object.entries({ after, before }))
      if (value !== undefined) query.set(name, String(value));
    return this.#read(RECORDS, { method: "GET", path: `/records?${query}` });
  }

  async lacking(blobs: readonly string[]): Promise<ReadonlyMap<string, number>> {
    const counts = await this.#read(COUNTS, { method: "POST", path: "/lacking", body: blobs });
    return new Map(Object.entries(counts));
  }

  async addBlob(blob: string, part: number, of: number, sealed: Uint8Array): Promise<void> {
    await this.#ask({ method: "PUT", path: `/blobs/${blob}/${part}?of=${of}`, body: sealed });
  }

  async blob(blob: string, part: number): Promise<{ bytes: Uint8Array; of: number } | undefined> {
    const answer = await this.#ask({ method: "GET", path: `/blobs/${blob}/${part}` }, [404]);
    if (answer.status === 404) return undefined;
    const of = Number(answer.headers.get("drawer-parts"));
    return { bytes: new Uint8Array(await answer.arrayBuffer()), of };
  }

  async layInvitation({ id, signing }: InvitationKeys, sealed: Uint8Array, heard: number): Promise<void> {
    const body = { id, key: signing.public, sealed, heard };
    await this.#ask({ method: "POST", path: "/invitations", body });
  }

  async remove(device: string): Promise<void> {
    await this.#ask({ method: "DELETE", path: `/devices/${device}` });
  }

  async heard(numbers: Readonly<Record<string, number>>): Promise<Readonly<Record<string, number>>> {
    return this.#read(COUNTS, { method: "POST", path: "/heard", body: numbers });
  }

  async listen(listener: () => void, signal: AbortSignal): Promise<void> {
    const answer = await this.#ask({ method: "GET", path: "/news", signal });
    try {
      for await (const chunk of answer.body! as unknown as AsyncIterable<Uint8Array>)
        if (new TextDecoder().decode(chunk).includes("event: news")) listener();
    } catch (error) {
      if (!signal.aborted) throw away(this.address, error);
    }
  }

  async #read<Form extends v.GenericSchema>(form: Form, request: Request): Promise<v.InferOutput<Form>> {
    const answer = await this.#ask(request);
    return readAnswer(form, new Uint8Array(await answer.arrayBuffer()), this.address);
  }

  /** Asks, and asks again with the hub's own time where the clocks differ. */
  async #ask(request: Request, taken: readonly number[] = []): Promise<Response> {
    for (let tried = 0; ; tried++) {
      const answer = await this.#askOnce(request);
      if (answer.ok || taken.includes(answer.status)) return answer;
      const time = Date.parse(answer.headers.get("date") ?? "");
      if (answer.status === 401 && tried === 0 && Number.isFinite(time)) {
        this.#ahead = time - Date.now();
        continue;
      }
      throw await refusal(answer, this.address);
    }
  }

  #askOnce({ method, path, body, signal }: Request): Promise<Response> {
    const { hub, group, device, signing } = this.speaker;
    const packed = body === undefined ? undefined : body instanceof Uint8Array ? body : pack(body);
    const url = `${hub}/groups/${group}${path}`;
    const time = String(Date.now() + this.#ahead);
    const { pathname, search } = new URL(url);
    const said = requestSaid(method, pathname + search, time, packed ?? new Uint8Array());
    const signature = encodeBytes(sign(signing.secret, REQUEST_PURPOSE, said));
    return fetchFrom(hub, url, {
      method,
      headers: {
        authorization: `Drawer ${device} ${time} ${signature}`,
        ...(packed && { "content-type": MESSAGE }),
      },
      ...(packed && { body: packed as Uint8Array<ArrayBuffer> }),
      signal: signal ?? AbortSignal.timeout(PATIENCE),
    });
  }
}

/** What of a request is signed: what it asks, when, and what it brings. */
export function requestSaid(method: string, path: string, time: string, body: Uint8Array): Uint8Array {
  return pack([method, path, time, digest(body)]);
}

/** A hub over HTTP, as somebody speaks to it who was invited. */
export class InvitedHttpHub implements InvitedHub {
  constructor(
    readonly hub: string,
    readonly keys: InvitationKeys,
  ) {}

  async invitation(): Promise<LaidInvitation | undefined> {
    const answer = await fetchFrom(this.hub, `${this.hub}/invitations/${this.keys.id}`, {});
    if (answer.status === 404) return undefined;
    if (!answer.ok) throw await refusal(answer, this.hub);
    return readAnswer(INVITATION, new Uint8Array(await answer.arrayBuffer()), this.hub);
  }

  async enter(
    group: string,
    { id, signing }: { readonly id: string; readonly signing: Uint8Array },
  ): Promise<boolean> {
    const proof = sign(this.keys.signing.secret, "enters", pack([group, id, signing]));
    const answer = await fetchFrom(this.hub, `${this.hub}/invitations/${this.keys.id}`, {
      method: "POST",
      headers: { "content-type": MESSAGE },
      body: pack({ device: id, key: signing, proof }),
    });
    if (answer.status === 404) return false;
    if (!answer.ok) throw await refusal(answer, this.hub);
    return true;
  }
}

async function fetchFrom(hub: string, url: string, init: RequestInit): Promise<Response> {
  try {
    return await fetch(url, { signal: AbortSignal.timeout(PATIENCE), ...init, redirect: "error" });
  } catch (error) {
    throw away(hub, error);
  }
}

function away(hub: string, error: unknown): DrawerError {
  const { cause } = error as { cause?: unknown };
  return new DrawerError(syncErrors, "hub-away", { hub, reason: reasonOf(cause ?? error) }, { cause: error });
}

async function refusal(answer: Response, hub: string): Promise<DrawerError> {
  const said = (await answer.text()).slice(0, 200);
  if (answer.status === 409) return new DrawerError(syncErrors, "hub-wrong", { hub, why: "copied" });
  if (answer.status === 410) return new DrawerError(syncErrors, "removed", {});
  const reason = `${answer.status}${said === "" ? "" : `: ${said}`}`;
  const isAway = (answer.status >= 500 && answer.status !== FULL) || answer.status === 429;
  return new DrawerError(syncErrors, isAway ? "hub-away" : "hub-refused", { hub, reason });
}

function readAnswer<Form extends v.GenericSchema>(
  form: Form,
  answer: Uint8Array,
  hub: string,
): v.InferOutput<Form> {
  const read = v.safeParse(form, unpackAsked(answer));
  if (!read.success) throw new DrawerError(syncErrors, "hub-wrong", { hub, why: "swapped" });
  return read.output;
}
