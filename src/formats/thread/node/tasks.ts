import { parseDoc } from "../../doc/node/parse.js";
import { parseMsg } from "../../msg/node/parse.js";
import { toXlsx } from "../../xls/convert.js";

/** What is read in a thread of its own, by packages that are loaded when they are first used. */
export const TASKS = { xls: toXlsx, msg: parseMsg, doc: parseDoc };

/** The name of something that is read in a thread. */
export type TaskName = keyof typeof TASKS;
/** What comes of it. */
export type TaskResult<Name extends TaskName> = Awaited<ReturnType<(typeof TASKS)[Name]>>;
