import { defined } from "../../content/defined.js";
import { settledMarker } from "../../content/marker.js";
import { type Content, type Flow, type Heading, type Item, type List, textRun } from "../../content/model.js";
import { mergeRuns } from "../../content/runs.js";
import type { Asides } from "../asides.js";
import type { Aside } from "../office/document.js";
import { attributeOf, childrenOf, type Element } from "../office/xml.js";
import type { Counts, Label, OdtNumbering } from "./numbering.js";

/** Where an item stands: the style of its list, how deep it is from 1, and the numbers that the list has reached. */
export interface ListPlace {
  readonly style: string | undefined;
  readonly level: number;
  readonly counts: Counts;
}

/** What reading a list needs of the text that it stands in. */
export interface ListHost {
  readonly numbering: OdtNumbering;
  readonly asides: Asides<Aside>;
  /** Reads what stands in an item. */
  flowsOf(item: Element, place: ListPlace): Content;
}

/**
 * A list; several where its numbers jump, and where headings stand in it.
 * @param isFirst whether it stands first in its item, which then has no number of its own
 */
export function readLists(host: ListHost, element: Element, isFirst: boolean, parent?: ListPlace): Flow[] {
  const style = attributeOf(element, "style-name") ?? parent?.style;
  const level = (parent?.level ?? 0) + 1;
  const counts = parent?.counts ?? host.numbering.countsOf(element, style);
  if (parent && !isFirst) counts.length = Math.min(counts.length, level - 1);
  const flows: Flow[] = [];
  let open: { label: Label; items: { flows: Flow[] }[] } | undefined;
  const end = () => {
    if (open) flows.push(listOf(open.label, open.items));
    open = undefined;
  };
  for (const child of childrenOf(element)) {
    if (child.localName !== "list-item" && child.localName !== "list-header") continue;
    const [first] = childrenOf(child);
    const isNumbered = child.localName === "list-item" && first !== undefined && first.localName !== "list";
    // One item may have the numbers of another style (ODF 1.3 part 3, 19.880.8).
    const own = attributeOf(child, "style-override") ?? style;
    const label = isNumbered ? host.numbering.item(child, own, level, counts) : undefined;
    const inner = host.flowsOf(child, { style: own, level, counts });
    const [line, ...rest] = inner;
    if (!label || label.text === "") {
      // What has no mark of its own goes on with the item before it.
      const item = label ? undefined : open?.items.at(-1);
      if (!item) end();
      for (const flow of inner) (item?.flows ?? flows).push(flow);
    } else if (line?.type === "heading") {
      end();
      const heading = labelled(line, label.text);
      host.asides.standIn(heading, line);
      flows.push(heading, ...rest);
    } else {
      if (open && !goesOn(open.label, open.items.length, label)) end();
      open ??= { label, items: [] };
      open.items.push({ flows: [...inner] });
    }
  }
  end();
  return flows;
}

/** Whether an item goes on with a list that began with a label and has so many items: it counts on, and is marked alike. */
function goesOn(first: Label, items: number, label: Label): boolean {
  if (label.ordered !== first.ordered) return false;
  const isMarkedAlike = JSON.stringify(label.marker) === JSON.stringify(first.marker);
  return isMarkedAlike && (!label.ordered || label.number === first.number + items);
}

/** A list of items, of which the first has this label. */
function listOf({ ordered, number, marker }: Label, items: readonly Item[]): List {
  const start = ordered && number !== 1 ? number : undefined;
  const settled = settledMarker(marker, number + items.length - 1);
  return { type: "list", ordered, ...defined({ start, marker: settled }), items };
}

/** A heading with its number, which is text of it. */
export function labelled(heading: Heading, label: string): Heading {
  return { ...heading, runs: mergeRuns([textRun(`${label} `), ...heading.runs]) };
}
