import { DrawerError } from "../../content/error.js";
import { formatErrors } from "../../messages/en/formats.js";
import { XmlStream } from "./xml-stream.js";
import { DEPTH, Element, NumberedElement } from "./xml.js";

/** What is done with the elements of a part, in the order of the file. */
export interface ElementHandler {
  /**
   * Whether the elements in this one are told one by one; it is told whole otherwise. Nothing stands in it yet.
   * @param depth how many elements it stands in
   */
  isOpened(element: Element, depth: number): boolean;
  /** An element with all that stands in it. */
  take(element: Element): void;
}

/**
 * A part of a file that is read element by element, so that no more of it is held than the one that is being read.
 *
 * @param most how many elements it may have
 * @param isNumbered whether each knows its number among them
 */
export function elementStream(
  pieces: Iterator<Uint8Array>,
  file: string,
  handler: ElementHandler,
  most: number,
  isNumbered = false,
): XmlStream {
  /** The elements from the one that is told whole down to the one that is open. */
  const open: Element[] = [];
  let opened = 0;
  let count = 0;
  const tooLarge = (what: "elements" | "depth", limit: number) =>
    new DrawerError(formatErrors, "too-large/document", { file, what, most: limit });
  return new XmlStream(pieces, file, {
    open(name, attributes) {
      if (++count > most) throw tooLarge("elements", most);
      const element = isNumbered
        ? new NumberedElement(name, attributes, count)
        : new Element(name, attributes);
      if (open.length === 0 && handler.isOpened(element, opened)) opened++;
      else {
        open.at(-1)?.append(element);
        open.push(element);
      }
      if (opened + open.length > DEPTH) throw tooLarge("depth", DEPTH);
    },
    text: (text) => open.at(-1)?.append(text),
    close() {
      const element = open.pop();
      if (!element) opened--;
      else if (open.length === 0) handler.take(element);
    },
  });
}
