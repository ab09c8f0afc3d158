import { DrawerError } from "../../content/error.js";
import { formatErrors } from "../../messages/en/formats.js";
import { failureOf } from "./failure.js";
import type { TaskName, TaskResult } from "./node/tasks.js";
import { inThread, isNode } from "./node/thread.js";

/**
 * What a package that works in Node alone reads of a file, in a thread of its own.
 * @throws DrawerError `unreadable`, `locked`, `too-large`; `unknown-format` in a page, and where the package is not installed
 */
export async function readInThread<Name extends TaskName>(
  what: Name,
  bytes: Uint8Array,
  file: string,
): Promise<TaskResult<Name>> {
  if (!isNode) throw new DrawerError(formatErrors, "unknown-format/in-page", { file, what });
  try {
    return await inThread(what, bytes);
  } catch (cause) {
    throw failureOf(cause, file, what);
  }
}
