import { highest } from "./graft.js";

/** Makes what names a change, each time with an id that no other has. */
export type Author = () => string;

/** Who marks changes in a document at a time. */
export function authorOf(text: string, at: Date): Author {
  let id = highest(text, /<w:(?:ins|del|moveFrom|moveTo|\w+Change)\b[^>]*?\bw:id="(\d+)"/g);
  const date = at.toISOString().replace(/\.\d+Z$/, "Z");
  return () => `w:id="${++id}" w:author="Drawer" w:date="${date}"`;
}

/** Blocks as ones that somebody put in, to be accepted or not (ECMA-376 part 1, 17.13.5). */
export function asInserted(xml: string, author: Author): string {
  return withMarks(xml, "ins", author).replace(RUNS, (run) => `<w:ins ${author()}>${run}</w:ins>`);
}

/** Blocks as ones that somebody took out. What is marked as taken out already stays as it is. */
export function asDeleted(xml: string, author: Author): string {
  const gone = [...xml.matchAll(/<w:del(?:\s[^>]*)?(?<!\/)>[\s\S]*?<\/w:del>/g)];
  const isGone = (at: number) => gone.some(({ index, 0: all }) => index < at && at < index + all.length);
  const withoutRuns = xml.replace(RUNS, (run, at: number) => {
    if (isGone(at)) return run;
    const text = run.replace(/<(\/?)w:(t|instrText)(?=[\s>/])/g, (_, slash: string, name: string) =>
      name === "t" ? `<${slash}w:delText` : `<${slash}w:delInstrText`,
    );
    return `<w:del ${author()}>${text}</w:del>`;
  });
  return withMarks(withoutRuns, "del", author);
}

/** Runs of text. None stands in another, but in boxes of text. */
const RUNS = /<w:r(?:\s[^>]*)?>(?:(?!<w:r[\s>]|<\/w:r>)[\s\S])*<\/w:r>/g;

/** The ends of paragraphs and the rows of tables as changed ones. */
function withMarks(xml: string, kind: "ins" | "del", author: Author): string {
  const mark = () => `<w:${kind} ${author()}/>`;
  return xml
    .replace(/<w:p(\s[^>]*?)?\/>/g, "<w:p$1></w:p>")
    .replace(
      /(<w:p(?:\s[^>]*)?>)\s*(<w:pPr>[\s\S]*?<\/w:pPr>|<w:pPr\/>)?/g,
      (_, start: string, props?: string) => {
        const inner = /^<w:pPr>([\s\S]*)<\/w:pPr>$/.exec(props ?? "")?.[1] ?? "";
        const rest = /(?:<w:sectPr\b[\s\S]*<\/w:sectPr>)?(?:<w:pPrChange\b[\s\S]*<\/w:pPrChange>)?$/.exec(
          inner,
        )![0];
        const own = inner.slice(0, inner.length - rest.length);
        const marked = /<w:rPr>(?=(?:(?!<w:rPr>)[\s\S])*<\/w:rPr>$)/.test(own)
          ? own.replace(/<w:rPr>(?=(?:(?!<w:rPr>)[\s\S])*<\/w:rPr>$)/, `<w:rPr>${mark()}`)
          : `${own}<w:rPr>${mark()}</w:rPr>`;
        return `${start}<w:pPr>${marked}${rest}</w:pPr>`;
      },
    )
    .replace(
      /(<w:tr(?:\s[^>]*)?>(?:<w:tblPrEx>[\s\S]*?<\/w:tblPrEx>)?)(?:<w:trPr>([\s\S]*?)<\/w:trPr>)?/g,
      (_, start: string, props = "") => `${start}<w:trPr>${props}${mark()}</w:trPr>`,
    );
}
