/** A value of a row. */
export type SqlValue = string | number | Uint8Array | null;

/**
 * A database for a hub, in the SQL that SQLite (3.35 or later) and PostgreSQL (12 or later) both speak; values stand as `?`.
 * Numbers are whole, up to 2^53.
 */
export interface Sql {
  /** Does a statement. Returns how many rows it changed. */
  run(sql: string, ...values: readonly SqlValue[]): Promise<number>;
  /** The rows that a statement gives. */
  rows<Row>(sql: string, ...values: readonly SqlValue[]): Promise<Row[]>;
}

/** A database that a hub has opened. */
export interface HubDatabase extends Sql {
  /** Does something in one transaction: all of it, durably, or nothing. */
  transact<Result>(work: (sql: Sql) => Promise<Result>): Promise<Result>;
  /** Tells all processes that serve this database that a group has news. */
  notify(group: string): Promise<void>;
  /** Calls `listener` with each group that has news, from whatever process. Returns an unsubscribe function. */
  listen(listener: (group: string) => void): () => void;
  close(): Promise<void>;
}

/** The tables of a hub. A change here is a new step at the end: databases that are there go through those they have not. */
const STEPS: readonly (readonly string[])[] = [
  [
    `CREATE TABLE groups (
      id TEXT PRIMARY KEY, last BIGINT NOT NULL, bytes BIGINT NOT NULL, began BIGINT NOT NULL)`,
    `CREATE TABLE devices (
      of_group TEXT NOT NULL, id TEXT NOT NULL, signing BYTEA NOT NULL, number BIGINT NOT NULL,
      heard BIGINT NOT NULL, there BIGINT NOT NULL, is_removed INTEGER NOT NULL, PRIMARY KEY (of_group, id))`,
    `CREATE TABLE records (
      of_group TEXT NOT NULL, place BIGINT NOT NULL, device TEXT NOT NULL, number BIGINT NOT NULL,
      sort TEXT NOT NULL, slot TEXT NOT NULL, header BYTEA NOT NULL, signature BYTEA NOT NULL, body BYTEA,
      bytes BIGINT NOT NULL, replaced BIGINT, PRIMARY KEY (of_group, place))`,
    `CREATE UNIQUE INDEX records_of_device ON records (of_group, device, number)`,
    `CREATE INDEX records_of_slot ON records (of_group, slot) WHERE replaced IS NULL`,
    `CREATE INDEX records_replaced ON records (of_group, replaced) WHERE replaced IS NOT NULL`,
    `CREATE INDEX records_forgotten ON records (of_group, place) WHERE sort = 'forgotten'`,
    `CREATE TABLE needs (
      of_group TEXT NOT NULL, blob TEXT NOT NULL, place BIGINT NOT NULL, PRIMARY KEY (of_group, blob, place))`,
    `CREATE INDEX needs_of_record ON needs (of_group, place)`,
    `CREATE TABLE blobs (
      of_group TEXT NOT NULL, blob TEXT NOT NULL, part INTEGER NOT NULL, parts INTEGER NOT NULL,
      bytes BYTEA NOT NULL, came BIGINT NOT NULL, PRIMARY KEY (of_group, blob, part))`,
    `CREATE TABLE invitations (
      id TEXT PRIMARY KEY, of_group TEXT NOT NULL, signing BYTEA NOT NULL, sealed BYTEA NOT NULL,
      heard BIGINT NOT NULL, until BIGINT NOT NULL)`,
    `CREATE INDEX invitations_of_group ON invitations (of_group)`,
  ],
];

/**
 * Makes the tables, or brings them up to date; several processes may do so at once.
 * @throws Error when a newer hub has written them
 */
export async function prepareTables(database: HubDatabase): Promise<void> {
  const form = "CREATE TABLE IF NOT EXISTS hub_form (form INTEGER NOT NULL PRIMARY KEY)";
  // Two that make it at the same moment: PostgreSQL lets one of them fail.
  await database.run(form).catch(() => database.run(form));
  await database.transact(async (sql) => {
    // Who comes first holds the others off until it is done.
    await sql.run("INSERT INTO hub_form (form) VALUES (0) ON CONFLICT (form) DO UPDATE SET form = 0");
    const [row] = await sql.rows<{ form: number }>("SELECT max(form) AS form FROM hub_form");
    const form = Number(row!.form);
    if (form > STEPS.length) throw new Error(`A newer hub has written this database (form ${form}).`);
    for (const step of STEPS.slice(form)) for (const statement of step) await sql.run(statement);
    if (form < STEPS.length) await sql.run("INSERT INTO hub_form (form) VALUES (?)", STEPS.length);
  });
}
