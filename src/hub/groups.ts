import { firstWithin } from "../sync/first-within.js";
import { INVITATION_LIFE } from "../sync/invitation.js";
import type { RecordHeader, SealedRecord } from "../sync/records.js";
import type { HubDatabase, Sql } from "./sql.js";

/** A record with its header read. */
export interface ReadRecord extends SealedRecord {
  readonly read: RecordHeader;
  readonly body: Uint8Array;
}

/** A record as it is given out. */
export interface GivenRecord {
  readonly at: number;
  readonly header: Uint8Array;
  readonly signature: Uint8Array;
  readonly body: Uint8Array | null;
}

/** Why records or contents are not taken. */
export class NotTaken extends Error {
  override readonly name = "NotTaken";

  constructor(
    readonly why: "copied" | "gap" | "full" | "part",
    message: string,
  ) {
    super(message);
  }
}

/** What a hub knows of a device. */
export interface KnownDevice {
  readonly signing: Uint8Array;
  readonly isRemoved: boolean;
}

/** How much a group may hold at the hub, and how much is given out at once, in bytes. */
export interface Quotas {
  readonly group: number;
}

/** How many bytes of records are given out at once, about. */
const ANSWER_BYTES = 4 * 1024 * 1024;
/**
 * For how long contents stay that no record needs, in milliseconds: they are brought before the record that needs them, and one that
 * was there already is not brought again.
 */
const UNUSED = 10 * 60 * 1000;

/** What is told when a device was removed. */
export function removalOf(group: string, device: string): string {
  return `${group} ${device}`;
}

/** The groups of a hub: their devices, the records in their order, and the contents that those need. */
export class Groups {
  constructor(
    readonly database: HubDatabase,
    readonly quotas: Quotas,
    readonly now: () => number = Date.now,
  ) {}

  /** Begins a group with its first device, after which it is called; one that is there stays as it is. */
  async begin(group: string, signing: Uint8Array): Promise<void> {
    await this.database.transact(async (sql) => {
      const fresh = await sql.run(
        "INSERT INTO groups (id, last, bytes, began) VALUES (?, 0, 0, ?) ON CONFLICT (id) DO NOTHING",
        ...[group, this.now()],
      );
      if (fresh > 0) await this.#admit(sql, group, group, signing, 0);
    });
  }

