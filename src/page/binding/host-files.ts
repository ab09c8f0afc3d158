import type { Recipe } from "../../compose/recipe.js";
import type { Notice } from "../../content/notice.js";
import type { Put } from "../../formats/edit.js";

/** A file on this computer, as it was read. */
export interface HostFile {
  /** Its whole path. */
  readonly path: string;
  readonly name: string;
  readonly bytes: Uint8Array;
}

/** A file on this computer that is to be changed as it was read. */
export interface FileToChange {
  readonly path: string;
  /** The hash of the bytes that were read. */
  readonly hash: string;
}

/** What has become of a snippet in the file that it came from, where it is not the same there. */
export interface FileStanding {
  /** The snippet's id. */
  readonly id: string;
  readonly type: "changed" | "moved" | "gone" | "missing";
}

/** What is told of an act on a file, and what the file is by it. */
export interface FileActed {
  readonly notices: readonly Notice[];
  readonly bytes: Uint8Array;
}

/** The user's files, where what shows the page has them: they are changed in place, and put back by {@link HostFiles.undo}. */
export interface HostFiles {
  /**
   * Finds a file that the user has chosen or dropped: a browser gives its name and what it says, and not where it is.
   * @param hash the hash of its bytes
   * @returns its path; nothing when none is found that is called so and says so, or several
   */
  find(name: string, hash: string): Promise<string | undefined>;
  /**
   * Opens the file that a snippet came from.
   * @throws DrawerError `no-file` when it is not there any more, or it is not known where it is
   */
  open(drawer: string, id: string): Promise<HostFile>;
  /** Reads a file that was found or opened once more; nothing when it is as it was read, or is not there any more. */
  reread(file: FileToChange): Promise<Uint8Array | undefined>;
  /**
   * Puts the block of a pick into a file.
   * @param put as for `putInto` of `drawer/files`
   * @throws DrawerError `cannot-edit`, `no-file`, `not-written`, and as `compose`
   */
  put(
    file: FileToChange,
    where: { readonly spot: string; readonly put?: Put },
    what: { readonly drawer: string; readonly pick: string; readonly recipe: Recipe },
  ): Promise<FileActed>;
  /**
   * Collects what stands at spots, and takes it out of the file.
   * @throws DrawerError `cannot-edit`, `no-file`, `not-written`
   */
  lift(file: FileToChange, spots: readonly string[], drawer: string): Promise<FileActed>;
  /** Takes back what was done last: in the drawer, to a file, or both where something was lifted. */
  undo(drawer: string): Promise<readonly Notice[]>;
  /** Does again what was undone last, in the same places. */
  redo(drawer: string): Promise<readonly Notice[]>;
  /** What has become of the snippets whose files were changed since they were collected. */
  standings(drawer: string): Promise<readonly FileStanding[]>;
  /** Takes snippets anew from the files that they came from. */
  refresh(drawer: string, pick: string): Promise<readonly Notice[]>;
}
