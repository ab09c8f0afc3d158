import { DrawerError } from "../../content/error.js";
import { LIMITS } from "../../content/limits.js";
import type { Content, Run } from "../../content/model.js";
import { eachFlow } from "../../content/traverse.js";
import { formatErrors } from "../../messages/en/formats.js";

/** What each line counts beside its characters, and each part of it that looks different, so that many that are blank come to an end too. */
const LINE = 8;

/**
 * How much text is made of a file. A small file may stand for much of it, by what it names again and again: shared strings, notes,
 * numbers of lists, spaces that are counted, cells that are repeated.
 */
export class TextBudget {
  #spent = 0;

  constructor(readonly file: string) {}

  /**
   * Counts characters that are made.
   * @throws DrawerError `too-large` when there are more than {@link LIMITS} allows
   */
  spend(characters: number): void {
    this.#spent += characters;
    if (this.#spent > LIMITS.characters)
      throw new DrawerError(formatErrors, "too-large/document", {
        file: this.file,
        what: "characters",
        most: LIMITS.characters,
      });
  }

  /** Counts a line. */
  spendLine(runs: readonly Run[]): void {
    let characters = LINE * Math.max(1, runs.length);
    for (const run of runs) if (run.type === "text") characters += run.text.length;
    this.spend(characters);
  }

  /** Counts the text of what was read by others. */
  spendContent(content: Content): void {
    eachFlow(content, (flow) => {
      if (flow.type === "paragraph" || flow.type === "heading") this.spendLine(flow.runs);
    });
  }

  /** Counts the text of tables. */
  spendTables(content: Content): void {
    for (const flow of content)
      if (flow.type === "table")
        for (const row of flow.rows)
          for (const { flows } of row)
            for (const line of flows) {
              if (line.type === "paragraph" || line.type === "heading") this.spendLine(line.runs);
              else this.spendTables([line]);
            }
  }
}
