import { attributeOf, childOf, childrenOf, type Element } from "../office/xml.js";

/** An equation (Office Math, ECMA-376 part 1, 22.1) as plain linear text: `(a+b)/2`, `x^2`, `√(x)`. */
export function mathText(element: Element | undefined): string {
  let text = "";
  for (const child of element ? childrenOf(element) : []) text += partText(child);
  return text;
}

function partText(element: Element): string {
  const part = (name: string) => mathText(childOf(element, name));
  switch (element.localName ?? "") {
    case "t":
      return element.textContent ?? "";
    case "f":
      return `${grouped(part("num"))}/${grouped(part("den"))}`;
    case "sSup":
      return `${grouped(part("e"))}^${grouped(part("sup"))}`;
    case "sSub":
      return `${grouped(part("e"))}_${grouped(part("sub"))}`;
    case "sSubSup":
      return `${grouped(part("e"))}_${grouped(part("sub"))}^${grouped(part("sup"))}`;
    case "rad": {
      const degree = part("deg");
      return `${degree === "" || degree === "2" ? "" : degree}√(${part("e")})`;
    }
    case "d":
      return `(${[...childrenOf(element)]
        .filter(({ localName }) => localName === "e")
        .map(mathText)
        .join(", ")})`;
    case "nary": {
      const sign = signOf(element) ?? "∫";
      const [below, above] = [part("sub"), part("sup")];
      return `${sign}${below && `_${grouped(below)}`}${above && `^${grouped(above)}`} ${part("e")}`;
    }
    case "func":
      return `${part("fName")} ${grouped(part("e"))}`;
    case "mr":
      return `${[...childrenOf(element)].map(mathText).join(", ")}; `;
    case "rPr":
    case "ctrlPr":
      return "";
    default:
      return mathText(element);
  }
}

function signOf(element: Element): string | undefined {
  const sign = childOf(childOf(element, "naryPr"), "chr");
  return attributeOf(sign, "val");
}

/** In brackets, when it is more than one sign or number. */
function grouped(text: string): string {
  return /^(?:[\p{L}\p{M}]|[\d.,]+|)$/u.test(text) ? text : `(${text})`;
}
