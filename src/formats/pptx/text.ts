import { safeLink } from "../../content/address.js";
import { defined } from "../../content/defined.js";
import { textRun, type Marks, type Run } from "../../content/model.js";
import { mergeRuns } from "../../content/runs.js";
import { descendantsOf, attributeOf, childOf, childrenOf, type Element } from "../office/xml.js";

/** What a paragraph of drawn text says (ECMA-376 part 1, 21.1.2). */
export interface DrawnLine {
  readonly runs: Run[];
  /** Whether an equation is in it, of which the words alone are there. */
  readonly hasEquation: boolean;
}

/**
 * Reads a paragraph.
 * @param addressAt the address that a relation of the slide leads to
 */
export function readLine(
  paragraph: Element,
  addressAt: (id: string | undefined) => string | undefined,
): DrawnLine {
  const runs: Run[] = [];
  let hasEquation = false;
  const visit = (element: Element): void => {
    switch (element.localName) {
      case "r":
      case "fld": {
        const text = childOf(element, "t")?.textContent ?? "";
        // A line is ended within text too, by the sign for it.
        for (const [at, part] of text.split(/[\v\n]/).entries()) {
          if (at > 0) runs.push({ type: "break" });
          if (part !== "") runs.push(textRun(part, marksOf(childOf(element, "rPr"), addressAt)));
        }
        break;
      }
      case "br":
        runs.push({ type: "break" });
        break;
      case "m": {
        const words = descendantsOf(element, "t").map(({ textContent }) => textContent);
        if (words.length > 0) runs.push(textRun(words.join("")));
        hasEquation = true;
        break;
      }
      case "AlternateContent": {
        const chosen = childOf(element, "Choice") ?? childOf(element, "Fallback");
        if (chosen) for (const child of childrenOf(chosen)) visit(child);
      }
    }
  };
  for (const child of childrenOf(paragraph)) visit(child);
  return { runs: mergeRuns(runs), hasEquation };
}

function marksOf(
  properties: Element | undefined,
  addressAt: (id: string | undefined) => string | undefined,
): Marks | undefined {
  if (!properties) return undefined;
  const said = (name: string) => attributeOf(properties, name);
  const isOn = (name: string) => /^(1|true)$/.test(said(name) ?? "");
  const address = addressAt(attributeOf(childOf(properties, "hlinkClick"), "id"));
  const baseline = Number(said("baseline") ?? 0);
  const color = attributeOf(childOf(childOf(properties, "solidFill"), "srgbClr"), "val");
  const link = address === undefined ? undefined : safeLink(address);
  const marks: Marks = defined({
    ...(isOn("b") && { bold: true as const }),
    ...(isOn("i") && { italic: true as const }),
    // A link is underlined by being one.
    ...(link === undefined && !/^none$/.test(said("u") ?? "none") && { underline: true as const }),
    ...(!/^noStrike$/.test(said("strike") ?? "noStrike") && { strike: true as const }),
    ...(baseline > 0 ? { sup: true as const } : baseline < 0 ? { sub: true as const } : {}),
    ...(color !== undefined && /^[\da-f]{6}$/i.test(color) && { color: `#${color.toLowerCase()}` }),
    link,
  });
  return Object.keys(marks).length > 0 ? marks : undefined;
}
