import { mainPart, partOfType, relationsOf } from "../office/relations.js";
import { attributeOf, childOf, childrenOf, parseXml, type Element } from "../office/xml.js";
import type { Parts } from "../office/zip.js";

/** A sheet as its workbook names it. */
export interface WorkbookSheet {
  readonly name: string;
  /** Its part of the file; nothing when the file has none of it. */
  readonly part: string | undefined;
  readonly isHidden: boolean;
}

/** What a workbook says of its sheets, and where its parts stand (ECMA-376 part 1, 18.2). */
export interface Workbook {
  readonly sheets: readonly WorkbookSheet[];
  /** Whether days count from 1904. */
  readonly isFrom1904: boolean;
  readonly styles: string;
  readonly strings: string;
}

/**
 * Reads what a workbook says of its sheets.
 * @throws DrawerError `unreadable`
 */
export function readWorkbook(parts: Parts): Workbook {
  const main = mainPart(parts, "xl/workbook.xml");
  const workbook = parseXml(parts.needed(main), parts.file);
  const relations = relationsOf(parts, main);
  const properties = childOf(workbook, "workbookPr");
  return {
    isFrom1904: isTrue(attributeOf(properties, "date1904")),
    styles: partOfType(relations, "styles") ?? "xl/styles.xml",
    strings: partOfType(relations, "sharedStrings") ?? "xl/sharedStrings.xml",
    sheets: children(childOf(workbook, "sheets")).map((sheet) => {
      // `sheetId` has the local name of its own; the relation's is `id`.
      const { part } = relations.get(attributeOf(sheet, "id") ?? "") ?? {};
      return {
        name: attributeOf(sheet, "name") ?? "",
        part: part !== undefined && parts.has(part) ? part : undefined,
        isHidden: /hidden$/i.test(attributeOf(sheet, "state") ?? ""),
      };
    }),
  };
}

function isTrue(value: string | undefined): boolean {
  return value === "1" || value === "true";
}

function children(element: Element | undefined): Element[] {
  return element ? [...childrenOf(element)] : [];
}
