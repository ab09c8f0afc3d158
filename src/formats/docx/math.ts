import { fenced, fraction, grouped, matrix, root, scripted, scripts } from "../linear-math.js";
import { attributeOf, childOf, childrenOf, type Element } from "../office/xml.js";

/** An equation (Office Math, ECMA-376 part 1, 22.1) as plain text on one line. */
export function mathText(element: Element | undefined): string {
  let text = "";
  for (const child of element ? childrenOf(element) : []) text += partText(child);
  return text;
}

function partText(element: Element): string {
  const part = (name: string) => mathText(childOf(element, name));
  const parts = (of: Element, name: string) =>
    [...childrenOf(of)].filter(({ localName }) => localName === name);
  switch (element.localName) {
    case "t":
      return element.textContent;
    case "f":
      return fraction(part("num"), part("den"));
    case "sSup":
    case "sSub":
    case "sSubSup":
      return scripted(part("e"), part("sub"), part("sup"));
    case "rad":
      return root(part("e"), part("deg"));
    case "d": {
      const properties = childOf(element, "dPr");
      const sign = (name: string) => attributeOf(childOf(properties, name), "val");
      return fenced(parts(element, "e").map(mathText), sign("begChr"), sign("endChr"));
    }
    case "nary": {
      const sign = attributeOf(childOf(childOf(element, "naryPr"), "chr"), "val") ?? "∫";
      return `${sign}${scripts(part("sub"), part("sup"))} ${part("e")}`;
    }
    case "func":
      return `${part("fName")} ${grouped(part("e"))}`;
    case "m":
      return matrix(parts(element, "mr").map((row) => parts(row, "e").map(mathText)));
    case "rPr":
    case "ctrlPr":
      return "";
    default:
      return mathText(element);
  }
}
