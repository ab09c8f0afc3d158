import { DrawerError } from "../../content/error.js";
import { LIMITS } from "../../content/limits.js";
import { textRun, type Content, type Flow, type Run } from "../../content/model.js";
import { blankRuns } from "../../content/runs.js";
import { isBlank, isLine } from "../../content/traverse.js";
import { sources } from "../../messages/en/content.js";
import { formatErrors } from "../../messages/en/formats.js";
import type { ReadDocument, ReadOptions } from "../format.js";
import { OdtReader, titleOf } from "../odt/read.js";
import { OdfStyles } from "../odt/styles.js";
import { elementStream } from "../office/element-stream.js";
import { odfParts } from "../office/odf-parts.js";
import { openDocument } from "../office/open-document.js";
import { attributeOf, childOf, childrenOf, descendantsOf, Element, parseXml } from "../office/xml.js";
import type { Parts } from "../office/zip.js";

/** What stands at the edges of slides, by the classes of its frames (ODF 1.3 part 3, 19.389). */
const FURNITURE = ["header", "footer", "date-time", "page-number"];
const CONTENT = "content.xml";

/**
 * Reads slides (OpenDocument 1.3 part 3, 3.6): each is a heading, its title, with what stands on it in the order of the file, and with the
 * notes of its speaker as a quote. A slide is read when it is asked for.
 *
 * @param bytes the whole file
 * @param file its name, for messages
 * @throws DrawerError `unreadable`, `locked`, `too-large`
 */
export function readOdp(bytes: Uint8Array, file: string, { onProgress }: ReadOptions = {}): ReadDocument {
  const parts = odfParts(bytes, file, onProgress);
  /** What stands before the slides: the styles of the file. */
  const head = new Element("document-content", []);
  let reader: SlideReader | undefined;
  const stream = elementStream(
    parts.pieces(CONTENT),
    file,
    {
      isOpened({ localName }, depth) {
        if (depth === 2 && localName === "presentation") reader = new SlideReader(parts, head, file);
        return (
          depth === 0 ||
          (depth === 1 && localName === "body") ||
          (depth === 2 && localName === "presentation")
        );
      },
      take: (element) => (reader ? reader.take(element) : head.append(element)),
    },
    LIMITS.elements,
  );
  while (!reader && !stream.isRead) stream.readOn();
  if (!reader) throw new DrawerError(formatErrors, "unreadable/not-one", { file, what: "odp" });
  return openDocument(stream, reader, file, titleOf(parts, file));
}

/** Reads slides by what reads OpenDocument text, which their boxes hold. */
class SlideReader {
  readonly #text: OdtReader;
  readonly #hidden: ReadonlySet<string>;
  #count = 0;

  constructor(parts: Parts, head: Element, file: string) {
    const styles = parts.text("styles.xml");
    this.#text = new OdtReader(parts, new OdfStyles(styles ? [parseXml(styles, file), head] : [head]), file);
    this.#hidden = hiddenStyles(head);
  }

  get flows() {
    return this.#text.flows;
  }

  get asides() {
    return this.#text.asides;
  }

  get pictures() {
    return this.#text.pictures;
  }

  /** Reads the next slide; anything else between slides says nothing. */
  take(page: Element): void {
    if (page.localName !== "page") return;
    const number = ++this.#count;
    const { asides } = this;
    if (this.#hidden.has(attributeOf(page, "style-name") ?? "")) asides.add("hiddenSlide");
    const shapes = [...childrenOf(page)].filter((shape) => attributeOf(shape, "placeholder") !== "true");
    const titles = shapes.filter((shape) => attributeOf(shape, "class") === "title");
    const runs = titles.flatMap((shape) => this.#lineOf(shape));
    if (blankRuns(runs)) asides.add("untitledSlide");
    this.#add({
      ...{ type: "heading", level: 2 },
      runs: blankRuns(runs) ? [textRun(sources.slide(number))] : runs,
    });
    for (const shape of shapes) if (!titles.includes(shape)) this.#shape(shape);
  }

