import { parseCells, writeCells } from "../../content/cells.js";
import { DrawerError } from "../../content/error.js";
import { editErrors } from "../../messages/en/edit.js";
import type { SheetPlace } from "../edit.js";
import type { EditedPackage } from "../office/edited-package.js";
import { escapeXml } from "../office/odf.js";
import { relationsOf } from "../office/relations.js";
import { edited as editedText, plainText, type TextEdit } from "../office/xml-text.js";
import { movedDown, withRowsAdded } from "./formula-places.js";
import { SheetText } from "./sheet-text.js";
import type { Workbook } from "./workbook.js";

const FORMULA = /(<(?:\w+:)?f\b[^>]*>)([^<]+)(<)/g;

/**
 * Moves the rows of a sheet from one on, down by so many or up: with all that names them in the workbook. Where they move up, the
 * rows before them go.
 *
 * @param part the part of the sheet
 * @param at the first row that moves, counting from 0
 * @throws DrawerError `cannot-edit` where what stands there cannot move
 */
export function moveRows(
  edited: EditedPackage,
  book: Workbook,
  part: string,
  place: SheetPlace,
  at: number,
  count: number,
  file: string,
): void {
  const own = book.sheets[place.sheet]!.name;
  const relations = [...relationsOf(edited.parts, part).values()];
  // The places of comments stand in drawings of another kind too.
  const comments = relations.find(({ type }) => type.endsWith("/comments"))?.part;
  for (const [, ref] of (comments ? (edited.text(comments) ?? "") : "").matchAll(
    /<comment\b[^>]*?\sref="([^"]*)"/g,
  ))
    if ((parseCells(ref!)?.top ?? 0) >= at + Math.min(0, count))
      throw new DrawerError(editErrors, "cannot-edit/comments", { file, spot: place.spot, cell: ref! });
  for (const { part: name } of book.sheets) {
    const text = name === undefined ? undefined : edited.text(name);
    if (name === undefined || text === undefined) continue;
    const isOf = (sheet: string | undefined) =>
      sheet === undefined ? name === part : sheet.toLowerCase() === own.toLowerCase();
    const plain = name === part ? unshared(text) : text;
    const moved = plain.replace(
      FORMULA,
      (_, begin: string, formula: string, end: string) =>
        begin + escapeXml(withRowsAdded(plainText(formula), isOf, at, count)) + end,
    );
    if (moved !== text) edited.set(name, moved);
  }
  const text = withRanges(edited.text(part)!, at, count);
  edited.set(part, editedText(text, rowEdits(new SheetText(text), at, count)));
  for (const name of edited.names) {
    const isChart = /^xl\/charts\/chart[^/]*\.xml$/.test(name);
    if (
      !isChart &&
      name !== relations.find(({ type }) => type.endsWith("/drawing"))?.part &&
      name !== "xl/workbook.xml"
    )
      continue;
    const xml = edited.text(name)!;
    const named = (sheet: string | undefined) => sheet?.toLowerCase() === own.toLowerCase();
    const formula = (_: string, begin: string, written: string, end: string) =>
      begin + escapeXml(withRowsAdded(plainText(written), named, at, count)) + end;
    const made = isChart
      ? xml.replace(/(<(?:\w+:)?f>)([^<]+)(<)/g, formula)
      : name === "xl/workbook.xml"
        ? xml.replace(/(<(?:\w+:)?definedName\b[^>]*>)([^<]+)(<)/g, formula)
        : xml.replace(
            /<xdr:row>(\d+)<\/xdr:row>/g,
            (_, row: string) => `<xdr:row>${Number(row) >= at ? Number(row) + count : row}</xdr:row>`,
          );
    if (made !== xml) edited.set(name, made);
  }
}

/** The rows with the numbers that they have then; those that go are taken out. */
function rowEdits(sheet: SheetText, at: number, count: number): TextEdit[] {
  const edits: TextEdit[] = [];
  for (const row of sheet.rows()) {
    if (count < 0 && row.row >= at + count && row.row < at)
      edits.push({ from: row.start, to: row.end, text: "" });
    if (row.row < at) continue;
    const number = row.row + count + 1;
    const tag = sheet.text.slice(row.start, row.inner);
    edits.push({
      ...{ from: row.start, to: row.inner },
      text: /\sr="\d+"/.test(tag)
        ? tag.replace(/\sr="\d+"/, ` r="${number}"`)
        : tag.replace(/^<[\w:]+/, (name) => `${name} r="${number}"`),
    });
    for (const { start, xml } of sheet.cells(row)) {
      const head = /^<[^>]*>/.exec(xml)![0];
      edits.push({
        from: start,
        to: start + head.length,
        text: head.replace(/(\sr="[A-Z]+)\d+"/, `$1${number}"`),
      });
    }
  }
  return edits;
}

/**
 * The ranges that a sheet has beside its cells, of formats by conditions, checks of what is typed, filters and links, after rows were
 * added or taken out. One that ends right above the place takes added rows in, but for merged cells.
 */
function withRanges(text: string, at: number, count: number): string {
  const data = /<(?:\w+:)?sheetData[\s/>]/.exec(text)!.index;
  const end = /<\/(?:\w+:)?sheetData>|<(?:\w+:)?sheetData\s*\/>/.exec(text)!;
  const after = end.index + end[0].length;
  const mapped = (written: string, grows: boolean) =>
    written
      .split(" ")
      .map((ref) => {
        const cells = parseCells(ref);
        if (!cells) return ref;
        const grown = grows && count > 0 && cells.bottom === at - 1 && cells.bottom > cells.top;
        return writeCells({
          ...cells,
          top: cells.top >= at ? cells.top + count : cells.top,
          bottom: cells.bottom >= at || grown ? cells.bottom + count : cells.bottom,
        });
      })
      .join(" ");
  const inPart = (part: string) =>
    part.replace(
      /(<(?:\w+:)?(\w+)\b[^>]*?\s(?:ref|sqref|activeCell|topLeftCell)=")([^"]*)"/g,
      (_, begin: string, name: string, refs: string) =>
        `${begin}${mapped(refs, /^(conditionalFormatting|dataValidation|autoFilter|sortState|ignoredError)$/.test(name))}"`,
    );
  return inPart(text.slice(0, data)) + text.slice(data, after) + inPart(text.slice(after));
}

/** The text of a sheet in which each cell has its formula to itself. */
export function unshared(text: string): string {
  if (!/<(?:\w+:)?f\b[^>]*\bt="shared"/.test(text)) return text;
  const sheet = new SheetText(text);
  const masters = new Map<string, { formula: string; row: number; column: number }>();
  const edits: TextEdit[] = [];
  for (const row of sheet.rows())
    for (const { xml, start, column } of sheet.cells(row)) {
      const match = /<((?:\w+:)?f)\b([^>]*?\bt="shared"[^>]*?)(?:\/>|>([^<]*)<\/\1>)/.exec(xml);
      if (!match) continue;
      const [all, name, facts, formula] = match;
      const id = /\bsi="(\d+)"/.exec(facts!)?.[1] ?? "";
      if (formula) masters.set(id, { formula: plainText(formula), row: row.row, column });
      const master = masters.get(id);
      if (!master) continue;
      const own = escapeXml(movedDown(master.formula, row.row - master.row, column - master.column));
      const from = start + match.index;
      edits.push({ from, to: from + all.length, text: `<${name}>${own}</${name}>` });
    }
  return editedText(text, edits);
}
