/** Why a database cannot be opened. */
export const whyNotOpened = {
  EACCES: "you are not allowed to read and write there",
  EPERM: "you are not allowed to read and write there",
  ENOTDIR: "a part of its path is not a folder",
  EEXIST: "a part of its path is not a folder",
  EISDIR: "it is a folder",
  ENOSPC: "the disk is full",
  EROFS: "the disk is read-only",
  ENAMETOOLONG: "its name is too long",
};

/** What is refused because of the files that a drawer lies in. */
export const sqliteErrors = {
  /** The drawers cannot be opened. */
  "store/open": ({
    path,
    why,
  }: {
    path: string;
    why: keyof typeof whyNotOpened | { readonly text: string };
  }) =>
    `The drawers in “${path}” cannot be opened: ${typeof why === "string" ? whyNotOpened[why] : why.text}. DRAWER_HOME names another folder.`,
  /** A link stands in place of the file. */
  "store/link": ({ path }: { path: string }) =>
    `The drawers in “${path}” were not opened: a link stands there in place of the file. Set DRAWER_HOME to the folder where they are.`,
  /** The drawers were written by a newer Drawer. */
  "store/newer": ({ path, version, known }: { path: string; version: number; known: number }) =>
    `The drawers in “${path}” were written by a newer Drawer (form ${version}; this one knows ${known}). They were left as they are. Update Drawer to open them.`,
  /** The disk cannot be written. */
  "store/read-only": ({ folder }: { folder: string }) =>
    `Nothing was changed: the drawers in “${folder}” can be read but not written.`,
  /** A change could not be written. */
  "store/write": ({ why, reason }: { why: "full" | "busy" | "other"; reason: string }) =>
    `Nothing was changed, and nothing is lost: the drawers could not be written, because ${
      why === "full"
        ? `the disk is full or cannot be written (${reason}). Free some space and try again`
        : why === "busy"
          ? "another program has been writing to them for a long time. Try again when it has ended"
          : reason
    }.`,
  /** The database is damaged, or none of Drawer's. */
  damaged: ({ path, reason }: { path: string; reason: string }) =>
    `“${path}” cannot be opened: it is no database of drawers, or a damaged one (${reason}).`,
};

/** What is refused because of what a browser keeps. */
export const indexeddbErrors = {
  /** The browser does not let the drawers be opened. */
  "store/browser": ({ reason }: { reason: string }) =>
    `This browser does not let the drawers be opened (${reason}). Private windows often refuse it.`,
  /** The drawers in this browser were written by a newer page. */
  "store/browser-newer": () =>
    "The drawers in this browser were written by a newer Drawer, and were left as they are. Load this page again to get it.",
  /** The browser has no more room. */
  "store/browser-full": () =>
    "Nothing was changed, and nothing is lost: this browser has no more room for drawers. Discard some snippets, or free space on the disk.",
  /** The browser could not write a change. */
  "store/browser-write": ({ reason }: { reason: string }) =>
    `Nothing was changed: the drawers could not be written (${reason}).`,
};

/** What is refused because of the server in which drawers lie. */
export const postgresErrors = {
  /** The name of a schema is none. */
  "bad-option/schema": ({ schema }: { schema: string }) =>
    `“${schema}” cannot be the name of a schema: letters a to z, digits and _, at most 51, and no digit first.`,
  /** The database cannot be opened. */
  "store/postgres-open": ({ reason }: { reason: string }) =>
    `The drawers in PostgreSQL cannot be opened: ${reason}. PGHOST, PGUSER and PGDATABASE say where they are.`,
  /** The tables were written by a newer Drawer. */
  "store/postgres-newer": ({ form, known }: { form: number; known: number }) =>
    `The drawers in PostgreSQL were written by a newer Drawer (form ${form}; this one knows ${known}). They were left as they are. Update Drawer to open them.`,
  /** The drawers cannot be read. */
  "store/postgres-read": ({ reason }: { reason: string }) =>
    `The drawers in PostgreSQL cannot be read: ${reason}. Nothing was changed.`,
  /** A change could not be written. */
  "store/postgres-write": ({ reason }: { reason: string }) =>
    `The drawers in PostgreSQL could not be written: ${reason}. Unless the connection was lost in the very moment of writing, nothing was changed: look before you do it again.`,
};

