import { ListBuilder, type ListLine } from "../../content/list-builder.js";
import { type Content, type Flow, type Picture, type Run, textRun } from "../../content/model.js";
import { sameMarks } from "../../content/runs.js";
import type { Asides } from "../asides.js";
import { marksOf, type ComputedStyle } from "./computed-style.js";

/**
 * Gathers the flows of one container (a page, an item, a cell) while its nodes go by: text falls into the line that is
 * being written, with white space folded as HTML folds it; a block ends the line.
 */
export class FlowBuilder {
  readonly flows: Flow[] = [];
  /** @param asides is told of each flow, once it is whole */
  constructor(readonly asides: Asides<unknown>) {}

  #runs: Run[] = [];
  #text = "";
  #style: ComputedStyle | undefined;
  #lists: ListBuilder | undefined;
  /** The look and heading level of the block that the line stands in. */
  #block: ComputedStyle | undefined;
  #heading: number | undefined;
  /** Whether white space that comes now would be folded away: at a line's start, or after a space. */
  #folding = true;
  /** Whether the last character is a space that a line's end takes away. */
  #looseSpace = false;

  /** Adds text of one look. `heading` is the level of the heading that it stands in. */
  text(value: string, style: ComputedStyle, heading?: number): void {
    if (style.space === "normal") {
      this.#add(fold(value), style, heading);
      return;
    }
    const folded = style.space === "pre-line" ? value.replace(/[ \t\f]+/g, " ") : value;
    folded.split(/\r\n|\r|\n/).forEach((line, index) => {
      if (index > 0) this.lineBreak(style, heading);
      if (style.space === "pre-line") this.#add(line, style, heading);
      else if (line !== "") {
        this.#append(line, style, heading);
        this.#folding = false;
        this.#looseSpace = false;
      }
    });
  }

  /** Adds text in which each run of white space is one space already. */
  #add(folded: string, style: ComputedStyle, heading: number | undefined): void {
    const text = this.#folding && folded.startsWith(" ") ? folded.slice(1) : folded;
    if (text === "") return;
    this.#append(text, style, heading);
    this.#folding = this.#looseSpace = text.endsWith(" ");
  }

  #append(text: string, style: ComputedStyle, heading: number | undefined): void {
    this.#begin(style, heading);
    if (this.#style !== style) {
      this.#endRun();
      this.#style = style;
    }
    this.#text += text;
  }

  #begin(style: ComputedStyle, heading: number | undefined): void {
    if (this.#block) return;
    this.#block = style;
    this.#heading = heading;
  }

  #endRun(): void {
    if (this.#text !== "") {
      const marks = marksOf(this.#style!);
      const last = this.#runs.at(-1);
      if (last?.type === "text" && sameMarks(last.marks, marks)) {
        this.#runs[this.#runs.length - 1] = textRun(last.text + this.#text, marks);
      } else this.#runs.push(textRun(this.#text, marks));
    }
    this.#text = "";
  }

  #dropLooseSpace(): void {
    if (!this.#looseSpace) return;
    this.#looseSpace = false;
    if (this.#text !== "") {
      this.#text = this.#text.slice(0, -1);
      return;
    }
    const last = this.#runs.pop();
    if (last?.type === "text" && last.text.length > 1)
      this.#runs.push({ ...last, text: last.text.slice(0, -1) });
  }

  /** Adds a line break. */
  lineBreak(style: ComputedStyle, heading?: number): void {
    this.#begin(style, heading);
    this.#dropLooseSpace();
    this.#endRun();
    this.#runs.push({ type: "break" });
    this.#folding = true;
  }

  /** Adds a picture to the line. */
  picture(picture: Picture, style: ComputedStyle, heading?: number): void {
    this.#begin(style, heading);
    this.#endRun();
    this.#runs.push(picture);
    this.#folding = this.#looseSpace = false;
  }

  /** Adds the place of a note to the line. */
  note(flows: Content, style: ComputedStyle, heading?: number): void {
    this.#begin(style, heading);
    this.#endRun();
    this.#runs.push({ type: "note", flows });
    this.#folding = this.#looseSpace = false;
  }

  /** Ends the line: what was gathered becomes a paragraph or a heading. The break that ends a line opens no new one. */
  endLine(): void {
    this.#dropLooseSpace();
    this.#endRun();
    const runs = this.#runs;
    const block = this.#block;
    const level = this.#heading as 1 | 2 | 3 | 4 | 5 | 6 | undefined;
    this.#runs = [];
    this.#block = this.#heading = this.#style = undefined;
    this.#folding = true;
    if (!block || runs.length === 0) return;
    this.#endLists();
    if (runs.at(-1)!.type === "break") runs.pop();
    const only = runs.length === 1 ? runs[0]! : undefined;
    if (only?.type === "picture" && !level) {
      this.#push(only);
      return;
    }
    const layout = {
      ...(block.align && { align: block.align }),
      ...(block.direction && { direction: block.direction }),
    };
    this.#push(level ? { type: "heading", level, runs, ...layout } : { type: "paragraph", runs, ...layout });
  }

  /** Ends the line and adds a flow. */
  flow(flow: Flow): void {
    this.endLine();
    this.#endLists();
    this.#push(flow);
  }

  #push(flow: Flow): void {
    this.flows.push(flow);
    this.asides.standIn(flow);
  }

  /** Ends the line and adds a line of a list that is written as single paragraphs. */
  listLine(line: ListLine): void {
    this.endLine();
    this.#lists ??= new ListBuilder();
    this.#lists.add(line);
  }

  #endLists(): void {
    for (const list of this.#lists?.take() ?? []) this.flows.push(list);
    this.#lists = undefined;
  }

  /** Ends the line and gives all flows. */
  done(): Content {
    this.endLine();
    this.#endLists();
    return this.flows;
  }
}

/** Folds each run of white space (but no-break spaces) into one space. */
function fold(text: string): string {
  return isFolded(text) ? text : text.replace(/[ \t\n\r\f]+/g, " ");
}

/** Whether all white space is single spaces, as it is in most texts. */
function isFolded(text: string): boolean {
  for (let at = 0; at < text.length; at++) {
    const code = text.charCodeAt(at);
    if (code > SPACE) continue;
    if (code !== SPACE || text.charCodeAt(at + 1) === SPACE) return false;
  }
  return true;
}

const SPACE = 0x20;
