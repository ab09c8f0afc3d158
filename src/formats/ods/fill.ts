import { parseCells, writeCells } from "../../content/cells.js";
import { placesToFill, type Filled, type NamedPlace, type Template, type Values } from "../fill.js";
import { linesXml, piecesIn } from "../odt/text-pieces.js";
import { bracesIn, inPieces } from "../office/braces.js";
import { EditedPackage } from "../office/edited-package.js";
import { fillNamedCells, type NamedCells } from "../office/named-cells.js";
import { odfParts } from "../office/odf-parts.js";
import { edited, plainText, xmlPlaces, type TextEdit } from "../office/xml-text.js";
import { writeText } from "../text/write.js";
import type { WriteInput } from "../write-input.js";
import { odsEditor } from "./edit.js";
import { nameOf, OdsSheetText } from "./sheet-text.js";

const CONTENT = "content.xml";

/** Fills cells with a name of their own, and names in braces in cells, of an ods. */
export const odsTemplate: Template = {
  places: (bytes, file) =>
    Promise.resolve().then(() => {
      const text = odfParts(bytes, file).needed(CONTENT);
      return [
        ...namedCells(text).map(({ name, spot }): NamedPlace => ({ name, kind: "name", text: "", spot })),
        ...[...new Set(bracesOf(text).map(({ name }) => name))].map((name): NamedPlace => ({
          ...{ name, kind: "braces", text: "" },
        })),
      ];
    }),
  fill: (bytes, file, values, picture) => Promise.resolve().then(() => fill(bytes, file, values, picture)),
};

async function fill(
  bytes: Uint8Array,
  file: string,
  values: Values,
  picture: WriteInput["picture"],
): Promise<Filled> {
  const filled = new Set<string>();
  const named = namedCells(odfParts(bytes, file).needed(CONTENT));
  const { data, notices } = await fillNamedCells(bytes, file, named, odsEditor, { values, filled, picture });
  return { data: fillTexts(new EditedPackage(odfParts(data, file)), values, filled), filled, notices };
}

/** Cells of a workbook that have a name (ODF 1.3 part 3, 9.4.12). */
function namedCells(text: string): NamedCells[] {
  const sheets = OdsSheetText.all(text).map(({ tag }) => nameOf(tag));
  return [...text.matchAll(/<table:named-range\b[^>]*>/g)].flatMap(([tag]) => {
    const written = plainText(/\stable:cell-range-address="([^"]*)"/.exec(tag)?.[1] ?? "");
    const [, quoted, bare, from, to] =
      /^\$?(?:'((?:[^']|'')*)'|([^'.]+))\.(\$?[A-Z]+\$?\d+)(?::[^:]*\.(\$?[A-Z]+\$?\d+))?$/.exec(written) ??
      [];
    const sheet = sheets.indexOf(quoted?.replaceAll("''", "'") ?? bare ?? "");
    const cells = parseCells(`${from}${to === undefined ? "" : `:${to}`}`.replaceAll("$", ""));
    if (sheet < 0 || !cells) return [];
    const named = /^[\p{L}_][\p{L}\d_]*$/u.test(sheets[sheet]!)
      ? sheets[sheet]!
      : `'${sheets[sheet]!.replaceAll("'", "''")}'`;
    return [{ name: nameOf(tag), sheet, cells, spot: `${named}!${writeCells(cells)}` }];
  });
}

function bracesOf(text: string) {
  if (!text.includes("{")) return [];
  return [...xmlPlaces(text)]
    .filter(({ name }) => name === "p")
    .flatMap((line) => bracesIn(text, piecesIn(text, line)));
}

function fillTexts(form: EditedPackage, values: Values, filled: Set<string>): Uint8Array {
  const text = form.text(CONTENT)!;
  const edits: TextEdit[] = [];
  for (const [{ pieces }, content] of placesToFill(bracesOf(text), values, filled))
    edits.push(...inPieces(pieces, linesXml(writeText(content))));
  if (edits.length > 0) form.set(CONTENT, edited(text, edits));
  return form.bytes();
}