  #admit(sql: Sql, group: string, id: string, signing: Uint8Array, heard: number): Promise<number> {
    return sql.run(
      `INSERT INTO devices (of_group, id, signing, number, heard, there, is_removed)
        VALUES (?, ?, ?, 0, ?, ?, 0) ON CONFLICT (of_group, id) DO NOTHING`,
      ...[group, id, signing, heard, this.now()],
    );
  }

  /** A device of a group; nothing when there is none. */
  async device(group: string, id: string): Promise<KnownDevice | undefined> {
    const [row] = await this.database.rows<{ signing: Uint8Array; is_removed: number }>(
      "SELECT signing, is_removed FROM devices WHERE of_group = ? AND id = ?",
      ...[group, id],
    );
    return row && { signing: new Uint8Array(row.signing), isRemoved: row.is_removed === 1 };
  }

  /**
   * Adds records of a device, in their order; those that are there already are passed over.
   * @throws NotTaken when one of them has the number of another, one is left out, or the group has no room for them
   */
  async add(group: string, device: string, records: readonly ReadRecord[]): Promise<void> {
    await this.database.transact(async (sql) => {
      // Who adds to a group waits for who is adding to it.
      const [held] = await sql.rows<{ last: number; bytes: number }>(
        "UPDATE groups SET last = last WHERE id = ? RETURNING last, bytes",
        group,
      );
      const [writer] = await sql.rows<{ number: number }>(
        "SELECT number FROM devices WHERE of_group = ? AND id = ?",
        ...[group, device],
      );
      let { number } = writer!;
      const fresh: ReadRecord[] = [];
      for (const record of records) {
        if (record.read.number <= number) {
          await refuseOther(sql, group, record);
          continue;
        }
        if (record.read.number !== number + 1)
          throw new NotTaken("gap", `The next record has the number ${number + 1}.`);
        number++;
        fresh.push(record);
      }
      if (fresh.length === 0) return;
      const { last, bytes } = held!;
      const grown = await this.#insert(sql, group, last, fresh);
      if (bytes + grown > this.quotas.group)
        throw new NotTaken("full", `A group may hold ${this.quotas.group} bytes here.`);
      await sql.run(
        "UPDATE groups SET last = ?, bytes = ? WHERE id = ?",
        ...[last + fresh.length, bytes + grown, group],
      );
      await sql.run(
        "UPDATE devices SET number = ? WHERE of_group = ? AND id = ?",
        ...[number, group, device],
      );
    });
    await this.database.notify(group);
  }

  /**
   * Puts records in their places after the last, and lets go of the bodies of those whose place they take; in few statements, for each
   * is a way to the database and back. Returns by how many bytes the group has grown.
   */
  async #insert(sql: Sql, group: string, last: number, records: readonly ReadRecord[]): Promise<number> {
    const slots = [...new Set(records.map(({ read }) => read.slot))];
    const there = await sql.rows<StandingRecord>(
      `SELECT place, slot, device, length(body) AS body_bytes FROM records
        WHERE of_group = ? AND replaced IS NULL AND slot IN (${marks(slots)})`,
      ...[group, ...slots],
    );
    const placed = records.map((record, at) => ({ ...record, place: last + 1 + at }));
    /** By the place of each that is replaced: the place of what replaces it. */
    const replaced = new Map<number, number>();
    const standing = [
      ...there,
      ...placed.map(({ place, read: { slot, device } }) => ({ place, slot, device })),
    ];
    for (const { place, read } of placed) {
      for (const old of standing)
        if (old.slot === read.slot && old.place < place && !replaced.has(old.place))
          if (old.place <= read.seen || old.device === read.device) replaced.set(old.place, place);
    }
    let grown = 0;
    const rows = placed.map(({ header, signature, body, read, place }) => {
      const { device, number, sort, slot } = read;
      const by = replaced.get(place) ?? null;
      const kept = by === null ? body : null;
      const bytes = header.length + signature.length + (kept?.length ?? 0);
      grown += bytes;
      return [group, place, device, number, sort, slot, header, signature, kept, bytes, by];
    });
    await sql.run(
      `INSERT INTO records
        (of_group, place, device, number, sort, slot, header, signature, body, bytes, replaced)
        VALUES ${tuples(rows)}`,
      ...rows.flat(),
    );
    const needs = placed
      .filter(({ place }) => !replaced.has(place))
      .flatMap(({ read, place }) => [...new Set(read.blobs)].map((blob) => [group, blob, place]));
    for (let at = 0; at < needs.length; at += ROWS_AT_ONCE) {
      const some = needs.slice(at, at + ROWS_AT_ONCE);
      await sql.run(`INSERT INTO needs (of_group, blob, place) VALUES ${tuples(some)}`, ...some.flat());
    }
    const gone = there.filter(({ place }) => replaced.has(place));
    if (gone.length === 0) return grown;
    const places = gone.map(({ place }) => place);
    await sql.run(
      `UPDATE records SET body = NULL, bytes = bytes - length(body),
        replaced = CASE place ${places.map(() => "WHEN ? THEN CAST(? AS BIGINT)").join(" ")} END
        WHERE of_group = ? AND place IN (${marks(places)})`,
      ...[...places.flatMap((place) => [place, replaced.get(place)!]), group, ...places],
    );
    await sql.run(`DELETE FROM needs WHERE of_group = ? AND place IN (${marks(places)})`, group, ...places);
    return grown - gone.reduce((sum, row) => sum + Number(row.body_bytes), 0);
  }

  /** Records after a place, or before one from the last back; and the last place that there is. */
  async records(
    group: string,
    { after, before, limit }: { after?: number; before?: number; limit: number },
  ): Promise<{ records: GivenRecord[]; last: number }> {
    const [row] = await this.database.rows<{ last: number }>("SELECT last FROM groups WHERE id = ?", group);
    const columns = "SELECT place, header, signature, body, bytes FROM records WHERE of_group = ? AND";
    const found = await this.database.rows<GivenRow>(
      before === undefined
        ? `${columns} place > ? ORDER BY place LIMIT ?`
        : `${columns} place < ? ORDER BY place DESC LIMIT ?`,
      ...[group, before ?? after ?? 0, limit],
    );
    const given = firstWithin(found, ({ bytes }) => Number(bytes), ANSWER_BYTES);
    return { records: given.map(givenOf), last: row?.last ?? 0 };
  }

  /**
   * Notes that a device was there, and up to which of its records it has heard each device; what all have heard and is replaced goes.
   */
  async heard(group: string, device: string, numbers: Readonly<Record<string, number>>): Promise<void> {
    const now = this.now();
    await this.database.transact(async (sql) => {
      const heard = await placeHeard(sql, group, device, numbers);
      await sql.run(
        "UPDATE devices SET there = ?, heard = ? WHERE of_group = ? AND id = ?",
        ...[now, heard, group, device],
      );
      const [least] = await sql.rows<{ heard: number | null }>(
        `SELECT min(heard) AS heard FROM (
          SELECT heard FROM devices WHERE of_group = ? AND is_removed = 0
          UNION ALL SELECT heard FROM invitations WHERE of_group = ? AND until > ?) AS those`,
        ...[group, group, now],
      );
      await this.#compact(sql, group, Number(least?.heard ?? 0));
    });
  }

  async #compact(sql: Sql, group: string, heard: number): Promise<void> {
    const gone = await sql.rows<{ bytes: number }>(
      `DELETE FROM records WHERE of_group = ? AND
        (replaced <= ? OR (sort = 'forgotten' AND replaced IS NULL AND place <= ?)) RETURNING bytes`,
      ...[group, heard, heard],
    );
    const bytes = gone.reduce((sum, row) => sum + Number(row.bytes), 0);
    if (bytes > 0) await sql.run("UPDATE groups SET bytes = bytes - ? WHERE id = ?", bytes, group);
  }

  /** Which contents are not there whole, and how many of their parts are. Those that are there stay for a while, needed or not. */
  async lacking(group: string, blobs: readonly string[]): Promise<Record<string, number>> {
    if (blobs.length === 0) return {};
    const named = `of_group = ? AND blob IN (${marks(blobs)})`;
    await this.database.run(`UPDATE blobs SET came = ? WHERE ${named}`, this.now(), group, ...blobs);
    const rows = await this.database.rows<{ blob: string; there: number; parts: number }>(
      `SELECT blob, count(*) AS there, max(parts) AS parts FROM blobs WHERE ${named} GROUP BY blob`,
      ...[group, ...blobs],
    );
    const found = new Map(rows.map((row) => [row.blob, row]));
    const lacking = blobs.flatMap((blob): [string, number][] => {
      const { there = 0, parts = 1 } = found.get(blob) ?? {};
      return there < parts ? [[blob, there]] : [];
    });
    return Object.fromEntries(lacking);
  }

  /**
   * Adds a part of a content; one that is there stays as it is.
   * @throws NotTaken when the group has no room for it, or it is not the next
   */
  async addBlob(group: string, blob: string, part: number, of: number, bytes: Uint8Array): Promise<void> {
    await this.database.transact(async (sql) => {
      const [held] = await sql.rows<{ bytes: number }>(
        "UPDATE groups SET bytes = bytes WHERE id = ? RETURNING bytes",
        group,
      );
      const [there] = await sql.rows<{ count: number; parts: number | null }>(
        "SELECT count(*) AS count, max(parts) AS parts FROM blobs WHERE of_group = ? AND blob = ?",
        ...[group, blob],
      );
      if (Number(there!.count) > part) return;
      if (Number(there!.count) !== part || part >= of || (there!.parts !== null && there!.parts !== of))
        throw new NotTaken("part", `The next part is ${there!.count}.`);
      if (held!.bytes + bytes.length > this.quotas.group)
        throw new NotTaken("full", `A group may hold ${this.quotas.group} bytes here.`);
      await sql.run(
        "INSERT INTO blobs (of_group, blob, part, parts, bytes, came) VALUES (?, ?, ?, ?, ?, ?)",
        ...[group, blob, part, of, bytes, this.now()],
      );
      await sql.run("UPDATE groups SET bytes = bytes + ? WHERE id = ?", bytes.length, group);
    });
  }

  /** A part of a content, and how many it has. */
  async blob(
    group: string,
    blob: string,
    part: number,
  ): Promise<{ bytes: Uint8Array; of: number } | undefined> {
    const [row] = await this.database.rows<{ bytes: Uint8Array; parts: number }>(
      "SELECT bytes, parts FROM blobs WHERE of_group = ? AND blob = ? AND part = ?",
      ...[group, blob, part],
    );
    return row && { bytes: new Uint8Array(row.bytes), of: row.parts };
  }

  /** Lays an invitation down: who enters by it hears all from a place on, as far as it is there still. */
  async layInvitation(
    group: string,
    device: string,
    { id, key, sealed, heard }: { id: string; key: Uint8Array; sealed: Uint8Array; heard: number },
  ): Promise<void> {
    const until = this.now() + INVITATION_LIFE;
    await this.database.run("DELETE FROM invitations WHERE until <= ?", this.now());
    await this.database.run(
      `INSERT INTO invitations (id, of_group, signing, sealed, heard, until)
        SELECT ?, of_group, ?, ?, CASE WHEN heard < ? THEN heard ELSE ? END, ? FROM devices
        WHERE of_group = ? AND id = ? ON CONFLICT (id) DO NOTHING`,
      ...[id, key, sealed, heard, heard, until, group, device],
    );
  }

  /** An invitation that is good. */
  async invitation(
    id: string,
  ): Promise<{ group: string; signing: Uint8Array; sealed: Uint8Array } | undefined> {
    const [row] = await this.database.rows<{ of_group: string; signing: Uint8Array; sealed: Uint8Array }>(
      "SELECT of_group, signing, sealed FROM invitations WHERE id = ? AND until > ?",
      ...[id, this.now()],
    );
    return (
      row && {
        group: row.of_group,
        signing: new Uint8Array(row.signing),
        sealed: new Uint8Array(row.sealed),
      }
    );
  }

  /** Lets a device in by an invitation, which is used up by it. Returns whether it was good. */
  async enter(invitation: string, device: string, signing: Uint8Array): Promise<boolean> {
    return this.database.transact(async (sql) => {
      const [used] = await sql.rows<{ of_group: string; heard: number }>(
        "DELETE FROM invitations WHERE id = ? AND until > ? RETURNING of_group, heard",
        ...[invitation, this.now()],
      );
      if (!used) return false;
      return (await this.#admit(sql, used.of_group, device, signing, used.heard)) > 0;
    });
  }

  /** Lets nothing of a device in any more, and gives it nothing. */
  async remove(group: string, device: string): Promise<void> {
    await this.database.run(
      "UPDATE devices SET is_removed = 1 WHERE of_group = ? AND id = ?",
      ...[group, device],
    );
    await this.database.notify(removalOf(group, device));
  }

  /** When each device was there last. */
  async lastThere(group: string): Promise<Record<string, number>> {
    const rows = await this.database.rows<{ id: string; there: number }>(
      "SELECT id, there FROM devices WHERE of_group = ? AND is_removed = 0",
      group,
    );
    return Object.fromEntries(rows.map(({ id, there }) => [id, there]));
  }

  /** Lets go of contents that were brought for a record which never came, and of invitations that are over. */
  async tidy(): Promise<void> {
    await this.database.transact(async (sql) => {
      const gone = await sql.rows<{ of_group: string; bytes: number }>(
        `DELETE FROM blobs WHERE came < ? AND NOT EXISTS (
          SELECT 1 FROM needs WHERE needs.of_group = blobs.of_group AND needs.blob = blobs.blob)
          RETURNING of_group, length(bytes) AS bytes`,
        this.now() - UNUSED,
      );
      for (const { of_group, bytes } of gone)
        await sql.run("UPDATE groups SET bytes = bytes - ? WHERE id = ?", Number(bytes), of_group);
      await sql.run("DELETE FROM invitations WHERE until <= ?", this.now());
    });
  }

  /** How many there are of what, for who watches over a hub. */
  async counts(): Promise<Readonly<Record<"groups" | "devices" | "records" | "bytes", number>>> {
    const one = async (sql: string) =>
      Number((await this.database.rows<{ count: number | null }>(sql))[0]!.count ?? 0);
    return {
      groups: await one("SELECT count(*) AS count FROM groups"),
      devices: await one("SELECT count(*) AS count FROM devices WHERE is_removed = 0"),
      records: await one("SELECT count(*) AS count FROM records"),
      bytes: await one("SELECT sum(bytes) AS count FROM groups"),
    };
  }
}

