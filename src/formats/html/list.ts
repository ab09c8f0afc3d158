import { defined } from "../../content/defined.js";
import type { Item, List } from "../../content/model.js";
import type { ComputedStyle } from "./computed-style.js";
import type { ElementReader } from "./element-reader.js";
import { FlowBuilder } from "./flow-builder.js";
import type { StyleContext } from "./known-places.js";
import { listMarker } from "./list-marker.js";

/** Reads a list; several where the numbers of its items jump. */
export function readLists<Node>(
  reader: ElementReader<Node>,
  node: Node,
  ordered: boolean,
  style: ComputedStyle,
  place: StyleContext,
): List[] {
  const first = Number.parseInt(reader.attribute(node, "start") ?? "1", 10);
  const lists: { start: number; items: Item[] }[] = [
    { start: first > 1 && first < 1e9 ? first : 1, items: [] },
  ];
  let marker = listMarker(ordered, reader.attribute(node, "type"), place.declarations, place);
  let loose: FlowBuilder | undefined;
  const endLoose = () => {
    const flows = loose?.done() ?? [];
    loose = undefined;
    if (flows.length === 0) return;
    const { items } = lists.at(-1)!;
    const nested = flows.every((flow) => flow.type === "list");
    const before = nested ? items.pop() : undefined;
    items.push({ flows: [...(before?.flows ?? []), ...flows] });
  };
  const children = reader.adapter.children(node);
  for (let i = 0; i < children.length; i++) {
    const child = children[i]!;
    if (reader.adapter.name(child) !== "li") {
      reader.node(child, style, place, (loose ??= new FlowBuilder(reader.asides)));
      continue;
    }
    endLoose();
    const inner = reader.enter(child, "li", style, place);
    if (inner.style.hidden || reader.isNoteBody(child)) continue;
    marker ??= listMarker(ordered, undefined, inner.place.declarations, place);
    const flows = reader.flowsOf(child, inner.style, inner.place);
    const number = ordered ? Number.parseInt(reader.attribute(child, "value") ?? "", 10) : NaN;
    const { start, items } = lists.at(-1)!;
    if (number > 0 && number < 1e9 && number !== start + items.length)
      lists.push({ start: number, items: [{ flows }] });
    else items.push({ flows });
  }
  endLoose();
  if (lists.length > 1 && lists[0]!.items.length === 0) lists.shift();
  return lists.map(({ start, items }) => ({
    type: "list",
    ordered,
    ...(ordered && start !== 1 && { start }),
    ...defined({ marker }),
    items,
  }));
}
