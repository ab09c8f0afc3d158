import { strToU8 } from "fflate";
import type { Orientation } from "./column-widths.js";
import { ZipWriter } from "./zip-writer.js";

/** What the writers of both OpenDocument formats share. */

const NAMESPACES = Object.entries({
  office: "urn:oasis:names:tc:opendocument:xmlns:office:1.0",
  style: "urn:oasis:names:tc:opendocument:xmlns:style:1.0",
  text: "urn:oasis:names:tc:opendocument:xmlns:text:1.0",
  table: "urn:oasis:names:tc:opendocument:xmlns:table:1.0",
  draw: "urn:oasis:names:tc:opendocument:xmlns:drawing:1.0",
  fo: "urn:oasis:names:tc:opendocument:xmlns:xsl-fo-compatible:1.0",
  svg: "urn:oasis:names:tc:opendocument:xmlns:svg-compatible:1.0",
  number: "urn:oasis:names:tc:opendocument:xmlns:datastyle:1.0",
  config: "urn:oasis:names:tc:opendocument:xmlns:config:1.0",
  ooo: "http://openoffice.org/2004/office",
  xlink: "http://www.w3.org/1999/xlink",
  dc: "http://purl.org/dc/elements/1.1/",
})
  .map(([prefix, uri]) => ` xmlns:${prefix}="${uri}"`)
  .join("");

const ENTITIES: Readonly<Record<string, string>> = { "&": "&amp;", "<": "&lt;", ">": "&gt;", '"': "&quot;" };