  #add(flow: Flow): void {
    this.flows.push(flow);
    this.asides.standIn(flow);
  }

  #shape(shape: Element): void {
    if (shape.localName === "notes") return this.#notes(shape);
    if (FURNITURE.includes(attributeOf(shape, "class") ?? "")) {
      if (shape.textContent.trim() !== "") this.asides.add("slideFurniture");
      return;
    }
    const table = childOf(shape, "table");
    const before = this.flows.length;
    this.#text.take(table ?? withWholeLists(shape));
    // On a slide a line that says nothing is room.
    const added = this.flows.splice(before).filter((flow) => !isLine(flow) || !isBlank([flow]));
    for (const flow of added) {
      const isNamed = flow.type === "table" && attributeOf(table, "use-first-row-styles") === "true";
      this.#add(isNamed && flow.headerRows === 0 ? { ...flow, headerRows: 1 } : flow);
    }
  }

  /** The lines of a box as one. */
  #lineOf(shape: Element): Run[] {
    const lines = this.#boxOf(shape).flatMap((flow) => (isLine(flow) ? [flow.runs] : []));
    return lines.flatMap((line, at) => (at > 0 ? [{ type: "break" as const }, ...line] : line));
  }

  #boxOf(shape: Element): Content {
    const box = childOf(shape, "text-box");
    return box ? this.asides.within(() => this.#text.flowsIn(box, 1)) : [];
  }

  /** The notes of the speaker. */
  #notes(notes: Element): void {
    const flows = [...childrenOf(notes)]
      .filter(
        (shape) => attributeOf(shape, "class") === "notes" && attributeOf(shape, "placeholder") !== "true",
      )
      .flatMap((shape) => this.#boxOf(shape))
      .filter((flow) => !isBlank([flow]));
    if (flows.length === 0) return;
    this.asides.add("speakerNotes");
    this.#add({ type: "quote", flows });
  }
}

/** The styles of slides that are not shown (ODF 1.3 part 3, 20.368). */
function hiddenStyles(head: Element): Set<string> {
  const styles = descendantsOf(head, "style").filter((style) =>
    descendantsOf(style, "drawing-page-properties").some(
      (each) => attributeOf(each, "visibility") === "hidden",
    ),
  );
  return new Set(styles.flatMap((style) => attributeOf(style, "name") ?? []));
}

/** A shape whose lists are one where they follow each other: programs write a list of its own for each step in or out. */
function withWholeLists(shape: Element): Element {
  const box = childOf(shape, "text-box");
  if (!box) return shape;
  const whole = new Element(box.localName, box.attributes);
  let last: Element | undefined;
  for (const child of box.children) {
    const list = typeof child !== "string" && child.localName === "list" ? child : undefined;
    if (list && last && goesOnIn(last, list)) continue;
    last = list && copyOf(list);
    whole.append(last ?? child);
  }
  const copy = new Element(shape.localName, shape.attributes);
  for (const child of shape.children) copy.append(child === box ? whole : child);
  return copy;
}

function copyOf(element: Element, attributes = element.attributes): Element {
  const copy = new Element(element.localName, attributes);
  for (const child of element.children) copy.append(child);
  return copy;
}

/** Adds a list to the one before it, where it is of the same kind, or stands further in than that. Returns whether it does. */
function goesOnIn(before: Element, list: Element): boolean {
  const item = [...childrenOf(before)].at(-1);
  const items = [...childrenOf(list)];
  const style = attributeOf(list, "style-name");
  const inner = items.every((each) => [...childrenOf(each)].every(({ localName }) => localName === "list"));
  if (inner && item) {
    for (const each of items.flatMap((one) => [...childrenOf(one)]))
      item.append(style === undefined ? each : copyOf(each, ["style-name", style]));
    return true;
  }
  if (style !== attributeOf(before, "style-name")) return false;
  for (const each of items) before.append(each);
  return true;
}
