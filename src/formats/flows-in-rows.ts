import { markText, withMark } from "../content/marker.js";
import type { Content, Flow } from "../content/model.js";

/**
 * The flows that each become a row, or with a table rows, where content becomes rows: those of quotes and of the items of lists
 * alone; items of a numbered list begin with their numbers.
 */
export function flowsInRows(content: Content): Flow[] {
  return content.flatMap((flow) => {
    if (flow.type === "quote") return flowsInRows(flow.flows);
    if (flow.type !== "list") return [flow];
    return flow.items.flatMap(({ flows }, index) =>
      flowsInRows(flow.ordered ? withMark(`${markText(flow, index)} `, flows) : flows),
    );
  });
}
