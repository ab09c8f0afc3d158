/** The records of a workbook of 1997 to 2003 ([MS-XLS], BIFF8): a number, a length, and that many bytes. */

/** The most bytes that one record holds; what is more goes on in records of its own ([MS-XLS] 2.1.4). */
const MOST = 8224;

/** Bytes that grow as they are written: numbers with their lowest byte first. */
export class ByteWriter {
  #bytes = new Uint8Array(1024);
  #view = new DataView(this.#bytes.buffer);
  length = 0;

  /** Makes room for so many bytes more, and gives where they begin. */
  #room(count: number): number {
    const at = this.length;
    this.length += count;
    if (this.length <= this.#bytes.length) return at;
    const grown = new Uint8Array(Math.max(this.length, this.#bytes.length * 2));
    grown.set(this.#bytes);
    this.#bytes = grown;
    this.#view = new DataView(grown.buffer);
    return at;
  }

  u8(...values: readonly number[]): this {
    const at = this.#room(values.length);
    values.forEach((value, i) => this.#view.setUint8(at + i, value));
    return this;
  }

  u16(...values: readonly number[]): this {
    const at = this.#room(2 * values.length);
    values.forEach((value, i) => this.#view.setUint16(at + 2 * i, value, true));
    return this;
  }

  u32(...values: readonly number[]): this {
    const at = this.#room(4 * values.length);
    values.forEach((value, i) => this.#view.setUint32(at + 4 * i, value, true));
    return this;
  }

  f64(value: number): this {
    const at = this.#room(8);
    this.#view.setFloat64(at, value, true);
    return this;
  }

  bytes(bytes: Uint8Array): this {
    const at = this.#room(bytes.length);
    this.#bytes.set(bytes, at);
    return this;
  }

  /** UTF-16 code units. */
  text(text: string): this {
    for (let i = 0; i < text.length; i++) this.u16(text.charCodeAt(i));
    return this;
  }

  /** Puts another number where one was written. */
  setU16(at: number, value: number): void {
    this.#view.setUint16(at, value, true);
  }

  setU32(at: number, value: number): void {
    this.#view.setUint32(at, value, true);
  }

  /** What was written. */
  taken(): Uint8Array {
    return this.#bytes.slice(0, this.length);
  }
}

/** The numbers of the records that are written ([MS-XLS] 2.3.1). */
export const RECORD = {
  ...{
    bof: 0x809,
    eof: 0x0a,
    codePage: 0x42,
    font: 0x31,
    format: 0x41e,
    xf: 0xe0,
    style: 0x293,
    palette: 0x92,
  },
  ...{ sheet: 0x85, strings: 0xfc, goesOn: 0x3c, dimensions: 0x200, string: 0xfd, number: 0x203 },
  ...{ blank: 0x201, merged: 0xe5, link: 0x1b8 },
} as const;

/**
 * Writes a record.
 * @param fill writes what stands in it
 */
export function record(
  to: ByteWriter,
  number: number,
  fill: (data: ByteWriter) => unknown = () => undefined,
): void {
  to.u16(number, 0);
  const begin = to.length;
  fill(to);
  to.setU16(begin - 2, to.length - begin);
}

/** A string with the count of its code units before it: of one byte in names, of two in all else ([MS-XLS] 2.5.293, 2.5.240). */
export const shortString = (data: ByteWriter, text: string) => data.u8(text.length, 1).text(text);
export const longString = (data: ByteWriter, text: string) => data.u16(text.length).u8(1).text(text);

/**
 * Writes the table of strings, and the records in which it goes on: in each, a string that was cut begins with its flags
 * again ([MS-XLS] 2.4.265, 2.5.293).
 */
export function stringTable(to: ByteWriter, strings: readonly string[], uses: number): void {
  let number: number = RECORD.strings;
  let data = new ByteWriter().u32(uses, strings.length);
  const next = () => {
    to.u16(number, data.length).bytes(data.taken());
    number = RECORD.goesOn;
    data = new ByteWriter();
  };
  for (const text of strings) {
    // The count, the flags and one code unit stay together.
    if (data.length + 5 > MOST) next();
    data.u16(text.length).u8(1);
    for (let at = 0; at < text.length;) {
      if (data.length + 2 > MOST) {
        next();
        data.u8(1);
      }
      const end = at + Math.floor((MOST - data.length) / 2);
      const part = text.slice(at, end);
      data.text(part);
      at += part.length;
    }
  }
  next();
}
