import { DrawerError } from "../../content/error.js";
import type { Content } from "../../content/model.js";
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
  type Template,
  type Values,
} from "../fill.js";
import { bracesIn, inPieces, type TextPiece } from "../office/braces.js";
import { cleanForXml } from "../office/clean.js";
import { zipOf } from "../office/compound-file.js";
import { EditedPackage } from "../office/edited-package.js";
import { mainPart, partOfType, relationsOf } from "../office/relations.js";
import {
  attributeAt,
  childPlaces,
  edited,
  plainText,
  xmlPlaces,
  type TextEdit,
  type XmlPlace,
} from "../office/xml-text.js";
import { Parts } from "../office/zip.js";
import { writeText } from "../text/write.js";
import type { WriteInput } from "../write-input.js";
import { graft } from "./graft.js";
import { countedAnew, isRepeatable, pagesOf, showsField } from "./pages.js";
import { linesXml, lookOf, runXml } from "./run-text.js";
import { writeDocx } from "./write.js";

/** Fills content controls, fields, bookmarks and names in braces, in the text of a docx and in its headers and footers. */
export const docxTemplate: Template = {
  async places(bytes, file) {
    const form = await Form.open(bytes, file);
    return form.places();
  },
  async fill(bytes, file, values, picture) {
    const form = await Form.open(bytes, file);
    return form.fill(values, picture);
  },
  async fillPages(bytes, file, each, picture) {
    const form = await Form.open(bytes, file);
    return form.fillPages(each, picture);
  },
};

/** A named place in a part, and how it is filled. */
interface Slot extends NamedPlace {
  readonly from: number;
  readonly to: number;
  /** How lines of text stand there. */
  readonly asText: (text: string) => TextEdit[];
  /** What whole blocks stand in the place of, where they may. */
  readonly blocks?: TextPiece;
  /** What is changed besides, whatever comes there. */
  readonly besides?: readonly TextEdit[];
}

/** What is known while places are filled. */
interface Filling {
  readonly picture: WriteInput["picture"];
  readonly filled: Set<string>;
  readonly notices: Notice[];
}

class Form {
  private constructor(
    readonly edited: EditedPackage,
    readonly main: string,
    readonly file: string,
  ) {}

  static async open(bytes: Uint8Array, file: string): Promise<Form> {
    const parts = new Parts(await zipOf(bytes, file), file);
    return new Form(new EditedPackage(parts), mainPart(parts, "word/document.xml"), file);
  }

  places(): NamedPlace[] {
    return this.#parts().flatMap((part) =>
      slotsIn(this.edited.text(part)!).map(({ name, kind, text }) => ({ name, kind, text })),
    );
  }

  async fill(values: Values, picture: WriteInput["picture"]): Promise<Filled> {
    const filling: Filling = { picture, filled: new Set(), notices: [] };
    for (const part of this.#parts()) await this.#fillPart(part, values, filling);
    return { data: this.edited.bytes(), ...filling };
  }

  async fillPages(each: readonly Values[], picture: WriteInput["picture"]): Promise<Filled> {
    const filling: Filling = { picture, filled: new Set(), notices: [] };
    const [main, ...edges] = this.#parts() as [string, ...string[]];
    const text = this.edited.text(main)!;
    if (!isRepeatable(text))
      throw new DrawerError(editErrors, "cannot-edit/pages-parts", { file: this.file, why: "notes" });
    const shows = (field: string) => this.#parts().some((part) => showsField(this.edited.text(part)!, field));
    const pages: string[] = [];
    for (const values of each) pages.push(await this.#filled(main, text, values, filling));
    const lists = partOfType(relationsOf(this.edited.parts, main), "numbering");
    const numbering = lists === undefined ? undefined : this.edited.text(lists);
    const again = countedAnew(numbering ?? "", pages);
    if (lists !== undefined && again.numbering !== numbering) this.edited.set(lists, again.numbering);
    this.edited.set(main, pagesOf(again.texts, shows("PAGE")));
    const { alike, differing } = saidAlike(each);
    const names = edges.flatMap((part) => slotsIn(this.edited.text(part)!).map(({ name }) => name));
    for (const part of edges) await this.#fillPart(part, alike, filling);
    filling.notices.push(
      ...edgeNotices({
        file: this.file,
        names: names.filter((name) => differing.has(plainName(name))),
        countsPages: shows("NUMPAGES"),
      }),
    );
    return { data: this.edited.bytes(), ...filling };
  }

  async #fillPart(part: string, values: Values, filling: Filling): Promise<void> {
    const text = this.edited.text(part)!;
    const made = await this.#filled(part, text, values, filling);
    if (made !== text) this.edited.set(part, made);
  }

  /** A part with its places filled. */
  async #filled(
    part: string,
    text: string,
    values: Values,
    { picture, filled, notices }: Filling,
  ): Promise<string> {
    const edits: TextEdit[] = [];
    for (const [slot, content] of placesToFill(slotsIn(text), values, filled)) {
      const blocks =
        slot.blocks && !isLine(content) ? await this.#blocks(part, content, picture, notices) : undefined;
      edits.push(...(slot.besides ?? []));
      if (blocks !== undefined) edits.push({ ...slot.blocks!, text: blocks });
      else edits.push(...slot.asText(writeText(content)));
    }
    return edited(text, edits);
  }

  /** The text, and what stands at the edges of pages. */
  #parts(): string[] {
    const folder = this.main.slice(0, this.main.lastIndexOf("/") + 1);
    const edges = this.edited.names.filter(
      (name) =>
        name.startsWith(folder) && /^(header|footer|footnotes)\d*\.xml$/.test(name.slice(folder.length)),
    );
    return [this.main, ...edges];
  }

  async #blocks(
    part: string,
    content: Content,
    picture: WriteInput["picture"],
    notices: Notice[],
  ): Promise<string> {
    const written = await writeDocx(cleanForXml({ content, ...(picture && { picture }) }));
    notices.push(...written.notices);
    return graft(this.edited, part, written.data as Uint8Array, {})
      .map(({ xml }) => xml)
      .join("");
  }
}

