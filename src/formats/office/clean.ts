import { withoutControls } from "../../content/controls.js";
import { defined } from "../../content/defined.js";
import type { Flow, Marker, Paragraph, Run } from "../../content/model.js";
import { mapContent, ownLine, someFlow } from "../../content/traverse.js";
import type { WriteInput } from "../format.js";

/**
 * What is to be written without the characters that XML has no form for (XML 1.0, 2.2): form feeds and vertical tabs, as
 * text out of page layouts has them, part paragraphs; other control characters, and halves of surrogate pairs, go.
 */
export function cleanForXml({ content, title, ...others }: WriteInput): WriteInput {
  return {
    ...others,
    content: someFlow(content, isDirty) ? mapContent(content, { flow: cleanFlow, runs: cleanRuns }) : content,
    ...(title !== undefined && { title: clean(title) }),
  };
}

/** Whether a flow's own text has such a character, or may have one. */
function isDirty(flow: Flow): boolean {
  switch (flow.type) {
    case "code":
      return FORBIDDEN.test(flow.text);
    case "list":
      return flow.marker !== undefined && FORBIDDEN.test(Object.values(flow.marker).join(""));
    case "paragraph":
    case "heading":
    case "table":
    case "picture":
      return ownLine(flow)?.some(isDirtyRun) ?? false;
    case "quote":
    case "divider":
      return false;
  }
}

function isDirtyRun(run: Run): boolean {
  switch (run.type) {
    case "text":
      return FORBIDDEN.test(run.text);
    case "picture":
      return FORBIDDEN.test(run.alt);
    case "note":
      return someFlow(run.flows, isDirty);
    case "break":
      return false;
  }
}

/** All that go, and all surrogates, for halves are among them. */
const FORBIDDEN = /[\u0000-\u0008\u000b-\u001f\u007f-\u009f\ud800-\udfff\ufffe\uffff]/;

const LONE_SURROGATES = /[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/g;

function clean(text: string): string {
  return withoutControls(text.replace(LONE_SURROGATES, "\ufffd")).replace(/[\ufffe\uffff]/g, "");
}

/** A flow, its own text clean; its lines are cleaned after it. */
function cleanFlow(flow: Flow): Flow[] {
  switch (flow.type) {
    case "paragraph":
      return parted(flow);
    case "code":
      return [{ ...flow, text: clean(flow.text.replace(/[\f\v]/g, "\n")) }];
    case "picture":
      return [{ ...flow, alt: clean(flow.alt) }];
    case "list":
      return [flow.marker ? { ...flow, marker: cleanMarker(flow.marker) } : flow];
    case "heading":
    case "quote":
    case "table":
    case "divider":
      return [flow];
  }
}

function cleanMarker({ before, after, bullet, ...others }: Marker): Marker {
  const cleaned = Object.entries(defined({ before, after, bullet })).map(([name, text]) => [
    name,
    clean(text),
  ]);
  return { ...others, ...Object.fromEntries(cleaned) };
}

/** The paragraphs that a paragraph is, parted at form feeds and vertical tabs. */
function parted(flow: Paragraph): Paragraph[] {
  const lines: Run[][] = [[]];
  for (const run of flow.runs) {
    if (run.type !== "text") {
      lines.at(-1)!.push(run);
      continue;
    }
    run.text.split(/[\f\v]/).forEach((text, index) => {
      if (index > 0) lines.push([]);
      if (text !== "" || run.text === "") lines.at(-1)!.push({ ...run, text });
    });
  }
  return lines.map((line) => ({ ...flow, runs: line }));
}

function cleanRuns(line: readonly Run[]): Run[] {
  return line.map((run): Run => {
    if (run.type === "text") return { ...run, text: clean(run.text) };
    return run.type === "picture" ? { ...run, alt: clean(run.alt) } : run;
  });
}
