import { readFile } from "node:fs/promises";
import { basename } from "node:path";
import { defined } from "../content/defined.js";
import { hashBytes } from "../content/encode.js";
import { DrawerError } from "../content/error.js";
import { notice, type Notice } from "../content/notice.js";
import type { Drawer } from "../drawer/drawer.js";
import { logOf } from "../drawer/history.js";
import { lastStanding, lastUndone, type Change } from "../drawer/model/change.js";
import type { Entry } from "../drawer/model/entry.js";
import { cliErrors, cliNotices } from "../messages/en/cli.js";
import { fileToEdit, replaceFile, type FileToEdit } from "./edited-file.js";
import {
  beginFileChange,
  fileChanges,
  forgetFileChange,
  formerFile,
  isOld,
  keepMade,
  madeFile,
  noteFileChange,
  noteRedone,
  type FileChange,
} from "./file-journal.js";

/** Puts other bytes into a file, so that undo puts the former ones back. */
export async function changeFile(
  file: FileToEdit,
  bytes: Uint8Array,
  change: Pick<FileChange, "drawer" | "act" | "spots">,
): Promise<void> {
  const begun = beginFileChange(file, { ...change, made: hashBytes(bytes) });
  await orForgotten(begun, () => replaceFile(file, bytes));
  noteFileChange({ ...begun, doneAt: new Date().toISOString() });
}

/**
 * Collects something and takes it out of its file: it is in the drawer, and on the disk, before its file is without it.
 * @param collect collects it
 */
export async function liftFromFile(
  drawer: Drawer,
  file: FileToEdit,
  bytes: Uint8Array,
  spots: readonly string[],
  collect: () => Promise<{ notices: readonly Notice[]; entries: readonly Entry[] }>,
): Promise<readonly Notice[]> {
  const begun = beginFileChange(file, { drawer: drawer.name, act: "lift", spots, made: hashBytes(bytes) });
  const before = (await lastStandingOf(drawer))?.id;
  const { notices, entries } = await orForgotten(begun, collect);
  const last = (await lastStandingOf(drawer))?.id;
  // What the drawer has already it does not take again.
  const change = last === before ? undefined : last;
  const collected: FileChange = {
    ...begun,
    ...defined({ change }),
    snippets: entries.map(({ id }) => id),
    isPrivate: entries.some((entry) => entry.private),
  };
  noteFileChange(collected);
  try {
    await replaceFile(file, bytes);
  } catch (error) {
    // It is in both: nothing is lost, and nothing has happened.
    if (change !== undefined) await drawer.undo();
    forgetFileChange(collected);
    throw error;
  }
  noteFileChange({ ...collected, doneAt: new Date().toISOString() });
  return notices;
}

/** Does what a change is for; where that is refused, the change has not begun. */
async function orForgotten<Result>(begun: FileChange, does: () => Promise<Result>): Promise<Result> {
  try {
    return await does();
  } catch (error) {
    forgetFileChange(begun);
    throw error;
  }
}

/** Takes back what was done last: in the drawer, to a file, or both where something was lifted. */
export async function undoLast(drawer: Drawer): Promise<readonly Notice[]> {
  const [last] = fileChanges().filter((each) => each.drawer === drawer.name && !each.isUndone);
  const standing = await lastStandingOf(drawer);
  const isLift = last?.change !== undefined && standing?.id === last.change;
  const isLater = last?.doneAt !== undefined && (standing === undefined || last.doneAt >= standing.at);
  if (!last || !(isLift || isLater)) return drawer.undo();
  const notices = isLift && last.doneAt === undefined ? [] : [await restoreFile(last)];
  if (isLift) notices.push(...(await drawer.undo()));
  const undo = isLift ? (await undoneLast(drawer))?.id : undefined;
  noteFileChange({ ...last, isUndone: true, undoneAt: new Date().toISOString(), ...defined({ undo }) });
  return notices;
}

/** Does again what was undone last: in the drawer, to a file, or both where something was lifted. */
export async function redoLast(drawer: Drawer): Promise<readonly Notice[]> {
  const [last] = fileChanges()
    .filter((each) => each.drawer === drawer.name && each.undoneAt !== undefined && each.doneAt !== undefined)
    .sort((one, other) => (one.undoneAt! < other.undoneAt! ? 1 : -1));
  if (!last || (await isPassed(drawer, last.undoneAt!))) return drawer.redo();
  const undone = await undoneLast(drawer);
  const isLift = last.undo !== undefined && undone?.id === last.undo;
  const isLater = last.undo === undefined && (undone === undefined || last.undoneAt! >= undone.at);
  if (!(isLift || isLater)) return drawer.redo();
  const notices = isLift ? await drawer.redo() : [];
  try {
    notices.push(await remakeFile(last));
  } catch (error) {
    if (isLift) {
      await drawer.undo();
      // It can be tried again: it is this that would be done again then.
      noteFileChange({ ...last, ...defined({ undo: (await undoneLast(drawer))?.id }) });
    }
    throw error;
  }
  noteRedone(last, isLift ? (await lastStandingOf(drawer))?.id : undefined);
  return notices;
}

