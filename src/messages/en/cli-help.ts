/** What each command is for, what stands after it, and what its options mean, as the help of the command line says it. */
export const commands = {
  append: {
    operands: "[file...]",
    about: "add files, spots of a file, or standard input to the end of a snippet",
    between:
      "what stands between: newline, blank, space, comma, semicolon, tab, nothing, or any text (\\n, \\t)",
    notPrivate: "it is not private, whatever it looks like",
    to: "the snippet that it is added to",
    type: "what it is, whatever its ending says",
    separator: "what parts the columns of rows: comma, tab, semicolon, bar, or the sign (told from the rows)",
    passwordFile: "a file whose first line is the password that opens it (a PDF)",
    at: "a spot of the file, or several",
  },
  back: {
    about: "hand out the one before it again",
  },
  check: {
    operands: "[pick...]",
    about:
      "whether snippets still say what the files say that they came from: the same, changed, moved, gone",
  },
  collect: {
    operands: "[file...]",
    about: "copy files, spots of a file, or standard input into the drawer; the source stays as it is",
    notPrivate: "it is not private, whatever it looks like",
    private: "it is private: shown nowhere, never found or exported, and soon gone",
    label: "a label for what is collected",
    clipboard: "take what was copied last on this desktop",
    header: "whether the first row of a table names its columns (told from the table)",
    type: "what it is, by a format's name (drawer look --help lists them): text, html, markdown, csv, docx, png…",
    separator: "what parts the columns of rows: comma, tab, semicolon, bar, or the sign (told from the rows)",
    passwordFile: "a file whose first line is the password that opens it (a PDF)",
    each: "each row, cell, paragraph, item or line of it is a snippet of its own; blank ones are none",
    at: "a spot of the file (p3, p3..p6, t1, t1!A1:C2, s2, Spring!A2:G2, pg4, name:Wind), or several",
  },
  deal: {
    operands: "[pick...]",
    about: "begin to hand out snippets one at a time (next and back do it); how many are left",
    left: "how many are left, which a deal without a pick tells too",
    skip: "pass over the next one",
    to: "clipboard: the first is put there, and each paste brings the next",
  },
  devices: {
    about: "your devices, with which these drawers are shared, and when each was heard last",
  },
  "devices invite": {
    about: "let another device in: an invitation for “drawer devices join” there, good once, for ten minutes",
    hub: "the address of the hub at which your devices meet, for the first invitation",
    name: "what this device is called, for the first invitation (the computer's name)",
  },
  "devices join": {
    about: "enter with an invitation, which is asked for, or read from standard input",
    hub: "the address of the hub, where the invitation does not say it",
    name: "what this device is called (the computer's name)",
  },
  "devices remove": {
    operands: "<name>",
    about: "take a device out, by its name or its four words: it hears nothing new",
  },
  "devices leave": {
    about: "take this device out; what is in its drawers stays",
  },
  demo: {
    about: "a short tour on sample data, which leaves your own drawers alone",
  },
  discard: {
    operands: "<pick...>",
    about: "take snippets out; undo brings them back",
  },
  drawers: {
    about: "all your drawers, and how much they hold",
  },
  empty: {
    about: "take out all that is not kept; undo brings it back",
    forGood: "forget it, with what had left and the log, so that no trace stays and nothing brings it back",
  },
  export: {
    operands: "<file> [pick...]",
    about: "write all snippets, or some, into a drawer file; what is private is left out",
    overwrite: "replace the file when it is there already",
  },
  fill: {
    operands: "<file>",
    about: "put snippets into the named places of a document by their labels, or by a table of two columns",
    to: "the new file; with --each a name with a {{Name}} in it, by which files differ, or, of a docx, one file with pages for each row",
    from: "the snippets (all)",
    each: "a file, or pages of one file, for each row of a table, whose header has the names",
    overwrite: "replace the file when it is there already",
  },
  hub: {
    about: "serve a hub, at which devices meet; it can read nothing of what they hold",
    port: "the port that it listens at",
    host: "the address that it listens at; encryption is for a proxy in front",
    data: "the folder of its database (SQLite)",
    postgres: "a PostgreSQL database instead, found by PGHOST, PGUSER, PGDATABASE, PGPASSFILE…",
    quota: "how many megabytes a group may hold",
    proxy: "a proxy in front says whom a request comes from",
    quiet: "write no line for each request",
  },
  hide: {
    operands: "<pick...>",
    about: "make snippets private: shown nowhere, never found or exported, until you say otherwise",
    not: "take the privacy off them",
    for: "they are gone for good after this time, such as 2m or 3h, unless they are kept",
  },
  import: {
    operands: "<file>",
    about: "bring the snippets of a drawer file into the drawer: all of them, or none",
  },
  keep: {
    operands: "<pick...>",
    about: "keep snippets for good: neither limits nor age nor emptying takes them out",
    not: "stop keeping them",
  },
  keys: {
    operands: "[key=command...]",
    about:
      "your own keys for every program, while “drawer watch” or the window runs (drawer keys 'Super+F9=place last')",
  },
  open: {
    about: "the drawer in a window beside your programs, which collects what you copy while it is open",
    browser: "only say the window's address, for a browser of your choice",
    quiet: "open no window yet, and collect what is copied until you log out",
    menu: "put the window into the system's menu, with an icon",
    login: "start it quietly when you log in",
    remove: "with --add-to-menu or --at-login: take it out of there again",
  },
  label: {
    operands: "<words...>",
    about: "give snippets a label: a pick, and the label as the last word (drawer label 2..4 Repairs)",
    remove: "take the label off",
  },
  edit: {
    operands: "<position>",
    about: "change a snippet's words, as Markdown, in your editor ($VISUAL or $EDITOR)",
    with: "take the new words from this Markdown file instead (- for standard input)",
  },
  lift: {
    operands: "[file]",
    about: "collect spots of a file, and take them out of it; undo puts them back",
    at: "a spot of the file (p3, p3..p6, t1, t1!A1:C2, s2, Spring!A2:G2, Spring!3:5), or several",
    finish: "take out what was collected when a lift was broken off",
    track: "mark it as taken out, for somebody to accept (as the document says)",
  },
  list: {
    about: "the snippets in the drawer, in order",
    gone: "what has left the drawer and can be brought back with “drawer restore”",
    when: "with the time at which each was collected",
    limit: (usual: number) => `at most so many, the latest, or all (default: ${usual})`,
    from: "only those from this document",
    kind: "only text, table, picture or link",
    find: "only those that hold these words or parts of words, the newest first",
  },
  log: {
    about: "what was done in the drawer, the latest first",
    limit: (usual: number) => `at most so many (default: ${usual})`,
  },
  look: {
    operands: "<file>",
    about: "the parts of a document or sheet, each with its spot",
    at: "what is attached to a mail, by its spot (a1), instead",
    separator: "what parts the columns of rows: comma, tab, semicolon, bar, or the sign (told from the rows)",
    passwordFile: "a file whose first line is the password that opens it (a PDF)",
    places: "its named places instead: content controls, fields, bookmarks, named cells, {{Name}}",
    type: "what the file is, whatever its ending says",
    /** The endings of the files that are read. */
    reads: ({ endings }: { endings: string }) =>
      `Files that are read, by their endings; what a file is, is told from its bytes where they say it:\n  ${endings}`,
  },
  merge: {
    operands: "<pick...>",
    about: "make one snippet of several, where the first stands",
  },
  move: {
    operands: "<pick...>",
    about: "move snippets to another place in the order",
    into: "another drawer, at whose end they shall stand",
    asCopy: "with --into: put copies there, and leave the snippets where they are",
    toEnd: "put them after the last",
    before: "the snippet before which they shall stand",
  },
  next: {
    about: "hand out the next snippet of the deal",
  },
  pause: {
    about: "stop collecting until “drawer resume”",
  },
  place: {
    operands: "<pick...>",
    about: "make one block of snippets and put it on standard output or into a file",
    overwrite: "replace the file when it is there already",
    into: "a file that is there, to put it into; with --to that file stays as it is, and a new one is made",
    at: "with --into: where (p3, t1!B2, s2, Spring!A2); after a sheet or its range rows are appended, by the names of its columns",
    put: "with --into: after the spot, before it, or instead of what stands there",
    track: "with --into: mark it as put in, for somebody to accept (as the document says)",
    bom: "begin CSV and TSV with a byte order mark, by which some sheets know UTF-8",
    guard: "write CSV and TSV raw, also what a sheet would run as a formula",
    out: (formats: readonly string[]) =>
      `what it is written as: ${formats.join(", ")} (default: text, or by the file's ending)`,
    to: "a file to put it into, whose ending tells the format; or clipboard, to be pasted anywhere",
    recipe: "a recipe kept with the drawer; other options change it",
  },
  recipe: {
    about: "the recipes kept with the drawer; save, show or remove one",
  },
  "recipe save": {
    operands: "<name>",
    about: "keep a recipe under a name",
  },
  "recipe show": {
    operands: "<name>",
    about: "show a recipe",
  },
  "recipe remove": {
    operands: "<name>",
    about: "remove a recipe",
  },
  redo: {
    about: "do again what was last undone",
  },
  refresh: {
    operands: "<pick...>",
    about:
      "take snippets anew from the files that they came from, where these have changed; undo brings the former back",
  },
  restore: {
    operands: "<pick...>",
    about: "bring back what has left the drawer, by its number in “drawer list --gone”",
  },
  resume: {
    about: "collect again",
  },
  rules: {
    operands: "[name=value...]",
    about: "the drawer's rules; or change some (drawer rules snippets=500 text-age='60 days')",
    yes: "also when it takes many snippets out",
  },
  send: {
    about: "collect what is selected in the window in front, and paste it where the last block went",
  },
  show: {
    operands: "<pick...>",
    about: "snippets whole, without placing them",
    reveal: "show also what is private",
  },
  split: {
    operands: "<position>",
    about: "part a snippet that was merged or appended to into what it was made of",
  },
  sync: {
    about: "take what your other devices did, and send them what was done here",
    follow: "go on doing so as things happen, until it is ended",
  },
  undo: {
    about: "take back the last change",
  },
  watch: {
    about: "collect what is copied anywhere on this desktop, until Ctrl-C",
    notify: "show each by the desktop's notifications too",
    append: "add each copy to the end of one snippet",
    between:
      "what stands between, with --append: newline, blank, space, comma, semicolon, tab, nothing, or any text",
  },
};

