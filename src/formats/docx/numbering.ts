import { bulletMarker, numberMarker, numberText } from "../../content/marker.js";
import type { Marker } from "../../content/model.js";
import { DOCX_DECIMAL, DOCX_NUMBER_FORMS } from "../office/number-formats.js";
import { symbolText } from "../office/symbols.js";
import { attributeOf, childOf, childrenOf, type Element } from "../office/xml.js";

/** One level of a list's numbering. */
interface NumberingLevel {
  /** `decimal`, `lowerLetter`, `bullet`… (ECMA-376 part 1, 17.18.59). */
  readonly format: string;
  /** What stands before an item: `%1.%2)`, where each number of a level has the place of its own. */
  readonly text: string;
  /** The font that a bullet is a sign of. */
  readonly font: string;
  readonly start: number;
  /** Whether all numbers in it are decimal. */
  readonly isLegal: boolean;
  /** The paragraph style whose paragraphs stand at this level. */
  readonly style: string | undefined;
}

/** A list: its levels, the counts that it shares with lists of the same sort, and where it begins anew. */
interface Numbering {
  readonly id: string;
  readonly levels: ReadonlyMap<number, NumberingLevel>;
  readonly counts: number[];
  /** The levels that begin anew with its first paragraph there. */
  readonly restarts: Map<number, number>;
}

/** What stands before a paragraph of a list. */
export interface Label {
  /** What lists share whose numbers go on from one to the other. */
  readonly list: string;
  readonly ordered: boolean;
  readonly number: number;
  readonly marker: Marker | undefined;
  /** As it is shown; empty where nothing is. */
  readonly text: string;
  /** Whether its number is decimal, as the way in which it is written there is not known. */
  readonly isPlain?: boolean;
}

/** The numbering of a docx (ECMA-376 part 1, 17.9), and the count of each list as paragraphs go by. */
export class DocxNumbering {
  readonly #lists = new Map<string, Numbering>();

  constructor(root: Element | undefined) {
    if (!root) return;
    const abstracts = new Map<string, Numbering>();
    /** Lists whose levels are those of a style, by that; and where the levels of a style stand (17.9.21, 17.9.27). */
    const [linked, links] = [new Map<string, string>(), new Map<string, string>()];
    for (const child of childrenOf(root)) {
      if (child.localName !== "abstractNum") continue;
      const id = attributeOf(child, "abstractNumId") ?? "";
      abstracts.set(id, { id, levels: levelsOf(child), counts: [], restarts: new Map() });
      const style = attributeOf(childOf(child, "styleLink"), "val");
      const link = attributeOf(childOf(child, "numStyleLink"), "val");
      if (style !== undefined) links.set(style, id);
      if (link !== undefined) linked.set(id, link);
    }
    for (const [id, style] of linked) {
      const own = abstracts.get(id)!;
      const at = abstracts.get(links.get(style) ?? "");
      if (at && own.levels.size === 0) abstracts.set(id, { ...own, levels: at.levels });
    }
    for (const num of childrenOf(root)) {
      if (num.localName !== "num") continue;
      const id = attributeOf(childOf(num, "abstractNumId"), "val") ?? "";
      const abstract = abstracts.get(id);
      const levels = new Map(abstract?.levels);
      const restarts = new Map<number, number>();
      for (const override of childrenOf(num)) {
        if (override.localName !== "lvlOverride") continue;
        for (const [level, facts] of levelsOf(override)) levels.set(level, facts);
        const start = attributeOf(childOf(override, "startOverride"), "val");
        if (start !== undefined) restarts.set(Number(attributeOf(override, "ilvl") ?? 0), Number(start));
      }
      const counts = abstract?.counts ?? [];
      this.#lists.set(attributeOf(num, "numId") ?? "", { id, levels, counts, restarts });
    }
  }

