/** Words that stand in content or beside it: in a block, and in the list of a document's parts. */
export const content = {
  /** What stands for a picture that cannot be shown and has no description. */
  picture: "picture",
  /** The name of the column in which sources stand. */
  source: "Source",
};

/** What the parts of a document or workbook are called. */
export const parts = {
  table: ({ rows, columns }: { rows: number; columns: number }) => `table ${rows} × ${columns}`,
  picture: "picture",
  heading: ({ level, section }: { level: number; section: number }) => `heading ${level}, s${section}`,
  paragraph: "paragraph",
  code: "code",
  quote: "quote",
  item: "item",
  numberedItem: "numbered item",
  sheet: "sheet",
  size: (rows: number, columns: number) => `${rows} rows, ${columns} columns`,
  empty: "empty",
};

/** What is named as an origin or a file where nothing has a name of its own. */
export const sources = {
  clipboard: "the clipboard",
  standardInput: "standard input",
  otherWindow: "another window",
  file: "the file",
};
