/** Where a snippet came from, as far as messages tell it. */
export interface NamedOrigin {
  readonly document?: string;
  readonly at?: string;
  readonly title?: string;
  readonly address?: string;
  readonly app?: string;
}

/** What messages tell of a snippet. Of a private one `text` holds nothing that it says. */
export interface NamedSnippet {
  readonly text: string;
  readonly kind: string;
  readonly label?: string;
  readonly private: boolean;
}

/** A place on a page: its label, or, where it has none, its element, and for a cell the name of its column. */
export interface NamedPlace {
  readonly label?: string;
  /** The name of its element; `cell` for one of a grid. */
  readonly element: string;
  readonly column?: string;
}

/** How many characters of a snippet stand in a message. */
const NAME_LENGTH = 40;

/** A text as it stands in a message: the beginning of a long one, which ends with a word and “…”. */
export function shortened(text: string): string {
  if (text.length <= NAME_LENGTH) return text;
  const cut = text.slice(0, NAME_LENGTH);
  const words = (/^(.{20,})\s/su.exec(cut)?.[1] ?? cut).replace(/[\s,;|—-]+$/u, "");
  return `${words.replace(/[\uD800-\uDBFF]$/, "")}…`;
}

/** A snippet, where it came from, and where it stands. */
export interface PlacedSnippet {
  readonly position: number;
  readonly entry: NamedSnippet & { readonly origin: NamedOrigin };
}

/** An origin in one line: the document or the page's title, and the place in it. Empty when nothing is known. */
export function originText({ document, title, address, at, app }: NamedOrigin): string {
  return [document ?? title ?? address ?? app, at].filter((part) => part !== undefined).join(", ");
}

/** The name of a rule where it is typed: `text-age`. */
export function typedName(rule: string): string {
  return rule.replace(/[A-Z]/g, (letter) => `-${letter.toLowerCase()}`);
}