/** The named places of a part, in the order of its text; those that stand in others after them. */
function slotsIn(text: string): Slot[] {
  const slots: Slot[] = [];
  const lines = new Map<XmlPlace, XmlPlace[]>();
  for (const place of xmlPlaces(text)) {
    if (place.name === "sdt") slots.push(...controlIn(text, place));
    if (place.name === "fldSimple") slots.push(...simpleField(text, place));
    if (place.name === "t" || place.name === "r" || /^bookmark(Start|End)$/.test(place.name)) {
      const line = ancestor(place, "p");
      if (!line) continue;
      const there = lines.get(line);
      if (there) there.push(place);
      else lines.set(line, [place]);
    }
  }
  for (const [line, places] of lines) {
    const pieces = places
      .filter(({ name }) => name === "t")
      .map(({ inner, innerEnd }) => ({ from: inner, to: innerEnd }));
    for (const { name, pieces: parts, from, to, isAlone } of bracesIn(text, pieces))
      slots.push({
        ...{ name, kind: "braces", text: "", from, to },
        asText: (value) => inPieces(parts, linesXml(value)),
        ...(isAlone && { blocks: { from: line.start, to: line.end } }),
      });
    slots.push(...fieldsIn(text, places), ...bookmarksIn(text, places));
  }
  return slots.sort((one, other) => one.from - other.from || other.to - one.to);
}

/** A content control by its title or its tag (ECMA-376 part 1, 17.5.2). */
function controlIn(text: string, control: XmlPlace): Slot[] {
  const [props, content] = ["sdtPr", "sdtContent"].map((name) =>
    childPlaces(text, control).find((each) => each.name === name),
  );
  if (!props || !content) return [];
  const facts = text.slice(props.start, props.end);
  const name = plainText(
    /<w:alias\b[^>]*w:val="([^"]*)"/.exec(facts)?.[1] ??
      /<w:tag\b[^>]*w:val="([^"]*)"/.exec(facts)?.[1] ??
      "",
  );
  if (name === "") return [];
  const isHint = /<w:showingPlcHdr\b/.test(facts);
  const inner = text.slice(content.inner, content.innerEnd);
  const look = isHint ? "" : lookOf(inner);
  const unhinted = isHint
    ? [{ from: props.start, to: props.end, text: facts.replace(/<w:showingPlcHdr\b[^>]*\/>/, "") }]
    : [];
  const isBlock = /^\s*<w:(p|tbl)[\s>/]/.test(inner);
  const pPr = /^\s*<w:p\b[^>]*>\s*(<w:pPr>[\s\S]*?<\/w:pPr>)/.exec(inner)?.[1] ?? "";
  return [
    {
      ...{
        name,
        kind: "control",
        text: isHint ? "" : wordsIn(inner),
        from: content.inner,
        to: content.innerEnd,
      },
      asText: (value) => {
        const paragraphs = isBlock
          ? value
              .split("\n")
              .map((line) => `<w:p>${pPr}${runXml(line, look)}</w:p>`)
              .join("")
          : runXml(value, look);
        return [{ from: content.inner, to: content.innerEnd, text: paragraphs }];
      },
      besides: unhinted,
      ...(isBlock && { blocks: { from: content.inner, to: content.innerEnd } }),
    },
  ];
}

