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
    drawer,
  }: {
    aside: string;
    whole: number;
    cut: number;
    loose: number;
    drawer: string;
  }) => {
    const parts = [
      `${whole === 1 ? "1 snippet is" : `${whole} snippets are`} back`,
      ...(cut > 0 ? [`of ${cut} more only the beginning`] : []),
      ...(loose > 0 ? [`${loose} more that had lost their place are in the drawer “${drawer}”`] : []),
    ];
    return `The file of the drawers was damaged. It was set aside as “${aside}”, and what could be read was recovered: ${parts.join("; ")}. The log and what had left could not be brought along.`;
  },
  /** The write-ahead log of the database may hold a trace. */
  "trace/log": ({ file }: { file: string }) =>
    `Another program has these drawers open, so a trace of it stays in “${file}” until that program closes them.`,
  /** Files that were set aside as damaged may hold a trace. */
  "trace/damaged": ({ files }: { files: readonly string[] }) =>
    `What was set aside as damaged still holds what it held: ${files.map((file) => `“${file}”`).join(", ")}. Delete it when you need it no more.`,
};

/** What others are told that wait for a write. */
export const work = {
  reverting: "taking back or doing again a large act",
  forgetting: "forgetting for good",
};
