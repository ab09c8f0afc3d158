import { DrawerError } from "../../content/error.js";
import { contentErrors } from "../../messages/en/content.js";
import { formatErrors } from "../../messages/en/formats.js";
import { locked } from "./zip.js";

const SIGNATURE = [0xd0, 0xcf, 0x11, 0xe0, 0xa1, 0xb1, 0x1a, 0xe1];
/** The name of a stream, as a compound file has it (UTF-16). */
const nameBytes = (name: string) => [...name].flatMap((letter) => [letter.charCodeAt(0), 0]);
/** The stream that an encrypted document is in. */
const ENCRYPTED_PACKAGE = nameBytes("EncryptedPackage");
/** The streams that the sheets of a workbook of before 2007 are in, with the zero after a name ([MS-XLS] 2.1.2). */
const WORKBOOKS = ["Workbook", "Book"].map((name) => [...nameBytes(name), 0, 0]);

/** Whether a file is a compound file ([MS-CFB]), as office programs before 2007 wrote. */
function isCompoundFile(bytes: Uint8Array): boolean {
  return SIGNATURE.every((byte, index) => bytes[index] === byte);
}

/** Whether a file is a workbook of before 2007. */
export function isOldWorkbook(bytes: Uint8Array): boolean {
  return isCompoundFile(bytes) && WORKBOOKS.some((name) => includes(bytes, name));
}

/**
 * The zip file that an Office Open XML document is. One with a password is not a zip file but an encrypted package in a
 * compound file ([MS-OFFCRYPTO] 2.3); where the password is the default one, nobody is asked for it.
 *
 * @param bytes the whole file
 * @param file its name, for messages
 * @throws DrawerError `locked` when it needs a password, `unknown-format` when it is a document from before 2007, `unreadable`
 */
export async function zipOf(bytes: Uint8Array, file: string): Promise<Uint8Array> {
  if (!isCompoundFile(bytes)) return bytes;
  if (!includes(bytes, ENCRYPTED_PACKAGE))
    throw new DrawerError(contentErrors, "unknown-format/old", { file });
  const { openWithDefaultPassword } = await import("./default-password.js");
  let opened: Uint8Array | undefined;
  try {
    opened = openWithDefaultPassword(bytes, file);
  } catch (cause) {
    throw new DrawerError(formatErrors, "unreadable/damaged", { file }, { cause });
  }
  if (!opened) throw locked(file);
  return opened;
}

function includes(bytes: Uint8Array, wanted: readonly number[]): boolean {
  const first = wanted[0]!;
  for (let at = bytes.indexOf(first); at >= 0; at = bytes.indexOf(first, at + 1)) {
    if (wanted.every((byte, index) => bytes[at + index] === byte)) return true;
  }
  return false;
}
