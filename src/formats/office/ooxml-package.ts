import type { EditedPackage } from "./edited-package.js";
import { escapeXml } from "./odf.js";

const PACKAGE = "http://schemas.openxmlformats.org/package/2006";
const OFFICE = "http://schemas.openxmlformats.org/officeDocument/2006/relationships";
const CONTENT_TYPES = "[Content_Types].xml";

/** The part that holds what a part names (ECMA-376 part 2, 9.3). */
export function relationsPart(part: string): string {
  const at = part.lastIndexOf("/") + 1;
  return `${part.slice(0, at)}_rels/${part.slice(at)}.rels`;
}

/**
 * Lets a part name another part or an address, and says by what id.
 * @param type the last word of the relation's type: `image`, `hyperlink`…
 * @param target as it is written: from the folder of the part
 */
export function addRelation(
  edited: EditedPackage,
  part: string,
  type: string,
  target: string,
  isOutside = false,
): string {
  const name = relationsPart(part);
  const xml = edited.text(name) ?? `<Relationships xmlns="${PACKAGE}/relationships"></Relationships>`;
  const known = xml.matchAll(/\bId\s*=\s*["']rId(\d+)["']/g);
  const id = `rId${Math.max(0, ...[...known].map(([, number]) => Number(number))) + 1}`;
  const outside = isOutside ? ' TargetMode="External"' : "";
  const relation = `<Relationship Id="${id}" Type="${OFFICE}/${type}" Target="${escapeXml(target)}"${outside}/>`;
  edited.set(name, withLast(xml, "Relationships", relation));
  return id;
}

/** Says of what type a part is, or parts with an ending are, where that is not said (ECMA-376 part 2, 7.2.3). */
export function addContentType(
  edited: EditedPackage,
  of: { readonly extension: string } | { readonly part: string },
  type: string,
): void {
  const xml = edited.text(CONTENT_TYPES) ?? `<Types xmlns="${PACKAGE}/content-types"></Types>`;
  const [element, attribute, value] =
    "part" in of ? ["Override", "PartName", `/${of.part}`] : ["Default", "Extension", of.extension];
  const isKnown = new RegExp(`\\b${attribute}\\s*=\\s*["']${value.replace(/[.[\]]/g, "\\$&")}["']`, "i").test(
    xml,
  );
  if (!isKnown)
    edited.set(
      CONTENT_TYPES,
      withLast(xml, "Types", `<${element} ${attribute}="${escapeXml(value)}" ContentType="${type}"/>`),
    );
}

/** An XML with one more element at the end of its outermost one; the names are written as that is. */
export function withLast(xml: string, root: string, element: string): string {
  const end = new RegExp(`</(?:([\\w.-]+):)?${root}\\s*>(?![\\s\\S]*</)`).exec(xml);
  if (end) return xml.slice(0, end.index) + prefixed(element, end[1]) + xml.slice(end.index);
  // An outermost element that holds nothing.
  return xml.replace(
    new RegExp(`<((?:([\\w.-]+):)?${root})\\b([^>]*?)\\s*/>`),
    (_, name: string, prefix: string | undefined, facts: string) =>
      `<${name}${facts}>${prefixed(element, prefix)}</${name}>`,
  );
}

function prefixed(element: string, prefix: string | undefined): string {
  return prefix === undefined ? element : element.replace(/^<([\w-]+)(?=[\s/>])/, `<${prefix}:$1`);
}
