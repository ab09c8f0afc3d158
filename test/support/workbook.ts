import { strToU8, zipSync } from "fflate";

/** A cell of a workbook as its file has it: what stands in its element, its attributes, and its format code. */
export interface RawCell {
  readonly xml: string;
  readonly attributes?: string;
  readonly format?: string;
}

const HEAD = '<?xml version="1.0" encoding="UTF-8" standalone="yes"?>';
const MAIN = "http://schemas.openxmlformats.org/spreadsheetml/2006/main";
const RELATIONS = "http://schemas.openxmlformats.org/package/2006/relationships";
const OFFICE = "http://schemas.openxmlformats.org/officeDocument/2006/relationships";
const TYPES = "application/vnd.openxmlformats-officedocument.spreadsheetml";

const escape = (text: string) =>
  text.replace(/[&<>"]/g, (sign) => ({ "&": "&amp;", "<": "&lt;", ">": "&gt;", '"': "&quot;" })[sign]!);

const letters = (column: number): string =>
  column < 26
    ? String.fromCharCode(65 + column)
    : letters(Math.floor(column / 26) - 1) + letters(column % 26);

/** What a sheet's file has beside its cells. */
export interface RawSheet {
  readonly rowAttributes?: (row: number) => string;
  readonly columns?: string;
  /** What follows the cells. */
  readonly after?: string;
  readonly relations?: string;
  readonly workbook?: string;
  readonly state?: string;
}

/** An xlsx workbook of one sheet, made by hand, so that its file says just what a test wants. */
export function rawWorkbook(
  rows: readonly (readonly (RawCell | undefined)[])[],
  {
    rowAttributes = () => "",
    columns = "",
    after = "",
    relations = "",
    workbook = "",
    state = "",
  }: RawSheet = {},
): Uint8Array {
  const formats = [...new Set(rows.flat().flatMap((cell) => cell?.format ?? []))];
  const styleOf = ({ format }: RawCell) => (format === undefined ? 0 : formats.indexOf(format) + 1);
  const sheet = rows.map((cells, row) => {
    const inner = cells.map((cell, column) =>
      cell
        ? `<c r="${letters(column)}${row + 1}" s="${styleOf(cell)}"${cell.attributes ?? ""}>${cell.xml}</c>`
        : "",
    );
    return `<row r="${row + 1}"${rowAttributes(row)}>${inner.join("")}</row>`;
  });
  const override = (part: string, type: string) =>
    `<Override PartName="/xl/${part}.xml" ContentType="${TYPES}.${type}+xml"/>`;
  const relation = (id: string, type: string, target: string) =>
    `<Relationship Id="${id}" Type="${OFFICE}/${type}" Target="${target}"/>`;
  const codes = formats.map((code, at) => `<numFmt numFmtId="${200 + at}" formatCode="${escape(code)}"/>`);
  const styles = ["General", ...formats].map(
    (_, at) =>
      `<xf numFmtId="${at === 0 ? 0 : 199 + at}" fontId="0" fillId="0" borderId="0" xfId="0" applyNumberFormat="1"/>`,
  );
  const parts = {
    "[Content_Types].xml": `<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="xml" ContentType="application/xml"/>${override("workbook", "sheet.main")}${override("worksheets/sheet1", "worksheet")}${override("styles", "styles")}</Types>`,
    "_rels/.rels": `<Relationships xmlns="${RELATIONS}">${relation("rId1", "officeDocument", "xl/workbook.xml")}</Relationships>`,
    "xl/workbook.xml": `<workbook xmlns="${MAIN}" xmlns:r="${OFFICE}">${workbook}<sheets><sheet name="Sheet1" sheetId="1"${state} r:id="rId1"/></sheets></workbook>`,
    "xl/_rels/workbook.xml.rels": `<Relationships xmlns="${RELATIONS}">${relation("rId1", "worksheet", "worksheets/sheet1.xml")}${relation("rId2", "styles", "styles.xml")}</Relationships>`,
    "xl/styles.xml": `<styleSheet xmlns="${MAIN}"><numFmts count="${codes.length}">${codes.join("")}</numFmts><fonts count="1"><font><sz val="11"/><name val="Calibri"/></font></fonts><fills count="2"><fill><patternFill patternType="none"/></fill><fill><patternFill patternType="gray125"/></fill></fills><borders count="1"><border/></borders><cellStyleXfs count="1"><xf numFmtId="0" fontId="0" fillId="0" borderId="0"/></cellStyleXfs><cellXfs count="${styles.length}">${styles.join("")}</cellXfs></styleSheet>`,
    "xl/worksheets/sheet1.xml": `<worksheet xmlns="${MAIN}" xmlns:r="${OFFICE}"><cols>${columns || '<col min="1" max="20" width="60" customWidth="1"/>'}</cols><sheetData>${sheet.join("")}</sheetData>${after}</worksheet>`,
    ...(relations && {
      "xl/worksheets/_rels/sheet1.xml.rels": `<Relationships xmlns="${RELATIONS}">${relations}</Relationships>`,
    }),
  };
  return zipSync(Object.fromEntries(Object.entries(parts).map(([name, xml]) => [name, strToU8(HEAD + xml)])));
}