/** Makes text safe in XML: escapes, and leaves out the characters that XML 1.0 has no place for. */
export function escapeXml(text: string): string {
  return text
    .replace(/[&<>"]/g, (sign) => ENTITIES[sign]!)
    .replace(
      /[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]|[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/g,
      "",
    );
}

/** An element; attributes without a value are left out. */
export function element(
  name: string,
  attributes: Readonly<Record<string, string | number | undefined>>,
  inner = "",
): string {
  let opening = name;
  for (const [key, value] of Object.entries(attributes)) {
    if (value !== undefined) opening += ` ${key}="${escapeXml(String(value))}"`;
  }
  return inner === "" ? `<${opening}/>` : `<${opening}>${inner}</${name}>`;
}

/** Text with its spaces and tabs as the elements that keep them (ODF 1.3 part 3, 6.1.2 to 6.1.4); `\n` is a line break. */
export function textXml(text: string, atStart: boolean): string {
  return escapeXml(text)
    .replace(/ {2,}|^ /g, (spaces, at: number) => {
      const kept = at === 0 && atStart ? "" : " ";
      return `${kept}${spaces.length > kept.length ? `<text:s text:c="${spaces.length - kept.length}"/>` : ""}`;
    })
    .replaceAll("\t", "<text:tab/>")
    .replaceAll("\n", "<text:line-break/>");
}

/** How text is to look; what is left out or false is as in any. */
type WrittenText = {
  readonly [Name in "bold" | "italic" | "underline" | "strike" | "sub" | "sup"]?: boolean | undefined;
} & { readonly [Name in "color" | "background" | "font"]?: string | undefined } & {
  /** Points. */
  readonly size?: number | undefined;
};

/**
 * The properties of text that looks so (ODF 1.3 part 3, 16.29.29); nothing for text that looks as any. Weight, slant and size are said
 * for each kind of script: what is said of western letters is not said of those of Asia, or of those from right to left.
 */
export function textProperties(marks: WrittenText): string {
  const properties = {
    ...forEachScript("font-weight", marks.bold ? "bold" : undefined),
    ...forEachScript("font-style", marks.italic ? "italic" : undefined),
    "style:text-underline-style": marks.underline ? "solid" : undefined,
    "style:text-line-through-style": marks.strike ? "solid" : undefined,
    "style:text-position": marks.sup ? "super 58%" : marks.sub ? "sub 58%" : undefined,
    "fo:color": marks.color,
    "fo:background-color": marks.background,
    "fo:font-family": marks.font && `'${marks.font}'`,
    ...forEachScript("font-size", marks.size ? `${marks.size}pt` : undefined),
  };
  return Object.values(properties).some((value) => value !== undefined)
    ? element("style:text-properties", properties)
    : "";
}

function forEachScript(name: string, value: string | undefined): Record<string, string | undefined> {
  return { [`fo:${name}`]: value, [`style:${name}-asian`]: value, [`style:${name}-complex`]: value };
}

/** The automatic styles of a document: the same properties always get the same name. */
export class AutomaticStyles {
  readonly #names = new Map<string, string>();
  #xml = "";

  /** The name of the style of a family with this inside; nothing for a style that says nothing. */
  name(
    family: string,
    inner: string,
    attributes: Readonly<Record<string, string | undefined>> = {},
  ): string | undefined {
    if (inner === "" && Object.values(attributes).every((value) => value === undefined)) return undefined;
    const key = JSON.stringify([family, inner, attributes]);
    let name = this.#names.get(key);
    if (name === undefined) {
      name = `${family.replace(/[^a-z]/g, "")}${this.#names.size + 1}`;
      this.#names.set(key, name);
      this.#xml += element(
        "style:style",
        { "style:name": name, "style:family": family, ...attributes },
        inner,
      );
    }
    return name;
  }

  /**
   * Adds a style of another sort, such as a list's or a number's, under a name made for it.
   * @param facts what tells it from others of its sort
   */
  add(prefix: string, facts: string, make: (name: string) => string): string {
    const key = `${prefix} ${facts}`;
    const known = this.#names.get(key);
    if (known !== undefined) return known;
    const name = `${prefix}${this.#names.size + 1}`;
    this.#names.set(key, name);
    this.#xml += make(name);
    return name;
  }

  get xml(): string {
    return `<office:automatic-styles>${this.#xml}</office:automatic-styles>`;
  }
}

/** What goes into an OpenDocument file. */
interface OdfContents {
  /** What stands in the body; of a large one piece by piece. Its automatic styles are all known by then. */
  readonly body: Iterable<string>;
  readonly automatic: AutomaticStyles;
  /** The styles that have names of their own. */
  readonly styles?: string;
  /** How the pages of a text are turned. */
  readonly orientation?: Orientation;
  /** How programs are to show it (ODF 1.3 part 3, 3.10). */
  readonly settings?: string | undefined;
  readonly title?: string | undefined;
  readonly files?: ReadonlyMap<string, { bytes: Uint8Array; type: string }>;
}

/** The pages of A4, turned. */
const TURNED =
  element(
    "office:automatic-styles",
    {},
    element(
      "style:page-layout",
      { "style:name": "Turned" },
      element("style:page-layout-properties", {
        "fo:page-width": "29.7cm",
        "fo:page-height": "21cm",
        "style:print-orientation": "landscape",
        "fo:margin": "2.54cm",
      }),
    ),
  ) +
  element(
    "office:master-styles",
    {},
    element("style:master-page", { "style:name": "Standard", "style:page-layout-name": "Turned" }),
  );

/** An OpenDocument file: its parts in a zip, the media type first and unpacked (ODF 1.3 part 2, 3.3). */
export function packOdf(kind: "text" | "spreadsheet", contents: OdfContents): Uint8Array {
  const { body, automatic, styles = "", orientation, settings, title, files = new Map() } = contents;
  const mediaType = `application/vnd.oasis.opendocument.${kind}`;
  const zip = new ZipWriter();
  zip.store("mimetype", strToU8(mediaType));
  let entries = entry("/", mediaType);
  const add = (name: string, inner: Iterable<string>) => {
    zip.add(`${name}.xml`, inRoot(`document-${name}`, inner));
    entries += entry(`${name}.xml`, "text/xml");
  };
  add("content", inBody(kind, automatic, body));
  add("styles", [`<office:styles>${styles}</office:styles>${orientation === "landscape" ? TURNED : ""}`]);
  add("meta", [
    `<office:meta>${title === undefined ? "" : element("dc:title", {}, escapeXml(title))}</office:meta>`,
  ]);
  if (settings !== undefined) add("settings", [`<office:settings>${settings}</office:settings>`]);
  for (const [path, { bytes, type }] of files) {
    zip.add(path, bytes);
    entries += entry(path, type);
  }
  zip.add(
    "META-INF/manifest.xml",
    `<?xml version="1.0" encoding="UTF-8"?>\n<manifest:manifest xmlns:manifest="urn:oasis:names:tc:opendocument:xmlns:manifest:1.0" manifest:version="1.3">${entries}</manifest:manifest>`,
  );
  return zip.bytes();
}

function entry(path: string, type: string): string {
  return `<manifest:file-entry manifest:full-path="${path}" manifest:media-type="${type}"/>`;
}

function* inRoot(name: string, inner: Iterable<string>): Generator<string> {
  yield `<?xml version="1.0" encoding="UTF-8"?>\n<office:${name}${NAMESPACES} office:version="1.3">`;
  yield* inner;
  yield `</office:${name}>`;
}

function* inBody(kind: string, automatic: AutomaticStyles, body: Iterable<string>): Generator<string> {
  yield `${automatic.xml}<office:body><office:${kind}>`;
  yield* body;
  yield `</office:${kind}></office:body>`;
}
