import { parseCells } from "../../content/cells.js";
import { placesToFill, type Filled, type NamedPlace, type Template, type Values } from "../fill.js";
import { bracesIn, inPieces, type Braces, type TextPiece } from "../office/braces.js";
import { zipOf } from "../office/compound-file.js";
import { EditedPackage } from "../office/edited-package.js";
import { fillNamedCells, type NamedCells } from "../office/named-cells.js";
import { escapeXml } from "../office/odf.js";
import { mainPart } from "../office/relations.js";
import { edited, plainText, xmlPlaces, type TextEdit } from "../office/xml-text.js";
import { Parts } from "../office/zip.js";
import { writeText } from "../text/write.js";
import { xlsxEditor } from "./edit.js";
import { readWorkbook } from "./workbook.js";

/** Fills cells with a name of their own, and names in braces in cells, of an xlsx. */
export const xlsxTemplate: Template = {
  async places(bytes, file) {
    const parts = new Parts(await zipOf(bytes, file), file);
    const texts = [...new Set(textsIn(parts).map(({ name }) => name))];
    return [
      ...namedCells(parts).map(({ name, spot }): NamedPlace => ({
        name,
        kind: "name",
        text: "",
        spot: spot.replace(/\$(?=[^!]*$)/g, ""),
      })),
      ...texts.map((name): NamedPlace => ({ name, kind: "braces", text: "" })),
    ];
  },
  async fill(bytes, file, values, picture): Promise<Filled> {
    const filled = new Set<string>();
    const zip = await zipOf(bytes, file);
    const named = namedCells(new Parts(zip, file));
    const { data, notices } = await fillNamedCells(zip, file, named, xlsxEditor, { values, filled, picture });
    const done = fillTexts(new EditedPackage(new Parts(data, file)), values, filled);
    return { data: done, filled, notices };
  },
};

/** Cells of a workbook that have a name (ECMA-376 part 1, 18.2.5); not those that programs made for themselves. */
function namedCells(parts: Parts): NamedCells[] {
  const { sheets } = readWorkbook(parts);
  const xml = parts.text(mainPart(parts, "xl/workbook.xml")) ?? "";
  return [...xml.matchAll(/<(?:\w+:)?definedName\b([^>]*)>([^<]*)</g)].flatMap(([, facts, written]) => {
    const name = plainText(/\sname="([^"]*)"/.exec(facts!)?.[1] ?? "_");
    const spot = plainText(written!);
    const [, quoted, bare, ref] = /^(?:'((?:[^']|'')*)'|([^'!]+))!([$A-Z\d:]+)$/.exec(spot) ?? [];
    const sheet = sheets.findIndex((each) => each.name === (quoted?.replaceAll("''", "'") ?? bare));
    const cells = parseCells(ref ?? "");
    return name.startsWith("_") || sheet < 0 || !cells ? [] : [{ name, sheet, cells, spot }];
  });
}

/** Where texts of cells stand: those that cells share, and those of their own. */
function textParts(parts: Parts): string[] {
  const { strings, sheets } = readWorkbook(parts);
  return [strings, ...sheets.flatMap(({ part }) => part ?? [])].filter((name) => parts.has(name));
}

function textsIn(parts: Parts) {
  return textParts(parts).flatMap((name) => bracesOf(parts.text(name)!));
}

function bracesOf(text: string): Braces[] {
  if (!text.includes("{")) return [];
  const found: Braces[] = [];
  let pieces: TextPiece[] = [];
  // The pieces of a text end before the text that they are of.
  for (const { name, inner, innerEnd } of xmlPlaces(text)) {
    if (name === "t") pieces.push({ from: inner, to: innerEnd });
    if (name !== "si" && name !== "is") continue;
    found.push(...bracesIn(text, pieces));
    pieces = [];
  }
  return found;
}

function fillTexts(form: EditedPackage, values: Values, filled: Set<string>): Uint8Array {
  for (const part of textParts(form.parts)) {
    const text = form.text(part)!;
    const edits: TextEdit[] = [];
    for (const [{ pieces }, content] of placesToFill(bracesOf(text), values, filled))
      edits.push(...inPieces(pieces, escapeXml(writeText(content))));
    if (edits.length > 0) form.set(part, edited(text, edits));
  }
  return form.bytes();
}
