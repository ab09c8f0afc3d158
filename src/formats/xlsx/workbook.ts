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
  const main = targetOf(relationsOf(parts, ""), "officeDocument") ?? "xl/workbook.xml";
  const workbook = parseXml(parts.needed(main), parts.file);
  const relations = relationsOf(parts, main);
  const properties = childOf(workbook, "workbookPr");
  return {
    isFrom1904: isTrue(attributeOf(properties, "date1904")),
    styles: targetOf(relations, "styles") ?? "xl/styles.xml",
    strings: targetOf(relations, "sharedStrings") ?? "xl/sharedStrings.xml",
    sheets: children(childOf(workbook, "sheets")).map((sheet) => {
      // `sheetId` has the local name of its own; the relation's is `id`.
      const { target } = relations.get(attributeOf(sheet, "id") ?? "") ?? {};
      return {
        name: attributeOf(sheet, "name") ?? "",
        part: target !== undefined && parts.has(target) ? target : undefined,
        isHidden: /hidden$/i.test(attributeOf(sheet, "state") ?? ""),
      };
    }),
  };
}

/** A part that another one names. */
interface Relation {
  readonly type: string;
  /** The part's name in the file; an address for what lies outside. */
  readonly target: string;
}

/** The parts that a part names, by the names that it has for them (ECMA-376 part 2, 9.3). */
export function relationsOf(parts: Parts, part: string): ReadonlyMap<string, Relation> {
  const [folder, name] = [part.slice(0, part.lastIndexOf("/") + 1), part.slice(part.lastIndexOf("/") + 1)];
  const xml = parts.text(`${folder}_rels/${name}.rels`);
  const relations = new Map<string, Relation>();
  for (const relation of xml === undefined ? [] : childrenOf(parseXml(xml, parts.file))) {
    const target = attributeOf(relation, "Target") ?? "";
    const isOutside = attributeOf(relation, "TargetMode") === "External";
    relations.set(attributeOf(relation, "Id") ?? "", {
      type: attributeOf(relation, "Type") ?? "",
      target: isOutside ? target : resolved(target, folder),
    });
  }
  return relations;
}

/** A target as the name of a part: from the root, or from the folder of the part that names it. */
function resolved(target: string, folder: string): string {
  if (target.startsWith("/")) return target.slice(1);
  const names = folder.split("/").slice(0, -1);
  for (const name of target.split("/")) {
    if (name === "..") names.pop();
    else if (name !== ".") names.push(name);
  }
  return names.join("/");
}

/** The target of the first relation of a type, which is told by the end of its address. */
function targetOf(relations: ReadonlyMap<string, Relation>, type: string): string | undefined {
  return [...relations.values()].find((relation) => relation.type.endsWith(`/${type}`))?.target;
}

function isTrue(value: string | undefined): boolean {
  return value === "1" || value === "true";
}

function children(element: Element | undefined): Element[] {
  return element ? [...childrenOf(element)] : [];
}