/** A field in one element (17.16.19) that a form letter fills. */
function simpleField(text: string, field: XmlPlace): Slot[] {
  const name = mergeName(plainText(attributeAt(text, field, "w:instr") ?? ""));
  if (name === undefined) return [];
  const inner = text.slice(field.inner, field.innerEnd);
  return [
    {
      ...{ name, kind: "field", text: wordsIn(inner), from: field.start, to: field.end },
      asText: (value) => [{ from: field.start, to: field.end, text: runXml(value, lookOf(inner)) }],
    },
  ];
}

/** Fields of several runs (17.16.18): those of form letters go, those of forms stay around what they say. */
function fieldsIn(text: string, places: readonly XmlPlace[]): Slot[] {
  const slots: Slot[] = [];
  const runs = places.filter(({ name }) => name === "r").sort((one, other) => one.start - other.start);
  let open: { from: number; begin: string; instruction: string; separate?: XmlPlace } | undefined;
  for (const run of runs) {
    const xml = text.slice(run.start, run.end);
    const mark = /<w:fldChar\b[^>]*w:fldCharType="(\w+)"/.exec(xml)?.[1];
    if (mark === "begin") open = { from: run.start, begin: xml, instruction: "" };
    else if (!open) continue;
    else if (mark === "separate") open = { ...open, separate: run };
    else if (mark === "end") {
      const { from, begin, separate, instruction } = open;
      const merge = mergeName(instruction);
      const form = /\bFORMTEXT\b/.test(instruction) ? /<w:name w:val="([^"]*)"/.exec(begin)?.[1] : undefined;
      const result = separate ? text.slice(separate.end, run.start) : "";
      const put = (name: string, start: number, end: number): Slot => ({
        ...{ name, kind: "field", text: wordsIn(result), from: start, to: end },
        asText: (value) => [{ from: start, to: end, text: runXml(value, lookOf(result)) }],
      });
      if (merge !== undefined) slots.push(put(merge, from, run.end));
      else if (form && separate) slots.push(put(plainText(form), separate.end, run.start));
      open = undefined;
    } else
      open = {
        ...open,
        instruction: open.instruction + plainText(/<w:instrText\b[^>]*>([^<]*)</.exec(xml)?.[1] ?? ""),
      };
  }
  return slots;
}

/** Bookmarks within a line; those that programs made for themselves begin with an underscore. */
function bookmarksIn(text: string, places: readonly XmlPlace[]): Slot[] {
  return places.flatMap((start) => {
    if (start.name !== "bookmarkStart") return [];
    const name = plainText(attributeAt(text, start, "w:name") ?? "_");
    const id = attributeAt(text, start, "w:id");
    const end = places.find((each) => each.name === "bookmarkEnd" && attributeAt(text, each, "w:id") === id);
    if (name.startsWith("_") || !end || end.start < start.end || start.parent !== end.parent) return [];
    const inner = text.slice(start.end, end.start);
    const slot: Slot = {
      ...{ name, kind: "bookmark", text: wordsIn(inner), from: start.end, to: end.start },
      asText: (value) => [{ from: start.end, to: end.start, text: runXml(value, lookOf(inner)) }],
    };
    return [slot];
  });
}

function ancestor({ parent }: XmlPlace, name: string): XmlPlace | undefined {
  return !parent || parent.name === name ? parent : ancestor(parent, name);
}

function mergeName(instruction: string): string | undefined {
  const found = /\bMERGEFIELD\s+(?:"([^"]+)"|(\S+))/i.exec(instruction);
  return found ? (found[1] ?? found[2]) : undefined;
}

function wordsIn(xml: string): string {
  return plainText([...xml.matchAll(/<w:t(?:\s[^>]*)?>([^<]*)</g)].map(([, words]) => words).join(""));
}
