import CFB from "cfb";

/** A person of a mail. */
export interface Person {
  readonly name: string;
  readonly address: string;
}

/** A mail that is to be made. */
export interface MadeMail {
  readonly subject: string;
  readonly from: Person;
  readonly to: readonly Person[];
  readonly copy?: readonly Person[];
  readonly sent: Date;
  readonly text?: string;
  readonly html?: string;
  /** Rich Text Format. */
  readonly rtf?: string;
  readonly attachments?: readonly {
    readonly name: string;
    readonly bytes: Uint8Array;
    readonly contentId?: string;
  }[];
}

type Property = readonly [id: number, value: string | number | Date | Uint8Array];

/** A mail as one mail program keeps it, by the standard of that ([MS-OXMSG], [MS-OXPROPS]). */
export function makeMsg(mail: MadeMail): Uint8Array {
  const file = CFB.utils.cfb_new();
  const { to, copy = [], attachments = [] } = mail;
  const people = [...to.map((person) => [1, person] as const), ...copy.map((person) => [2, person] as const)];
  for (const name of ["00020102", "00030102", "00040102"])
    CFB.utils.cfb_add(
      file,
      `/__nameid_version1.0/__substg1.0_${name}`,
      Buffer.alloc(name === "00030102" ? 8 : 0),
    );
  people.forEach(([type, { name, address }], at) =>
    addProperties(file, `/__recip_version1.0_#${hex(at)}`, 8, [
      ...([
        [0x3001, name],
        [0x3003, address],
        [0x39fe, address],
        [0x0c15, type],
        [0x3002, "SMTP"],
      ] as const),
    ]),
  );
  attachments.forEach(({ name, bytes, contentId }, at) =>
    addProperties(file, `/__attach_version1.0_#${hex(at)}`, 8, [
      ...([
        [0x3707, name],
        [0x3701, bytes],
        [0x3705, 1],
      ] as const),
      ...(contentId === undefined
        ? []
        : ([
            [0x3712, contentId],
            [0x370e, "image/png"],
          ] as const)),
    ]),
  );
  const head = Buffer.alloc(32);
  for (const [at, count] of [people.length, attachments.length, people.length, attachments.length].entries())
    head.writeUInt32LE(count, 8 + 4 * at);
  addProperties(file, "", head, [
    ...([
      [0x001a, "IPM.Note"],
      [0x0037, mail.subject],
      [0x0c1a, mail.from.name],
    ] as const),
    ...([
      [0x0c1f, mail.from.address],
      [0x5d01, mail.from.address],
      [0x0c1e, "SMTP"],
    ] as const),
    ...([
      [0x0039, mail.sent],
      [0x3fde, 65001],
    ] as const),
    ...(mail.text === undefined ? [] : ([[0x1000, mail.text]] as const)),
    ...(mail.html === undefined ? [] : ([[0x1013, Buffer.from(mail.html)]] as const)),
    ...(mail.rtf === undefined ? [] : ([[0x1009, storedRtf(mail.rtf)]] as const)),
  ]);
  return new Uint8Array(CFB.write(file, { type: "buffer" }) as Buffer);
}

const hex = (number: number) => number.toString(16).toUpperCase().padStart(8, "0");

/** Properties of a storage: those of fixed length in its table, the others as streams ([MS-OXMSG] 2.4). */
function addProperties(
  file: CFB.CFB$Container,
  path: string,
  head: number | Buffer,
  all: readonly Property[],
): void {
  const rows = all.map(([id, value]) => {
    const row = Buffer.alloc(16);
    row.writeUInt16LE(id, 2);
    row.writeUInt32LE(6, 4);
    if (typeof value === "number") {
      row.writeUInt16LE(0x0003, 0);
      row.writeUInt32LE(value, 8);
    } else if (value instanceof Date) {
      row.writeUInt16LE(0x0040, 0);
      // 100 nanoseconds since 1601.
      row.writeBigUInt64LE((BigInt(value.getTime()) + 11_644_473_600_000n) * 10_000n, 8);
    } else {
      const type = typeof value === "string" ? 0x001f : 0x0102;
      const bytes = typeof value === "string" ? Buffer.from(value, "utf16le") : Buffer.from(value);
      row.writeUInt16LE(type, 0);
      row.writeUInt32LE(bytes.length + (typeof value === "string" ? 2 : 0), 8);
      const tag = (id * 65_536 + type).toString(16).toUpperCase().padStart(8, "0");
      CFB.utils.cfb_add(file, `${path}/__substg1.0_${tag}`, bytes);
    }
    return row;
  });
  const start = typeof head === "number" ? Buffer.alloc(head) : head;
  CFB.utils.cfb_add(file, `${path}/__properties_version1.0`, Buffer.concat([start, ...rows]));
}

/** Rich Text Format as it stands in a mail, not packed ([MS-OXRTFCP] 2.1.3.1). */
function storedRtf(rtf: string): Buffer {
  const bytes = Buffer.from(rtf, "latin1");
  const head = Buffer.alloc(16);
  head.writeUInt32LE(bytes.length + 12, 0);
  head.writeUInt32LE(bytes.length, 4);
  head.write("MELA", 8, "latin1");
  return Buffer.concat([head, bytes]);
}