/** How many rows are written in one statement at most. */
const ROWS_AT_ONCE = 1000;

/** As many marks for values as there are of something. */
function marks(values: readonly unknown[]): string {
  return values.map(() => "?").join(", ");
}

/** Marks for the values of rows. */
function tuples(rows: readonly (readonly unknown[])[]): string {
  return rows.map((row) => `(${marks(row)})`).join(", ");
}

/** A record that stands in a slot. */
interface StandingRecord {
  readonly place: number;
  readonly slot: string;
  readonly device: string;
  readonly body_bytes: number;
}

interface GivenRow {
  readonly place: number;
  readonly header: Uint8Array;
  readonly signature: Uint8Array;
  readonly body: Uint8Array | null;
  readonly bytes: number;
}

function givenOf({ place, header, signature, body }: GivenRow): GivenRecord {
  return {
    at: place,
    header: new Uint8Array(header),
    signature: new Uint8Array(signature),
    body: body && new Uint8Array(body),
  };
}

/** A record that was sent again must be the one that was sent before. */
async function refuseOther(sql: Sql, group: string, { header, read }: ReadRecord): Promise<void> {
  const [there] = await sql.rows<{ header: Uint8Array }>(
    "SELECT header FROM records WHERE of_group = ? AND device = ? AND number = ?",
    ...[group, read.device, read.number],
  );
  if (there && Buffer.compare(Buffer.from(there.header), Buffer.from(header)) !== 0)
    throw new NotTaken("copied", `The record ${read.number} is another one.`);
}

/** The place up to which a device has heard all, by the numbers of the others' records that it has heard. */
async function placeHeard(
  sql: Sql,
  group: string,
  device: string,
  numbers: Readonly<Record<string, number>>,
): Promise<number> {
  const [row] = await sql.rows<{ last: number }>("SELECT last FROM groups WHERE id = ?", group);
  let heard = row!.last;
  const others = await sql.rows<{ id: string }>(
    "SELECT id FROM devices WHERE of_group = ? AND id <> ?",
    ...[group, device],
  );
  for (const { id } of others) {
    const [next] = await sql.rows<{ place: number }>(
      "SELECT place FROM records WHERE of_group = ? AND device = ? AND number > ? ORDER BY number LIMIT 1",
      ...[group, id, numbers[id] ?? 0],
    );
    if (next) heard = Math.min(heard, next.place - 1);
  }
  return heard;
}
