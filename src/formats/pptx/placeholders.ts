import { attributeOf, childOf, childrenOf, type Element } from "../office/xml.js";

/** How a paragraph of a list is marked; nothing for one that is none. */
export type Bullet = { readonly ordered: false } | { readonly ordered: true; readonly start: number };

/** What of a slide a shape is the place of (ECMA-376 part 1, 19.7.10); nothing for one that is none. */
export interface Placeholder {
  readonly type: string;
  readonly index: string | undefined;
}

/** What a shape is the place of. */
export function placeholderOf(shape: Element): Placeholder | undefined {
  for (const properties of childrenOf(shape)) {
    const placeholder = childOf(childOf(properties, "nvPr"), "ph");
    if (placeholder)
      return {
        type: attributeOf(placeholder, "type") ?? "obj",
        index: attributeOf(placeholder, "idx"),
      };
  }
  return undefined;
}

/** What stands in the places of slides beside their own words: their numbers, dates, heads and feet. */
export const isFurniture = ({ type }: Placeholder): boolean => /^(dt|ftr|hdr|sldNum)$/.test(type);

export const isTitle = ({ type }: Placeholder): boolean => /^(title|ctrTitle)$/.test(type);

/** How paragraphs of shapes are marked: as they say, or as the layout and the master of their slide do. */
export class Bullets {
  /** @param above the layout and the master of the slide, from the nearer one */
  constructor(readonly above: readonly Element[]) {}

  /** The mark of a paragraph. */
  of(paragraph: Element, shape: Element, placeholder: Placeholder | undefined): Bullet | undefined {
    const properties = childOf(paragraph, "pPr");
    const level = Number(attributeOf(properties, "lvl") ?? 0);
    const name = `lvl${level + 1}pPr`;
    const own = childOf(childOf(childOf(shape, "txBody"), "lstStyle"), name);
    for (const style of [properties, own, ...this.#inherited(placeholder, name)]) {
      const said = bulletIn(style);
      if (said !== undefined) return said === "none" ? undefined : said;
    }
    return undefined;
  }

  /** What the shapes of the same place say of a level, and what the master says of all text of its kind. */
  *#inherited(placeholder: Placeholder | undefined, name: string): Generator<Element | undefined> {
    if (!placeholder || isTitle(placeholder)) return;
    for (const part of this.above) {
      const shape = shapesOf(part).find((each) => isSamePlace(placeholderOf(each), placeholder));
      yield childOf(childOf(shape && childOf(shape, "txBody"), "lstStyle"), name);
    }
    if (!/^(body|obj|subTitle)$/.test(placeholder.type)) return;
    for (const part of this.above) yield childOf(childOf(childOf(part, "txStyles"), "bodyStyle"), name);
  }
}

function bulletIn(style: Element | undefined): Bullet | "none" | undefined {
  if (childOf(style, "buNone")) return "none";
  const numbered = childOf(style, "buAutoNum");
  if (numbered) return { ordered: true, start: Number(attributeOf(numbered, "startAt") ?? 1) };
  return (childOf(style, "buChar") ?? childOf(style, "buBlip")) ? { ordered: false } : undefined;
}

function isSamePlace(one: Placeholder | undefined, other: Placeholder): boolean {
  if (!one) return false;
  if (other.index !== undefined && one.index !== undefined) return one.index === other.index;
  return one.type === other.type || (isTitle(one) && isTitle(other));
}

/** The shapes of a slide, a layout or a master, those of groups too. */
function shapesOf(part: Element): Element[] {
  const tree = childOf(childOf(part, "cSld"), "spTree");
  const within = (group: Element): Element[] =>
    [...childrenOf(group)].flatMap((child) =>
      child.localName === "sp" ? [child] : child.localName === "grpSp" ? within(child) : [],
    );
  return tree ? within(tree) : [];
}
