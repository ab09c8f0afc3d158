import { bulletMarker, numberMarker, numberText } from "../../content/marker.js";
import type { Marker } from "../../content/model.js";
import { attributeOf, type Element } from "../office/xml.js";
import type { OdfLevel, OdfStyles } from "./styles.js";

/** The numbers that a list has reached, by level, the outermost first. */
export type Counts = number[];

/** What stands before an item or a heading. */
export interface Label {
  readonly ordered: boolean;
  readonly number: number;
  readonly marker: Marker | undefined;
  /** As it is shown; empty where nothing is. */
  readonly text: string;
}

/** The numbers of an OpenDocument text's lists and headings as they go by (ODF 1.3 part 3, 5.3 and 5.1.2). */
export class OdtNumbering {
  /** The counts of outermost lists, by their ids and by their styles. */
  readonly #lists = new Map<string, Counts>();
  readonly #headings: Counts = [];

  constructor(readonly styles: OdfStyles) {}

  /** The counts of an outermost list: those of the list that it goes on with, or new ones. */
  countsOf(list: Element, style: string | undefined): Counts {
    const continued =
      attributeOf(list, "continue-list") ??
      (attributeOf(list, "continue-numbering") === "true" ? `style ${style}` : undefined);
    const counts = (continued === undefined ? undefined : this.#lists.get(continued)) ?? [];
    this.#lists.set(`style ${style}`, counts);
    const id = attributeOf(list, "id");
    if (id !== undefined) this.#lists.set(id, counts);
    return counts;
  }

  /** What stands before the next item of a list, at a level from 1. */
  item(item: Element, style: string | undefined, level: number, counts: Counts): Label {
    const levelAt = (at: number) => this.styles.level(style, at);
    return labelOf(levelAt, level, counts, attributeOf(item, "start-value"));
  }

  /** What stands before a heading. */
  heading(heading: Element, level: number): Label {
    const isRestarted = attributeOf(heading, "restart-numbering") === "true";
    const start = isRestarted ? (attributeOf(heading, "start-value") ?? "1") : undefined;
    return labelOf((at) => this.styles.outline(at), level, this.#headings, start);
  }
}

/** Counts on, and says what is shown. */
function labelOf(
  levelAt: (level: number) => OdfLevel,
  level: number,
  counts: Counts,
  start: string | undefined,
): Label {
  const facts = levelAt(level);
  const last = counts[level - 1];
  const number = start === undefined ? (last === undefined ? facts.start : last + 1) : Number(start);
  counts.length = Math.min(counts.length, level);
  counts[level - 1] = number;
  const { ordered, numbers, after, shown } = facts;
  if (!ordered) {
    const text = facts.bullet || facts.before + after;
    return { ordered, number, marker: bulletMarker(text, level - 1), text };
  }
  let before = facts.before;
  for (let at = Math.max(1, level - shown + 1); at < level; at++) {
    const upper = levelAt(at);
    before += `${numberText(counts[at - 1] ?? upper.start, upper.numbers)}.`;
  }
  const text = before + numberText(number, numbers) + after;
  return { ordered, number, marker: numberMarker(numbers, before, after), text };
}
