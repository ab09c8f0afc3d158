/** What files begin with, and hold, by which they are told. Nothing here reads a file. */

/** How a compound file begins. */
const SIGNATURE = [0xd0, 0xcf, 0x11, 0xe0, 0xa1, 0xb1, 0x1a, 0xe1];
/** The name of a stream, as a compound file has it (UTF-16). */
const nameBytes = (name: string) => [...name].flatMap((letter) => [letter.charCodeAt(0), 0]);
/** The stream that an encrypted document is in. */
const ENCRYPTED_PACKAGE = nameBytes("EncryptedPackage");
/** What is in a compound file, by the stream that each has, with the zero after a name ([MS-XLS] 2.1.2, [MS-DOC] 2.1, [MS-OXMSG] 2.2). */
const STREAMS = {
  xls: ["Workbook", "Book"],
  doc: ["WordDocument"],
  msg: ["__properties_version1.0"],
} as const;

/** Whether a file is a compound file ([MS-CFB]), as office programs before 2007 wrote. */
export function isCompoundFile(bytes: Uint8Array): boolean {
  return SIGNATURE.every((byte, index) => bytes[index] === byte);
}

/** What a compound file holds: a workbook or a document of before 2007, or a mail; nothing for any other file. */
export function compoundType(bytes: Uint8Array): keyof typeof STREAMS | undefined {
  if (!isCompoundFile(bytes)) return undefined;
  const types = Object.keys(STREAMS) as (keyof typeof STREAMS)[];
  // A mail may have the others attached, as streams of it.
  return types
    .reverse()
    .find((type) => STREAMS[type].some((name) => includes(bytes, [...nameBytes(name), 0, 0])));
}

/** Whether a compound file holds an encrypted document ([MS-OFFCRYPTO] 2.3). */
export function isEncryptedPackage(bytes: Uint8Array): boolean {
  return includes(bytes, ENCRYPTED_PACKAGE);
}

/** How the facts begin that a document of before 2007 tells of itself, at the beginning of a sector ([MS-DOC] 2.5.1, [MS-CFB] 2.2). */
const FACTS = [0xec, 0xa5];
const SECTOR = 512;

/** Whether a document of before 2007 is encrypted: the eighth bit of its flags ([MS-DOC] 2.5.2). */
export function isEncryptedDoc(bytes: Uint8Array): boolean {
  for (let at = SECTOR; at < bytes.length; at += SECTOR)
    if (bytes[at] === FACTS[0] && bytes[at + 1] === FACTS[1]) return (bytes[at + 11]! & 1) === 1;
  return false;
}

function includes(bytes: Uint8Array, wanted: readonly number[]): boolean {
  const first = wanted[0]!;
  for (let at = bytes.indexOf(first); at >= 0; at = bytes.indexOf(first, at + 1)) {
    if (wanted.every((byte, index) => bytes[at + index] === byte)) return true;
  }
  return false;
}

/** How an OpenDocument that is one XML file begins: with its outermost element, which says what it is (ODF 1.3 part 3, 3.1.2). */
const FLAT =
  /^\uFEFF?\s*(?:<\?xml[^>]*>\s*)?(?:<!--[^]*?-->\s*)*<([\w-]+:)?document\s[^>]*?mimetype="application\/vnd\.oasis\.opendocument\.(text|spreadsheet|presentation)/;

/** What an OpenDocument that is one XML file is: the word of its media type; nothing when the bytes are none. */
export function flatOdfType(bytes: Uint8Array): "text" | "spreadsheet" | "presentation" | undefined {
  if (bytes[0] === 0x50) return undefined;
  const head = new TextDecoder().decode(bytes.subarray(0, 16_384));
  return FLAT.exec(head)?.[2] as ReturnType<typeof flatOdfType>;
}
