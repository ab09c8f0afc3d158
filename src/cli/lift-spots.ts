import { defined } from "../content/defined.js";
import { notice, type Notice } from "../content/notice.js";
import type { Drawer } from "../drawer/drawer.js";
import { takeOut } from "../files/edit.js";
import { readSource } from "../files/source.js";
import { cliNotices } from "../messages/en/cli.js";
import type { FileToEdit } from "./edited-file.js";
import { liftFromFile } from "./file-acts.js";
import { withPath } from "./gather.js";

/** What is lifted, and how. */
export interface Lift {
  /** As they are written: `p3..p4`, `t1`, `name:Wind`. */
  readonly at: readonly string[];
  readonly label?: string;
  /** Whether it is marked as a change, for somebody to accept. */
  readonly track?: boolean;
}

/**
 * Makes ready to collect what stands at spots, each as a snippet, and to take it out of its file; refused before anything is done.
 * @returns what does it, and tells of it
 * @throws DrawerError `bad-spot`, `no-spot`, `cannot-edit`, `unknown-format`, `unreadable`
 */
export async function liftOf(
  file: FileToEdit,
  { at, label, track }: Lift,
): Promise<(drawer: Drawer) => Promise<readonly Notice[]>> {
  const source = await readSource(file.bytes, file.name);
  const spots = at.flatMap((written) => source.spots(written));
  const pieces = withPath(
    spots.map((spot) => ({ ...source.at(spot), ...defined({ label }), stays: true })),
    file.path,
  );
  const edited = await takeOut(file.bytes, file.name, spots, defined({ track }));
  return async (drawer) => {
    const notices = await liftFromFile(drawer, file, edited.data, spots, async () => {
      const collected = await drawer.collect(pieces);
      return { notices: collected.notices, entries: collected.collected.map(({ entry }) => entry) };
    });
    return [...notices, notice(cliNotices, "lifted", { file: file.name, spots }), ...edited.notices];
  };
}
