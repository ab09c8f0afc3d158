import { DrawerError } from "../../content/error.js";
import { ListBuilder } from "../../content/list-builder.js";
import { textRun, type Content, type Flow } from "../../content/model.js";
import { blankRuns } from "../../content/runs.js";
import { sources } from "../../messages/en/content.js";
import { formatErrors } from "../../messages/en/formats.js";
import { Asides } from "../asides.js";
import { chartWords, diagramWords } from "../docx/drawing.js";
import type { ReadDocument, ReadOptions } from "../format.js";
import { lineOf, missingPicture, type Aside } from "../office/document.js";
import { DocumentPictures, openDocument } from "../office/open-document.js";
import { mainPart, partOfType, relationsOf, titleOf, type Relation } from "../office/relations.js";
import { TextBudget } from "../office/text-budget.js";
import { attributeOf, childOf, childrenOf, descendantsOf, parseXml, type Element } from "../office/xml.js";
import { Parts } from "../office/zip.js";
import { Bullets, isFurniture, isTitle, placeholderOf } from "./placeholders.js";
import { readTable } from "./table.js";
import { readLine } from "./text.js";

/**
 * Reads slides (ECMA-376 part 1, 19): each is a heading, its title, with what stands on it in the order of the file, and with the notes of
 * its speaker as a quote.
 *
 * @param bytes the whole file
 * @param file its name, for messages
 * @throws DrawerError `unreadable`, `locked`, `too-large`
 */
export function readPptx(bytes: Uint8Array, file: string, { onProgress }: ReadOptions = {}): ReadDocument {
  const parts = new Parts(bytes, file, onProgress);
  const main = mainPart(parts, "ppt/presentation.xml");
  const text = parts.text(main);
  const presentation = text === undefined ? undefined : parseXml(text, file);
  if (presentation?.localName !== "presentation")
    throw new DrawerError(formatErrors, "unreadable/not-one", { file, what: "pptx" });
  const relations = relationsOf(parts, main);
  const named = childOf(presentation, "sldIdLst");
  const slides = [...(named ? childrenOf(named) : [])].flatMap((slide) => {
    const part = relations.get(relationNamed(slide) ?? "")?.part;
    return part !== undefined && parts.has(part) ? [part] : [];
  });
  const reader = new SlideReader(parts, file);
  let count = 0;
  // A slide at a time, as far as they are asked for.
  const stream = {
    get isRead() {
      return count >= slides.length;
    },
    readOn: () => reader.read(slides[count]!, ++count),
  };
  return openDocument(stream, reader, file, titleOf(parts));
}

/** The relation that a slide of the list names (`r:id`): it has a number of its own too (`id`), in any order. */
function relationNamed({ attributes }: Element): string | undefined {
  const values = attributes.filter((_, at) => at % 2 === 1 && attributes[at - 1] === "id");
  return values.find((value) => !/^\d+$/.test(value)) ?? values.at(-1);
}

class SlideReader {
  readonly flows: Flow[] = [];
  readonly asides = new Asides<Aside>();
  readonly pictures: DocumentPictures;
  readonly #budget: TextBudget;
  readonly #parsed = new Map<string, Element>();
  #relations: ReadonlyMap<string, Relation> = new Map();
  #bullets = new Bullets([]);

  constructor(
    readonly parts: Parts,
    readonly file: string,
  ) {
    this.pictures = new DocumentPictures(parts);
    this.#budget = new TextBudget(file);
  }

  /** Reads a slide. */
  read(part: string, number: number): void {
    const slide = this.#xml(part)!;
    this.#relations = relationsOf(this.parts, part);
    const layout = partOfType(this.#relations, "slideLayout");
    const master =
      layout === undefined ? undefined : partOfType(relationsOf(this.parts, layout), "slideMaster");
    this.#bullets = new Bullets([layout, master].flatMap((each) => this.#xml(each) ?? []));
    if (/^(0|false)$/.test(attributeOf(slide, "show") ?? "1")) this.asides.add("hiddenSlide");
    const tree = childOf(childOf(slide, "cSld"), "spTree");
    const shapes = tree ? [...childrenOf(tree)] : [];
    const titles = shapes.filter((shape) => {
      const placeholder = placeholderOf(shape);
      return placeholder !== undefined && isTitle(placeholder);
    });
    const runs = titles.flatMap((shape, at) => {
      const lines = paragraphsOf(shape).map((paragraph) => this.#line(paragraph));
      return lines.flatMap((line, index) => (at + index > 0 ? [{ type: "break" as const }, ...line] : line));
    });
    if (blankRuns(runs)) this.asides.add("untitledSlide");
    this.#add({
      ...{ type: "heading", level: 2 },
      runs: blankRuns(runs) ? [textRun(sources.slide(number))] : runs,
    });
    for (const shape of shapes) if (!titles.includes(shape)) this.#shape(shape);
    this.#notes();
  }

  #xml(part: string | undefined): Element | undefined {
    if (part === undefined) return undefined;
    const known = this.#parsed.get(part);
    const text = known ? undefined : this.parts.text(part);
    const element = known ?? (text === undefined ? undefined : parseXml(text, this.file));
    // Layouts and masters serve many slides.
    if (element && !/\/slides\//.test(part)) this.#parsed.set(part, element);
    return element;
  }