/** The program itself, and the options that are the same for many commands. */
export const program = {
  about: "Collect many snippets in order; place one, several, all, or all of them joined into one block.",
  version: "which version this is",
  help: "what a command does",
  drawer: "which drawer",
  json: "answer with one JSON value",
  dealTo: "a text file onto whose end it is put",
  wholeNumber: "Write a whole number from 1 up.",
};

/** The headings under which commands are listed, in the order of the work. */
export const commandGroups = {
  gather: "Gather",
  look: "Look",
  arrange: "Arrange",
  putDown: "Put down",
  join: "Join",
  takeOut: "Take out and bring back",
  devices: "On several devices",
  learn: "See how it works",
};

/** The options of a recipe. */
export const recipeOptions = {
  as: (names: string) => `how it is laid out: ${names}`,
  between: (names: string) => `what stands between the pieces: ${names}, or any text (\\n, \\t)`,
  style: (names: string) => `whose look: ${names}`,
  tidy: (names: string) => `what is tidied besides edges: ${names}; or none; may be repeated`,
  cite: (names: string) => `how sources are named: ${names}`,
  fit: (names: string) => `what it lands in: ${names}`,
  before: "text before each piece (\\n, \\t)",
  after: "text after each piece (\\n, \\t)",
  header: "whether the first rows of tables name their columns (told from the tables)",
  columns: "with rows: what a column is called (E-Mail=Email); may be repeated, or parted by commas",
  locale: "the language that joins a sentence, and in whose signs CSV is written: en, de, pt-BR…",
};

/** What the tour of `drawer demo` says before its steps. */
export const tour = {
  look: "What is in the wardens' diary, and in the ringing sheet?",
  gather:
    "Gather in one trip: a paragraph, a table, the header and two rows of a sheet, a sentence of a web page.",
  find: "What have I got, and what did I have about wheatears?",
  arrange: "Arrange: the tide first, the diary's table out; no, back again.",
  bullets: "Put down a few, as bullets.",
  rows: "Join: the header and the rows are one table.",
  place: "Keep that table as a piece of its own, and place the whole bulletin.",
  end: ({ file, address }: { file: string; address: string }) =>
    `The finished bulletin lies in ${file}\n(open ${address} in a browser).\n\nThe same in a window beside your programs, without typing: drawer open`,
};
