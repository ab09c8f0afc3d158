import { attributeOf, childOf, childrenOf, parseXml } from "./xml.js";
import type { Parts } from "./zip.js";

/** What a part names: another part, or an address outside. */
export interface Relation {
  readonly type: string;
  /** As it is written. */
  readonly target: string;
  /** The name in the file that it comes to, where it is a part. */
  readonly part: string;
}

/** What a part of an Office Open XML file names, by the names that it has for them (ECMA-376 part 2, 9.3); what the file itself names for "". */
export function relationsOf(parts: Parts, part: string): ReadonlyMap<string, Relation> {
  const at = part.lastIndexOf("/") + 1;
  const [folder, name] = [part.slice(0, at), part.slice(at)];
  const xml = parts.text(`${folder}_rels/${name}.rels`);
  const relations = new Map<string, Relation>();
  for (const relation of xml === undefined ? [] : childrenOf(parseXml(xml, parts.file))) {
    const target = attributeOf(relation, "Target") ?? "";
    const type = attributeOf(relation, "Type") ?? "";
    relations.set(attributeOf(relation, "Id") ?? "", { type, target, part: resolved(target, folder) });
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

/** The first part of a type, which is told by the end of its address. */
export function partOfType(relations: ReadonlyMap<string, Relation>, type: string): string | undefined {
  return [...relations.values()].find((relation) => relation.type.endsWith(`/${type}`))?.part;
}

/** The part that a file names as its document; another one, by custom, where it names none that is there. */
export function mainPart(parts: Parts, custom: string): string {
  const named = partOfType(relationsOf(parts, ""), "officeDocument");
  return named !== undefined && parts.has(named) ? named : custom;
}

/** The title that a file says it has, in its core properties (ECMA-376 part 2, 11); nothing where it says none. */
export function titleOf(parts: Parts): string | undefined {
  const core = parts.text("docProps/core.xml");
  return core ? childOf(parseXml(core, parts.file), "title")?.textContent.trim() || undefined : undefined;
}
