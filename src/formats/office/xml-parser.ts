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
  /** The attributes of the tag that is being read: told one by one, they need not be looked for in the object at the end of the tag. */
  const met: string[] = [];
  let count = 0;
  parser.on("attribute", ({ name, value }) => {
    met[count++] = localName(name);
    met[count++] = value;
  });
  parser.on("opentag", ({ name }) => {
    const attributes = count === 0 ? NO_ATTRIBUTES : met.slice(0, count);
    count = 0;
    handler.open(localName(name), attributes);
  });
  parser.on("closetag", ({ name }) => handler.close(localName(name)));
  parser.on("text", (text) => handler.text(text));
  parser.on("cdata", (text) => handler.text(text));
  return parser;
}

/** How many names are known at a time. */
const KNOWN = 256;

/**
 * Returns a function that takes the prefix off a name. A file has few names, and each of them thousands of times: those that were met
 * last are known by their length and their last sign, which takes less than cutting them anew.
 */
function localNames(): (name: string) => string {
  const names = new Array<string>(KNOWN).fill("");
  const locals = new Array<string>(KNOWN).fill("");
  return (name) => {
    const place = (name.length * 8 + name.charCodeAt(name.length - 1)) % KNOWN;
    if (names[place] !== name) {
      names[place] = name;
      locals[place] = name.slice(name.indexOf(":") + 1);
    }
    return locals[place]!;
  };
}

/** An attribute's value by its name; the first of those that have it. */
export function attributeIn(attributes: Attributes, name: string): string | undefined {
  for (let at = 0; at < attributes.length; at += 2) if (attributes[at] === name) return attributes[at + 1]!;
  return undefined;
}
