import { DrawerError } from "../../content/error.js";
import { contentErrors } from "../../messages/en/content.js";
import { formatErrors } from "../../messages/en/formats.js";
import { isCompoundFile, isEncryptedPackage } from "../heads.js";
import { locked } from "./zip.js";

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
  if (!isEncryptedPackage(bytes)) throw new DrawerError(contentErrors, "unknown-format/old", { file });
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
