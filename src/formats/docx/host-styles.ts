import type { EditedPackage } from "../office/edited-package.js";
import { withLast } from "../office/ooxml-package.js";

/** A style as its file has it. */
interface NamedStyle {
  readonly id: string;
  readonly name: string;
  readonly type: string;
  readonly xml: string;
  readonly isDefault: boolean;
}

/** What a style of ours may be called in a document of others, by our names. */
const ALIKE: Readonly<Record<string, RegExp>> = {
  quotations: /^(block )?(quotations?|quote)$/,
  "code block": /^(code block|source code|html preformatted|preformatted text)$/,
  "inline code": /^(inline code|source text|verbatim char|html code)$/,
};

/** The styles of a document, to which those of another are matched by their names, or added where it has none. */
export class HostStyles {
  readonly #host: NamedStyle[];
  readonly #guest: NamedStyle[];
  readonly #known = new Map<string, string>();

  constructor(
    readonly host: EditedPackage,
    part: string | undefined,
    guest: string,
    /** Gives the part that styles are added to, and makes it where there is none. */
    readonly partToAdd: () => string,
  ) {
    this.#host = stylesOf((part === undefined ? undefined : host.text(part)) ?? "");
    this.#guest = stylesOf(guest);
  }

  /** The id of the style that the host has for its text, where its text uses one. */
  bodyText(text: string): string | undefined {
    const style = this.#host.find(
      ({ type, name }) => type === "paragraph" && /^(body text|text body)$/.test(name),
    );
    return style && text.includes(`<w:pStyle w:val="${style.id}"`) ? style.id : undefined;
  }

  /** The id in the host of a style of the guest. */
  idOf(id: string): string {
    const known = this.#known.get(id);
    if (known !== undefined) return known;
    const style = this.#guest.find((each) => each.id === id);
    const found = style ? (this.#match(style)?.id ?? this.#add(style)) : id;
    this.#known.set(id, found);
    return found;
  }

  #match({ name, type }: NamedStyle): NamedStyle | undefined {
    const alike = ALIKE[name];
    return this.#host.find((each) => each.type === type && (each.name === name || alike?.test(each.name)));
  }

  #add(style: NamedStyle): string {
    let id = style.id;
    for (let number = 2; this.#host.some((each) => each.id === id); number++) id = `${style.id}${number}`;
    this.#known.set(style.id, id);
    const plain = this.#host.find(({ type, isDefault }) => type === "paragraph" && isDefault)?.id;
    const based = (of: string) => (of === "Normal" ? (plain ?? of) : this.idOf(of));
    const isCode = /code/.test(style.name);
    const made = style.xml
      .replace(/w:styleId="[^"]*"/, `w:styleId="${id}"`)
      .replace(/<w:(basedOn|next|link) w:val="([^"]*)"\/>/g, (_, kind: string, of: string) =>
        kind === "basedOn" ? `<w:basedOn w:val="${based(of)}"/>` : "",
      )
      // The letters are those of the document, but for code.
      .replace(/<w:rFonts\b[^>]*\/>/g, (fonts) => (isCode ? fonts : ""));
    const part = this.partToAdd();
    this.host.set(part, withLast(this.host.text(part)!, "styles", made));
    this.#host.push({ ...style, id, isDefault: false });
    return id;
  }
}

/** The styles in a part (ECMA-376 part 1, 17.7.4.17), with their names in small letters. */
function stylesOf(xml: string): NamedStyle[] {
  return [...xml.matchAll(/<w:style\b([^>]*)>[\s\S]*?<\/w:style>/g)].map(([all, facts]) => ({
    id: /w:styleId="([^"]*)"/.exec(facts!)?.[1] ?? "",
    name: (/<w:name w:val="([^"]*)"/.exec(all)?.[1] ?? "").toLowerCase(),
    type: /w:type="([^"]*)"/.exec(facts!)?.[1] ?? "paragraph",
    isDefault: /w:default="(1|true|on)"/.test(facts!),
    xml: all,
  }));
}
