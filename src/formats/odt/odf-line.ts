import { type Marks, type Run, textRun } from "../../content/model.js";
import { mergeRuns } from "../../content/runs.js";
import { runInFont } from "../office/symbols.js";

/**
 * The runs of a paragraph while they are read. Its white space folds across elements (ODF 1.3 part 3, 6.1.2); that of cells does not, as
 * sheet programs neither write nor show it so.
 */
export class OdfLine {
  readonly #runs: Run[] = [];
  /** Whether what has been read ends with a space into which others fold; none stands at the beginning. */
  #endsWithSpace = true;

  constructor(readonly isInCell: boolean) {}

  /** Adds text as it stands in the file. */
  addText(text: string, font: string | undefined, marks: Marks): void {
    if (this.isInCell) {
      for (const [index, line] of text.split(/\r\n?|\n/).entries()) {
        if (index > 0) this.add({ type: "break" });
        this.add(runInFont(line, font, marks));
      }
      return;
    }
    const folded = /[\t\r\n]| {2}/.test(text) ? text.replace(/[ \t\r\n]+/g, " ") : text;
    const shown = this.#endsWithSpace && folded.startsWith(" ") ? folded.slice(1) : folded;
    this.add(runInFont(shown, font, marks));
  }

  /** Adds spaces that are counted, which do not fold. */
  addSpaces(count: number, marks: Marks): void {
    if (count === 0) return;
    this.add(textRun(" ".repeat(count), marks));
    this.#endsWithSpace = false;
  }

  add(run: Run): void {
    if (run.type === "text" && run.text === "") return;
    this.#runs.push(run);
    this.#endsWithSpace = run.type === "text" && run.text.endsWith(" ");
  }

  /** The runs as they were added. */
  get runs(): readonly Run[] {
    return this.#runs;
  }

  /** Ends the line: its runs, those that look alike together, without the space that folding left at the end. */
  end(): Run[] {
    const runs = this.#runs;
    const last = runs.at(-1);
    if (!this.isInCell && this.#endsWithSpace && last?.type === "text")
      runs[runs.length - 1] = { ...last, text: last.text.slice(0, -1) };
    return mergeRuns(runs);
  }
}
