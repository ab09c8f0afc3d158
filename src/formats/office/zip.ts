import { strFromU8, unzipSync, zipSync } from "fflate";
import { DrawerError } from "../../content/error.js";
import { contentErrors } from "../../messages/en/content.js";
import { formatErrors } from "../../messages/en/formats.js";

/** How large the parts of a document may be together when unpacked, in bytes. */
const UNPACKED_LIMIT = 256 * 1024 * 1024;

/** The parts of a zipped document that a reader asks for. */
export class Parts {
  /** @internal */
  constructor(
    readonly file: string,
    readonly parts: Readonly<Record<string, Uint8Array>>,
  ) {}

  /** The parts as a zip again, not packed. */
  zipped(): Uint8Array {
    return zipSync(this.parts, { level: 0 });
  }

  /** A part's bytes; nothing when it is not there. */
  bytes(name: string): Uint8Array | undefined {
    return this.parts[name];
  }

  /** A part's text (UTF-8); nothing when it is not there. */
  text(name: string): string | undefined {
    const bytes = this.parts[name];
    return bytes && strFromU8(bytes);
  }

  /**
   * A part's text.
   * @throws DrawerError `unreadable` when it is not there
   */
  needed(name: string): string {
    const text = this.text(name);
    if (text !== undefined) return text;
    throw new DrawerError(formatErrors, "unreadable/part", { file: this.file, part: name });
  }
}

/**
 * Unpacks a document. Parts that no reader uses are passed over; what claims to unpack to more than 256 MB is refused
 * before anything is unpacked.
 *
 * @throws DrawerError `unreadable` when it is no whole zip file, `locked` when it is encrypted, `too-large`
 */
export function unzip(bytes: Uint8Array, file: string, wanted: (name: string) => boolean): Parts {
  refuseLocked(bytes, file);
  let total = 0;
  try {
    const parts = unzipSync(bytes, {
      filter({ name, originalSize }) {
        if (!wanted(name)) return false;
        total += originalSize;
        if (total > UNPACKED_LIMIT) {
          throw new DrawerError(formatErrors, "too-large/document", {
            file,
            what: "bytes",
            most: UNPACKED_LIMIT,
          });
        }
        return true;
      },
    });
    return new Parts(file, parts);
  } catch (error) {
    if (error instanceof DrawerError) throw error;
    throw new DrawerError(formatErrors, "unreadable/damaged", { file }, { cause: error });
  }
}

const COMPOUND_FILE = [0xd0, 0xcf, 0x11, 0xe0, 0xa1, 0xb1, 0x1a, 0xe1];

/** A document with a password is not a zip file but an encrypted package in a compound file ([MS-OFFCRYPTO] 2.3). */
function refuseLocked(bytes: Uint8Array, file: string): void {
  if (!COMPOUND_FILE.every((byte, index) => bytes[index] === byte)) return;
  const name = [..."EncryptedPackage"].flatMap((letter) => [letter.charCodeAt(0), 0]);
  if (!includes(bytes, name)) {
    throw new DrawerError(contentErrors, "unknown-format/old", { file });
  }
  throw locked(file);
}

/** The refusal of a file that needs a password. */
export function locked(file: string): DrawerError {
  return new DrawerError(formatErrors, "locked", { file });
}

function includes(bytes: Uint8Array, wanted: readonly number[]): boolean {
  const first = wanted[0]!;
  for (let at = bytes.indexOf(first); at >= 0; at = bytes.indexOf(first, at + 1)) {
    if (wanted.every((byte, index) => bytes[at + index] === byte)) return true;
  }
  return false;
}

/** A written file with some of its parts changed; those that it does not have are passed over, all others stay packed. */
export async function editParts(
  file: Uint8Array,
  changes: Readonly<Record<string, (xml: string) => string>>,
): Promise<Uint8Array> {
  const { default: JSZip } = await import("jszip");
  const zip = await JSZip.loadAsync(file);
  for (const [name, change] of Object.entries(changes)) {
    const part = zip.file(name);
    if (part) zip.file(name, change(await part.async("string")));
  }
  return zip.generateAsync({ type: "uint8array", compression: "DEFLATE" });
}