/** What is told of the server in which drawers lie. */
export const postgresNotices = {
  /** The server's own files may hold a trace. */
  "trace/postgres": () =>
    "It is deleted; the server’s own files and its backups may hold traces of it. VACUUM FULL clears the files; backups are for whoever runs the server.",
};

/** What is refused because the store is somewhere else. */
export const remoteErrors = {
  /** The drawers are elsewhere, and cannot be reached there. */
  "store/away": ({ reason }: { reason: string }) =>
    `Nothing was changed: the drawers cannot be reached (${reason}). Open the window again with “drawer open”.`,
};

/** What is told of the files that a drawer lies in. */
export const sqliteNotices = {
  /** Another program is writing, and a write waits for it. */
  "waits/writer": ({
    writer,
  }: {
    writer: { readonly process: number; readonly work: keyof typeof work } | undefined;
  }) =>
    `Waiting: ${writer === undefined ? "another program" : `process ${writer.process} (${work[writer.work]})`} is writing to the drawers.`,
  /** The folder of the drawers was open to others, and was closed. */
  closed: ({ folder }: { folder: string }) => `Others could look into “${folder}”. It was closed to them.`,
  /** The drawers can only be read now. */
  "read-only": ({ folder }: { folder: string }) =>
    `The drawers in “${folder}” can be read but not written. Nothing can be changed in them now.`,
  /** The tables were brought up to date, after a copy was made. */
  "recovered/updated": ({ copy }: { copy: string }) =>
    `The drawers were brought up to date. As they were before, they are in “${copy}”.`,
  /** A damaged file was set aside, and what could be read was brought into a new one. */
  recovered: ({
    aside,
    whole,
    cut,
    loose,
    hidden,
    hiddenLost,
    drawer,
  }: {
    aside: string;
    whole: number;
    cut: number;
    loose: number;
    /** How many private snippets are back, and how many are not. */
    hidden: number;
    hiddenLost: number;
    drawer: string;
  }) => {
    const parts = [
      `${whole === 1 ? "1 snippet is" : `${whole} snippets are`} back`,
      ...(cut > 0 ? [`of ${cut} more only the beginning`] : []),
      ...(hidden > 0
        ? [
            hidden === 1
              ? "1 that is private is back, private"
              : `${hidden} that are private are back, private`,
          ]
        : []),
      ...(hiddenLost > 0
        ? [hiddenLost === 1 ? "1 that was private is lost" : `${hiddenLost} that were private are lost`]
        : []),
      ...(loose > 0 ? [`${loose} more that had lost their place are in the drawer “${drawer}”`] : []),
    ];
    return `The file of the drawers was damaged. It was set aside as “${aside}”, and what could be read was recovered: ${parts.join("; ")}. The log and what had left could not be brought along.`;
  },
  /** The write-ahead log of the database may hold a trace. */
  "trace/log": ({ file }: { file: string }) =>
    `Another program has these drawers open, so a trace of it stays in “${file}” until that program closes them.`,
  /** The disk is full, so that a trace stays. */
  "trace/full": () =>
    "It is gone, but the disk is full, so a trace of it stays in the file until there is room: the next command wipes it out then.",
  /** Files that were set aside as damaged may hold a trace. */
  "trace/damaged": ({ files }: { files: readonly string[] }) =>
    `What was set aside as damaged still holds what it held: ${files.map((file) => `“${file}”`).join(", ")}. Delete it when you need it no more.`,
};

/** What others are told that wait for a write. */
export const work = {
  reverting: "taking back or doing again a large act",
  forgetting: "forgetting for good",
};

/** What is told of what a browser keeps. */
export const indexeddbNotices = {
  /** The browser's own files may hold a trace. */
  "trace/browser": () =>
    "No page can read it any more; the browser's own files may hold traces of it until the browser puts them in order, or the site's data are cleared.",
};
