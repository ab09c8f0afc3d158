import { parse, postprocess, preprocess } from "micromark";
import { frontmatter } from "micromark-extension-frontmatter";
import { gfm } from "micromark-extension-gfm";

/** A block of Markdown that holds no others: a paragraph, a heading, code or a table. */
export interface MarkdownBlock {
  readonly kind: "p" | "t";
  /** Where it begins after the marks of what it stands in, and where it ends. */
  readonly from: number;
  readonly to: number;
}

const KINDS: Readonly<Record<string, MarkdownBlock["kind"]>> = {
  ...{ paragraph: "p", atxHeading: "p", setextHeading: "p", codeFenced: "p", codeIndented: "p", table: "t" },
};

/** The blocks of Markdown that hold no others, in their order (CommonMark, with the tables of GitHub); those of notes are left out. */
export function blocksOf(text: string): MarkdownBlock[] {
  const extensions = [gfm(), frontmatter(["yaml", "toml"])];
  const events = postprocess(
    parse({ extensions })
      .document()
      .write(preprocess()(text, undefined, true)),
  );
  const blocks: MarkdownBlock[] = [];
  let notes = 0;
  let inside = 0;
  for (const [side, { type, start, end }] of events) {
    const step = side === "enter" ? 1 : -1;
    if (type === "gfmFootnoteDefinition") notes += step;
    const kind = KINDS[type];
    if (!kind) continue;
    if (side === "enter" && inside === 0 && notes === 0 && text.slice(start.offset, end.offset).trim() !== "")
      blocks.push({ kind, from: start.offset, to: end.offset });
    inside += step;
  }
  return blocks;
}
