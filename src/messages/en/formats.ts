/** What formats are called, and what a file lacks that is none of theirs. */
export const formats = {
  kinds: {
    docx: { name: "word-processor document", lacks: "text body" },
    odt: { name: "text document", lacks: "text body" },
    ods: { name: "spreadsheet", lacks: "sheets" },
  },
};
