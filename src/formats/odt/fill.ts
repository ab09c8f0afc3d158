import { DrawerError } from "../../content/error.js";
import type { Notice } from "../../content/notice.js";
import { editErrors } from "../../messages/en/edit.js";
import {
  edgeNotices,
  isLine,
  placesToFill,
  plainName,
  saidAlike,
  type Filled,
  type NamedPlace,
  type PlaceKind,
  type Template,
  type Values,
} from "../fill.js";
import { bracesIn, inPieces, type TextPiece } from "../office/braces.js";
import { cleanForXml } from "../office/clean.js";
import { EditedPackage } from "../office/edited-package.js";
import { odfParts } from "../office/odf-parts.js";
import {
  attributeAt,
  edited,
  plainText,
  xmlPlaces,
  type TextEdit,
  type XmlPlace,
} from "../office/xml-text.js";
import { writeText } from "../text/write.js";
import type { WriteInput } from "../write-input.js";
import { addAutomaticStyles } from "./automatic-styles.js";
import { graft } from "./graft.js";
import { pagesOf, unrepeatableIn } from "./pages.js";
import { linesXml, piecesIn } from "./text-pieces.js";
import { writeOdt } from "./write.js";

const CONTENT = "content.xml";
const STYLES = "styles.xml";

/** Fills fields, bookmarks and names in braces, in the text of an odt and in its headers and footers. */
export const odtTemplate: Template = {
  places: (bytes, file) => Promise.resolve().then(() => new Form(bytes, file).places()),
  fill: (bytes, file, values, picture) =>
    Promise.resolve().then(() => new Form(bytes, file).fill(values, picture)),
  fillPages: (bytes, file, each, picture) =>
    Promise.resolve().then(() => new Form(bytes, file).fillPages(each, picture)),
};

/** A named place in a part, and what stands there. */
interface Slot extends NamedPlace {
  readonly from: number;
  readonly to: number;
  /** The pieces of text that it is; the first takes what comes. */
  readonly pieces: readonly TextPiece[];
  /** The line that whole blocks stand in the place of, where it holds nothing else. */
  readonly line?: XmlPlace;
}

class Form {
  readonly #edited: EditedPackage;
  readonly #filled = new Set<string>();
  readonly #notices: Notice[] = [];
  /** The automatic styles of the blocks that have come. */
  #styles = "";

  constructor(
    bytes: Uint8Array,
    readonly file: string,
  ) {
    const parts = odfParts(bytes, file);
    parts.needed(CONTENT);
    this.#edited = new EditedPackage(parts);
  }

  places(): NamedPlace[] {
    return PARTS.flatMap((part) =>
      slotsIn(this.#edited.text(part) ?? "").map(({ name, kind, text }) => ({ name, kind, text })),
    );
  }

  fill(values: Values, picture: WriteInput["picture"]): Filled {
    for (const part of PARTS) this.#set(part, this.#made(part, values, picture));
    return this.#result();
  }

  fillPages(each: readonly Values[], picture: WriteInput["picture"]): Filled {
    const why = unrepeatableIn(this.#edited.text(CONTENT)!);
    if (why) throw new DrawerError(editErrors, "cannot-edit/pages-parts", { file: this.file, why });
    const pages = each.map((values) => this.#made(CONTENT, values, picture));
    const edges = this.#edited.text(STYLES) ?? "";
    const shows = (field: string) =>
      [CONTENT, STYLES].some((part) => this.#edited.text(part)?.includes(`<text:${field}`));
    this.#set(CONTENT, pagesOf(pages, edges, shows("page-number")));
    const { alike, differing } = saidAlike(each);
    const names = slotsIn(edges)
      .map(({ name }) => name)
      .filter((name) => differing.has(plainName(name)));
    this.#set(STYLES, this.#made(STYLES, alike, picture));
    this.#notices.push(...edgeNotices({ file: this.file, names, countsPages: shows("page-count") }));
    return this.#result();
  }

  #result(): Filled {
    return { data: this.#edited.bytes(), filled: this.#filled, notices: this.#notices };
  }

  /** A part with its places filled. */
  #made(part: string, values: Values, picture: WriteInput["picture"]): string {
    const text = this.#edited.text(part) ?? "";
    const edits: TextEdit[] = [];
    for (const [{ line, pieces }, content] of placesToFill(slotsIn(text), values, this.#filled)) {
      if (line && part === CONTENT && !isLine(content)) {
        const written = writeOdt(cleanForXml({ content, ...(picture && { picture }) }));
        this.#notices.push(...written.notices);
        const { blocks, styles } = graft(this.#edited, written.data as Uint8Array, "Standard", this.#styles);
        edits.push({ from: line.start, to: line.end, text: blocks.map(({ xml }) => xml).join("") });
        this.#styles += styles;
      } else edits.push(...inPieces(pieces, linesXml(writeText(content))));
    }
    return edited(text, edits);
  }

  /** Sets a part to its text, with the styles of the blocks in it. */
  #set(part: string, text: string): void {
    const styles = part === CONTENT ? this.#styles : "";
    const made = styles === "" ? text : edited(text, [addAutomaticStyles(text, styles)]);
    if (made !== this.#edited.text(part)) this.#edited.set(part, made);
  }
}

/** The text, and what stands at the edges of pages. */
const PARTS = [CONTENT, STYLES];

/** Fields that are named places, by their elements (ODF 1.3 part 3, 7.3 to 7.7), with the attribute that has the name. */
const FIELDS: Readonly<Record<string, string | undefined>> = {
  "text-input": "text:description",
  "user-field-get": "text:name",
  "database-display": "text:column-name",
  placeholder: undefined,
};

/** The named places of a part, in the order of its text. */
function slotsIn(text: string): Slot[] {
  const slots: Slot[] = [];
  const lines: XmlPlace[] = [];
  const starts = new Map<string, XmlPlace>();
  const slot = (kind: PlaceKind, name: string, from: number, to: number): Slot => ({
    ...{ kind, name, from, to, pieces: [{ from, to }] },
    text: plainText(text.slice(from, to).replace(/<[^>]*>/g, "")),
  });
  for (const place of xmlPlaces(text)) {
    if (place.name === "p" || place.name === "h") lines.push(place);
    if (Object.hasOwn(FIELDS, place.name)) {
      const named = FIELDS[place.name];
      const name = named
        ? plainText(attributeAt(text, place, named) ?? "")
        : plainText(text.slice(place.inner, place.innerEnd)).replace(/^<|>$/g, "");
      if (name !== "")
        slots.push({
          ...slot("field", name, place.start, place.end),
          text: named ? slot("field", name, place.inner, place.innerEnd).text : "",
        });
    }
    const mark = attributeAt(text, place, "text:name");
    if (place.name === "bookmark-start" && mark !== undefined) starts.set(mark, place);
    if (place.name === "bookmark" && mark !== undefined)
      slots.push(slot("bookmark", plainText(mark), place.end, place.end));
    const start = place.name === "bookmark-end" && mark !== undefined ? starts.get(mark) : undefined;
    if (start && start.parent?.start === place.parent?.start)
      slots.push(slot("bookmark", plainText(mark!), start.end, place.start));
  }
  for (const line of lines)
    for (const { isAlone, ...braces } of bracesIn(text, piecesIn(text, line)))
      slots.push({
        ...{ ...braces, kind: "braces", text: "" },
        // A line of a list stays one.
        ...(isAlone && line.parent?.name !== "list-item" && { line }),
      });
  return slots.sort((one, other) => one.from - other.from || other.to - one.to);
}