/** Whether something new was done since something was undone: then that is not done again. */
async function isPassed(drawer: Drawer, undoneAt: string): Promise<boolean> {
  const isNew = ({ drawer: name, doneAt = "", isRedone }: FileChange) =>
    name === drawer.name && doneAt > undoneAt && !isRedone;
  if (fileChanges().some(isNew)) return true;
  for await (const { operation, at } of logOf(drawer.store, drawer.name))
    if (operation !== "undo" && operation !== "redo") return at > undoneAt;
  return false;
}

/** Puts a file back as it was, byte for byte, where it still is as it was left; as it was left is kept meanwhile. */
async function restoreFile(change: FileChange): Promise<Notice> {
  const kept = formerFile(change);
  const file = await fileAs(change.made, change.path, { reason: "conflict/file", kept });
  keepMade(change, file.bytes);
  await replaceFile(file, new Uint8Array(await readFile(kept)));
  return notice(cliNotices, "undone/file", { file: file.name });
}

/** Changes a file again as it was changed, where it is as it was before. */
async function remakeFile(change: FileChange): Promise<Notice> {
  const kept = madeFile(change);
  const file = await fileAs(change.former, change.path, { reason: "conflict/file-again", kept });
  await replaceFile(file, new Uint8Array(await readFile(kept)));
  return notice(cliNotices, "redone/file", { file: file.name });
}

/**
 * A file whose bytes still have a hash.
 * @throws DrawerError `conflict` where it was changed since
 */
async function fileAs(
  hash: string,
  path: string,
  { reason, kept }: { readonly reason: "conflict/file" | "conflict/file-again"; readonly kept: string },
): Promise<FileToEdit> {
  const file = await fileToEdit(path);
  if (file.hash !== hash) throw new DrawerError(cliErrors, reason, { path, kept });
  return file;
}

/** Brings what was broken off to where it is known what it came to, and says what is left to do. */
export async function settleFileChanges(drawer: Drawer): Promise<Notice[]> {
  const notices: Notice[] = [];
  for (const change of fileChanges()) {
    if (isOld(change)) forgetFileChange(change);
    if (change.drawer !== drawer.name || change.isUndone) continue;
    if (change.isPrivate && change.doneAt !== undefined && !(await isStillKept(drawer, change)))
      forgetFileChange(change);
    if (change.doneAt !== undefined) continue;
    const hash = await readFile(change.path).then(
      (bytes) => hashBytes(new Uint8Array(bytes)),
      () => undefined,
    );
    if (hash === change.made) noteFileChange({ ...change, doneAt: new Date().toISOString() });
    else if (change.act === "lift" && (await isStillKept(drawer, change)))
      notices.push(
        notice(cliNotices, "lift/broken-off", { file: basename(change.path), spots: change.spots }),
      );
    else forgetFileChange(change);
  }
  return notices;
}

/** Takes out of its file what was collected to be lifted, where that was broken off. */
export async function finishLifts(
  drawer: Drawer,
  takeOut: (file: FileToEdit, spots: readonly string[]) => Promise<Uint8Array>,
): Promise<Notice[]> {
  const notices: Notice[] = [];
  for (const change of fileChanges()) {
    if (
      change.drawer !== drawer.name ||
      change.act !== "lift" ||
      change.doneAt !== undefined ||
      change.isUndone
    )
      continue;
    const file = await fileToEdit(change.path);
    if (file.hash !== change.former)
      throw new DrawerError(cliErrors, "cannot-edit/changed", { path: change.path });
    await replaceFile(file, await takeOut(file, change.spots));
    noteFileChange({ ...change, doneAt: new Date().toISOString() });
    notices.push(notice(cliNotices, "lift/finished", { file: file.name, spots: change.spots }));
  }
  return notices.length > 0 ? notices : [notice(cliNotices, "lift/nothing", {})];
}

/** Forgets all that was done to files from a drawer, and what they were before. */
export function forgetFiles(drawer: string): void {
  for (const change of fileChanges()) if (change.drawer === drawer) forgetFileChange(change);
}

/** Whether the drawer still knows what was taken out of a file; where that was not noted yet, whether something came in since. */
async function isStillKept(drawer: Drawer, { snippets, id }: FileChange): Promise<boolean> {
  if (snippets !== undefined) return (await drawer.store.changes({ about: snippets, limit: 1 })).length > 0;
  const last = await lastStandingOf(drawer);
  return last !== undefined && id < last.id;
}

async function undoneLast(drawer: Drawer): Promise<Change | undefined> {
  return lastUndone(logOf(drawer.store, drawer.name));
}

async function lastStandingOf(drawer: Drawer): Promise<Change | undefined> {
  return lastStanding(logOf(drawer.store, drawer.name));
}
