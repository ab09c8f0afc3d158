import { existsSync } from "node:fs";
import { stat } from "node:fs/promises";
import { dirname } from "node:path";
import { hashBytes } from "../content/encode.js";
import { DrawerError } from "../content/error.js";
import { Drawer } from "../drawer/drawer.js";
import type { Entry } from "../drawer/model/entry.js";
import { pickOf } from "../drawer/model/pick.js";
import type { Store } from "../drawer/store.js";
import { cliErrors } from "../messages/en/cli.js";
import type { FileStanding, FileToChange, HostFiles } from "../page/binding/host-files.js";
import type { FileToEdit } from "./edited-file.js";
import { fileChanges } from "./file-journal.js";
import type { putPick } from "./place-into.js";

/** So many of the latest snippets are looked after in their files. */
const LOOKED_AFTER = 1000;

/** What acts on files is loaded with the first act: a window opens sooner without it. */
const acts = {
  input: () => import("./input.js"),
  edited: () => import("./edited-file.js"),
  file: () => import("./file-acts.js"),
  standings: () => import("./standings.js"),
};
const readBytes = async (path: string) => (await acts.input()).readBytes(path);

/** The files of this computer, for the window. It changes only those that it has found or opened itself. */
export function hostFiles(store: Store): HostFiles {
  const known = new Set<string>();
  const latest = async (drawer: string) => {
    const entries = await store.entries({ drawer, last: LOOKED_AFTER });
    return entries.flatMap(({ entry }) => (entry.origin.path === undefined ? [] : entry));
  };
  const checkKnown = (path: string) => {
    if (!known.has(path)) throw new DrawerError(cliErrors, "no-file/unknown", { path });
  };
  const edited = async (
    { path, hash }: FileToChange,
    act: (file: FileToEdit) => ReturnType<typeof putPick>,
  ) => {
    checkKnown(path);
    const { fileToEdit } = await acts.edited();
    const file = await fileToEdit(path);
    if (file.hash !== hash) throw new DrawerError(cliErrors, "cannot-edit/changed", { path });
    const notices = await act(file);
    return { notices, bytes: (await readBytes(path)).bytes };
  };
  return {
    async find(name, hash) {
      const paths = [
        ...fileChanges().map(({ path }) => path),
        ...(await Promise.all((await store.drawers()).map(({ drawer }) => latest(drawer))))
          .flat()
          .map(pathOf),
      ];
      const { findFile } = await import("./find-file.js");
      const found = await findFile(name, hash, [...new Set(paths.map((path) => dirname(path)))]);
      if (found !== undefined) known.add(found);
      return found;
    },
    async open(drawer, id) {
      const [snippet] = await new Drawer(store, drawer).snippets(pickOf([{ entry: { id } }]));
      const { path, document = "" } = snippet!.entry.origin;
      if (path === undefined) throw new DrawerError(cliErrors, "no-file/unknown", { path: document });
      known.add(path);
      return { path, ...(await readBytes(path)) };
    },
    async reread({ path, hash }) {
      checkKnown(path);
      if (!existsSync(path)) return undefined;
      const { bytes } = await readBytes(path);
      return hashBytes(bytes) === hash ? undefined : bytes;
    },
    put: (file, where, { drawer, ...what }) =>
      edited(file, async (opened) => {
        const { putPick } = await import("./place-into.js");
        return putPick(new Drawer(store, drawer), opened, what, where);
      }),
    lift: (file, at, drawer) =>
      edited(file, async (opened) => {
        const { liftOf } = await import("./lift-spots.js");
        return (await liftOf(opened, { at }))(new Drawer(store, drawer));
      }),
    undo: async (drawer) => (await acts.file()).undoLast(new Drawer(store, drawer)),
    redo: async (drawer) => (await acts.file()).redoLast(new Drawer(store, drawer)),
    async standings(drawer) {
      // What was taken out of its file is not looked for there.
      const lifted = new Set(
        fileChanges().flatMap(({ act, snippets = [] }) => (act === "lift" ? snippets : [])),
      );
      const entries = (await latest(drawer)).filter((entry) => !entry.private && !lifted.has(entry.id));
      const touched = await touchedSince(entries);
      if (touched.length === 0) return [];
      const pick = pickOf(touched.map((entry) => ({ entry })));
      const { standingsOf } = await acts.standings();
      const { checked } = await standingsOf(new Drawer(store, drawer), pick);
      return checked.flatMap(({ snippet: { entry }, standing: { type } }): FileStanding[] =>
        type === "same" || type === "unknown" ? [] : [{ id: entry.id, type }],
      );
    },
    refresh: async (drawer, pick) => (await acts.standings()).refreshPick(new Drawer(store, drawer), pick),
  };
}

function pathOf({ origin }: Entry): string {
  return origin.path!;
}

/** The snippets whose files were changed since, or are not there any more. */
async function touchedSince(entries: readonly Entry[]): Promise<Entry[]> {
  const changedAt = new Map<string, Promise<number>>();
  const whenOf = (path: string) => {
    const known = changedAt.get(path) ?? timeOf(path);
    changedAt.set(path, known);
    return known;
  };
  const touched: Entry[] = [];
  for (const entry of entries)
    if ((await whenOf(pathOf(entry))) > Date.parse(entry.collectedAt)) touched.push(entry);
  return touched;
}

/** When a file was changed last, in milliseconds since 1970; later than any time when it is not there. */
function timeOf(path: string): Promise<number> {
  return stat(path).then(
    ({ mtimeMs }) => mtimeMs,
    () => Infinity,
  );
}