  #add(flow: Flow): void {
    this.flows.push(flow);
    this.asides.standIn(flow);
  }

  #line(paragraph: Element) {
    const { runs, hasEquation } = readLine(paragraph, (id) => this.#relations.get(id ?? "")?.target);
    this.#budget.spendLine(runs);
    if (hasEquation) this.asides.add("equation");
    return runs;
  }

  #shape(shape: Element): void {
    switch (shape.localName) {
      case "sp": {
        const placeholder = placeholderOf(shape);
        if (placeholder && isFurniture(placeholder)) {
          if (paragraphsOf(shape).some((each) => !blankRuns(this.#line(each))))
            this.asides.add("slideFurniture");
          return;
        }
        this.flows.push(...this.#paragraphs(shape));
        return;
      }
      case "grpSp":
        for (const child of childrenOf(shape)) this.#shape(child);
        return;
      case "pic":
        this.#picture(shape);
        return;
      case "graphicFrame":
        this.#frame(shape);
        return;
      case "AlternateContent": {
        const chosen = childOf(shape, "Fallback") ?? childOf(shape, "Choice");
        if (chosen) for (const child of childrenOf(chosen)) this.#shape(child);
      }
    }
  }

  /** The paragraphs of a shape or a cell, as lists where they are some. */
  #paragraphs(shape: Element): Content {
    const lists = new ListBuilder();
    const flows: Flow[] = [];
    const placeholder = placeholderOf(shape);
    // How many numbered paragraphs there are of each level of the list that is open.
    const counts: number[] = [];
    for (const paragraph of paragraphsOf(shape)) {
      const runs = this.#line(paragraph);
      // On a slide a line that says nothing is room.
      if (blankRuns(runs)) continue;
      const bullet = this.#bullets.of(paragraph, shape, placeholder);
      const level = Number(attributeOf(childOf(paragraph, "pPr"), "lvl") ?? 0);
      const flow = lineOf(runs, {});
      this.asides.standIn(flow);
      counts.length = bullet ? Math.min(counts.length, level + 1) : 0;
      if (!bullet) {
        flows.push(...lists.take(), flow);
        continue;
      }
      const { ordered } = bullet;
      if (ordered) counts[level] = (counts[level] ?? 0) + 1;
      const number = ordered ? { number: bullet.start + counts[level]! - 1 } : {};
      lists.add({ level, key: `${ordered}`, ordered, ...number, flows: [flow] });
    }
    return [...flows, ...lists.take()];
  }

  #picture(shape: Element): void {
    const blip = descendantsOf(shape, "blip")[0];
    const named = [...childrenOf(shape)].flatMap((child) => childOf(child, "cNvPr") ?? [])[0];
    const alt = (attributeOf(named, "descr") ?? "").trim();
    const part = this.#relations.get(attributeOf(blip, "embed") ?? "")?.part ?? "";
    const picture = this.pictures.keep(part, alt);
    if (picture) return this.#add(picture);
    this.asides.add("picture");
    this.#add({ type: "paragraph", runs: [textRun(missingPicture(alt))] });
  }

  /** A table, a chart, a diagram, or what another program has drawn. */
  #frame(frame: Element): void {
    const table = descendantsOf(frame, "tbl")[0];
    if (table) return this.#add(this.asides.within(() => readTable(table, (cell) => this.#paragraphs(cell))));
    const pictures = descendantsOf(frame, "pic");
    if (pictures.length > 0) return this.#picture(pictures[0]!);
    const chart = descendantsOf(frame, "chart")[0];
    const diagram = descendantsOf(frame, "relIds")[0];
    const part = this.#relations.get(attributeOf(chart, "id") ?? attributeOf(diagram, "dm") ?? "")?.part;
    const drawn = this.#xml(part);
    if (!drawn) return;
    const words = chart ? [chartWords(drawn).join(", ")] : diagramWords(drawn);
    this.asides.add("diagram");
    for (const said of words) {
      this.#budget.spend(said.length);
      this.#add({ type: "paragraph", runs: [textRun(said)] });
    }
  }

  /** The notes of the speaker. */
  #notes(): void {
    const notes = partOfType(this.#relations, "notesSlide");
    const page = this.#xml(notes);
    const tree = childOf(childOf(page, "cSld"), "spTree");
    if (!tree || notes === undefined) return;
    this.#relations = relationsOf(this.parts, notes);
    const bodies = [...childrenOf(tree)].filter((shape) => placeholderOf(shape)?.type === "body");
    const isSaid = bodies.some((shape) =>
      descendantsOf(shape, "t").some(({ textContent }) => textContent.trim() !== ""),
    );
    if (!isSaid) return;
    this.asides.add("speakerNotes");
    this.flows.push({ type: "quote", flows: bodies.flatMap((shape) => this.#paragraphs(shape)) });
  }
}

function paragraphsOf(shape: Element): Element[] {
  const body = childOf(shape, "txBody");
  return body ? [...childrenOf(body)].filter(({ localName }) => localName === "p") : [];
}
