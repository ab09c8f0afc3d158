import { DrawerError } from "../../content/error.js";
import { formatErrors, type OptionalPackage } from "../../messages/en/formats.js";
import { locked } from "../office/zip.js";

/**
 * What a thread, or the package in it, threw, as a refusal in a sentence.
 * @param file the name of the file that was read
 * @param what what it is
 */
export function failureOf(cause: unknown, file: string, what: OptionalPackage): DrawerError {
  const { name, message, code } = cause as Error & { code?: string };
  if (/password|encrypt/i.test(message)) return locked(file);
  if (/MODULE_NOT_FOUND/.test(`${code} ${name}`))
    return new DrawerError(formatErrors, "unknown-format/package", { file, what }, { cause });
  if (/Timeout|ERR_WORKER_OUT_OF_MEMORY/.test(`${name} ${code}`))
    return new DrawerError(formatErrors, "too-large/old-form", { file, what }, { cause });
  return new DrawerError(formatErrors, "unreadable/damaged", { file }, { cause });
}