  /** The level at which paragraphs of a style stand in a list. */
  levelOfStyle(list: string, style: string): number | undefined {
    for (const [level, facts] of this.#lists.get(list)?.levels ?? []) if (facts.style === style) return level;
    return undefined;
  }

  /** What stands before the next paragraph of a list at a level; nothing where the list says that nothing does. */
  next(list: string, level: number): Label | undefined {
    const numbering = this.#lists.get(list);
    const facts = numbering?.levels.get(level);
    if (!numbering || !facts) return { list, ordered: false, number: 1, marker: undefined, text: "•" };
    const { id, counts, restarts } = numbering;
    const restart = restarts.get(level);
    const last = counts[level];
    const number = restart ?? (last === undefined ? facts.start : last + 1);
    restarts.delete(level);
    counts.length = Math.min(counts.length, level + 1);
    counts[level] = number;
    if (facts.format !== "bullet" && facts.format !== "none") {
      const isPlain = !DOCX_DECIMAL.has(facts.format) && numbersOf(facts) === undefined;
      return { ...numbered(numbering, level), ...(isPlain && { isPlain }) };
    }
    const bullet = facts.text.trim() === "" ? "" : bulletOf(facts);
    if (bullet === "") return undefined;
    return { list: id, ordered: false, number, marker: bulletMarker(bullet, level), text: bullet };
  }
}

function numbered({ id: list, levels, counts }: Numbering, level: number): Label {
  const { text, isLegal } = levels.get(level)!;
  const numberAt = (at: number) => {
    const facts = levels.get(at);
    const numbers = isLegal ? undefined : numbersOf(facts);
    return numberText(counts[at] ?? facts?.start ?? 1, numbers);
  };
  const fill = (part: string) => part.replace(/%([1-9])/g, (_, at: string) => numberAt(Number(at) - 1));
  const own = text.lastIndexOf(`%${level + 1}`);
  const shown = fill(text);
  const label = { list, number: counts[level]!, text: shown };
  // A text without the number is the same before each paragraph, as a bullet is.
  if (own < 0) return { ...label, ordered: false, marker: shown === "" ? undefined : { bullet: shown } };
  const [before, after] = [fill(text.slice(0, own)), fill(text.slice(own + 2))];
  const numbers = isLegal ? undefined : numbersOf(levels.get(level));
  return { ...label, ordered: true, marker: numberMarker(numbers, before, after) };
}

/** The numbers of a level; nothing where they are decimal, or of a form that is not known. */
function numbersOf(level: NumberingLevel | undefined) {
  return DOCX_NUMBER_FORMS.get(level?.format ?? "");
}

/** A bullet as a sign: those of symbol fonts are places in their tables. */
function bulletOf({ text, font }: NumberingLevel): string {
  return [...text]
    .map((sign) => {
      const code = sign.codePointAt(0)!;
      return /^(symbol|wingdings)$/i.test(font) || (code >= 0xf000 && code <= 0xf0ff)
        ? symbolText(font, code)
        : sign;
    })
    .join("");
}

function levelsOf(parent: Element): Map<number, NumberingLevel> {
  const levels = new Map<number, NumberingLevel>();
  for (const lvl of childrenOf(parent)) {
    if (lvl.localName !== "lvl") continue;
    const of = (name: string) => attributeOf(childOf(lvl, name), "val");
    const legal = childOf(lvl, "isLgl");
    levels.set(Number(attributeOf(lvl, "ilvl") ?? 0), {
      format: formatOf(lvl),
      text: of("lvlText") ?? "",
      font: attributeOf(childOf(childOf(lvl, "rPr"), "rFonts"), "ascii") ?? "",
      start: Number(of("start") ?? 1),
      isLegal: legal !== undefined && attributeOf(legal, "val") !== "0",
      style: of("pStyle"),
    });
  }
  return levels;
}

/**
 * How the numbers of a level are written. A format of one's own stands beside a usual one for programs that do not know it
 * ([MS-DOCX] 2.4); the one with a leading zero has a name as well.
 */
function formatOf(level: Element): string {
  const choice = childOf(childOf(level, "AlternateContent"), "Choice");
  const format = childOf(level, "numFmt") ?? childOf(choice, "numFmt");
  const isZeroed = attributeOf(format, "format") === "01, 02, 03, ...";
  return isZeroed ? "decimalZero" : (attributeOf(format, "val") ?? "decimal");
}
