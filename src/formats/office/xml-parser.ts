import { SaxesParser } from "saxes";

/** The attributes of an element: their names, without prefixes, and values in turn. */
export type Attributes = readonly string[];

const NO_ATTRIBUTES: Attributes = [];

/** What is done with what a part says, in the order of the file. Names are without their prefixes. */
export interface XmlHandler {
  open(name: string, attributes: Attributes): void;
  text(text: string): void;
  close(name: string): void;
}

/** A parser of XML 1.0 that tells a handler of elements, attributes and text. It throws where something is not well-formed. */
export function xmlParser(handler: XmlHandler): SaxesParser {
  const parser = new SaxesParser();
  const localName = localNames();
  let met: string[] | undefined;
  // Told one by one, they need not be looked for in the object that the parser gives at the end of the tag.
  parser.on("attribute", ({ name, value }) => {
    if (met) met.push(localName(name), value);
    else met = [localName(name), value];
  });
  parser.on("opentag", ({ name }) => {
    const attributes = met ?? NO_ATTRIBUTES;
    met = undefined;
    handler.open(localName(name), attributes);
  });
  parser.on("closetag", ({ name }) => handler.close(localName(name)));
  parser.on("text", (text) => handler.text(text));
  parser.on("cdata", (text) => handler.text(text));
  return parser;
}

/** More names than any format has; those of a file that has more are made each time. */
const MOST_NAMES = 2000;

/** Returns a function that takes the prefix off a name. A file has few names, and each of them thousands of times. */
function localNames(): (name: string) => string {
  const known = new Map<string, string>();
  return (name) => {
    let local = known.get(name);
    if (local === undefined) {
      local = name.slice(name.indexOf(":") + 1);
      if (known.size < MOST_NAMES) known.set(name, local);
    }
    return local;
  };
}

/** An attribute's value by its name; the first of those that have it. */
export function attributeIn(attributes: Attributes, name: string): string | undefined {
  for (let at = 0; at < attributes.length; at += 2) if (attributes[at] === name) return attributes[at + 1]!;
  return undefined;
}
