import { attributeOf, childOf, childrenOf, type Element } from "../office/xml.js";

/** One level of a list's numbering. */
export interface NumberingLevel {
  readonly ordered: boolean;
  readonly start: number;
}

/** The numbering of a docx (ECMA-376 part 1, 17.9), and the count of each list as paragraphs go by. */
export class DocxNumbering {
  readonly #levels = new Map<string, Map<number, NumberingLevel>>();
  readonly #counts = new Map<string, number[]>();

  constructor(root: Element | undefined) {
    if (!root) return;
    const abstracts = new Map<string, Map<number, NumberingLevel>>();
    for (const child of childrenOf(root)) {
      if (child.localName === "abstractNum")
        abstracts.set(attributeOf(child, "abstractNumId") ?? "", levelsOf(child));
    }
    for (const num of childrenOf(root)) {
      if (num.localName !== "num") continue;
      const levels = new Map(abstracts.get(attributeOf(childOf(num, "abstractNumId"), "val") ?? ""));
      for (const override of childrenOf(num)) {
        if (override.localName !== "lvlOverride") continue;
        const at = Number(attributeOf(override, "ilvl") ?? 0);
        for (const [level, facts] of levelsOf(override)) levels.set(level, facts);
        const start = attributeOf(childOf(override, "startOverride"), "val");
        if (start !== undefined) levels.set(at, { ordered: true, ...levels.get(at), start: Number(start) });
      }
      this.#levels.set(attributeOf(num, "numId") ?? "", levels);
    }
  }

  /** What the next paragraph of a list at a level is: a bullet, or its number. */
  next(list: string, level: number): { ordered: boolean; number: number } {
    const facts = this.#levels.get(list)?.get(level) ?? { ordered: false, start: 1 };
    let counts = this.#counts.get(list);
    if (!counts) this.#counts.set(list, (counts = []));
    counts.length = Math.min(counts.length, level + 1);
    const number = counts[level] === undefined ? facts.start : counts[level] + 1;
    counts[level] = number;
    return { ordered: facts.ordered, number };
  }
}

function levelsOf(parent: Element): Map<number, NumberingLevel> {
  const levels = new Map<number, NumberingLevel>();
  for (const lvl of childrenOf(parent)) {
    if (lvl.localName !== "lvl") continue;
    const format = attributeOf(childOf(lvl, "numFmt"), "val") ?? "decimal";
    const start = Number(attributeOf(childOf(lvl, "start"), "val") ?? 1);
    levels.set(Number(attributeOf(lvl, "ilvl") ?? 0), {
      ordered: format !== "bullet" && format !== "none",
      start,
    });
  }
  return levels;
}
