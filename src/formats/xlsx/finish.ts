import { escapeXml } from "../office/odf.js";
import { editParts } from "../office/zip.js";

/** A link of a cell: where it stands (`B2`), and its address. */
export interface CellLink {
  readonly place: string;
  readonly address: string;
}

/** The children of a font, in the order that the schema has them in (ECMA-376 part 1, 18.8.22). */
const FONT_ORDER = ["b", "i", "strike", "u", "vertAlign", "sz", "color", "name", "family", "scheme"];
/** Numbers below this one are those of built-in formats (18.8.30). */
const FIRST_OWN_FORMAT = 164;
/** From where the writing package counts its own. */
const FIRST_WRITTEN_FORMAT = 100;

/** Gives a written workbook what the package that writes it does not know: links, and styles as the schema wants them. */
export function finish(workbook: Uint8Array, links: readonly CellLink[]): Promise<Uint8Array> {
  return editParts(workbook, {
    "xl/styles.xml": (xml) =>
      xml
        .replace(/\bnumFmtId="(\d+)"/g, (all, id: string) =>
          Number(id) < FIRST_WRITTEN_FORMAT
            ? all
            : `numFmtId="${Number(id) - FIRST_WRITTEN_FORMAT + FIRST_OWN_FORMAT}"`,
        )
        .replace(/<font>(.*?)<\/font>/gs, (_, inner: string) => `<font>${inOrder(inner)}</font>`),
    ...(links.length > 0 && linkParts(links)),
  });
}

/** The links of a sheet, and where they go to (18.3.1.47). */
function linkParts(links: readonly CellLink[]): Record<string, (xml: string) => string> {
  const elements = links.map(({ place }, index) => `<hyperlink ref="${place}" r:id="link${index + 1}"/>`);
  const relations = links.map(
    ({ address }, index) =>
      `<Relationship Id="link${index + 1}" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/hyperlink" Target="${escapeXml(address)}" TargetMode="External"/>`,
  );
  return {
    "xl/worksheets/sheet1.xml": (xml) =>
      xml.replace(
        /(<\/mergeCells>|<\/sheetData>(?!<mergeCells))/,
        `$1<hyperlinks>${elements.join("")}</hyperlinks>`,
      ),
    "xl/worksheets/_rels/sheet1.xml.rels": (xml) =>
      xml.replace("</Relationships>", () => `${relations.join("")}</Relationships>`),
  };
}

function inOrder(font: string): string {
  const children = font.match(/<\w+[^>]*\/>/g) ?? [];
  const place = (child: string) => FONT_ORDER.indexOf(/\w+/.exec(child)![0]);
  return children.sort((a, b) => place(a) - place(b)).join("");
}
