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
