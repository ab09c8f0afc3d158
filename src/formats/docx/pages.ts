import { childPlaces, xmlPlaces, type XmlPlace } from "../office/xml-text.js";

/** What a document refers to by numbers that stand for one place only: notes and comments. */
const REFERENCES = /<w:(?:footnoteReference|endnoteReference|commentReference)\b/;

/** Whether the text of a document can stand in one file several times. */
export function isRepeatable(text: string): boolean {
  return !REFERENCES.test(text);
}

/** Whether a part has a field of a kind, such as `PAGE` (17.16.5). */
export function showsField(text: string, field: string): boolean {
  return new RegExp(`(?:w:instr="|<w:instrText\\b[^>]*>)\\s*${field}\\b`).test(text);
}

/**
 * Texts of one document, filled differently, as one text: each is a section that begins on a page of its own (ECMA-376 part 1, 17.6).
 * @param texts the main part, so many times
 * @param areCounted whether the pages of each are counted from their beginning
 */
export function pagesOf(texts: readonly string[], areCounted: boolean): string {
  const [first] = texts as [string, ...string[]];
  const { head, tail } = around(first);
  const last = texts.length - 1;
  const bodies = texts.map((text, at) => {
    const one = around(text);
    const body = at === last ? one.inner + one.section : ended(one);
    return at === 0 ? body : onNewPage(apart(body, at + 1), areCounted);
  });
  return numbered(head + bodies.join("") + tail);
}

/** The body of a document without its last section, that, where its last paragraph begins, and what stands around both. */
interface Around {
  readonly head: string;
  readonly inner: string;
  /** From the beginning of the body; nothing where a table, or what holds paragraphs, stands last. */
  readonly lastAt?: number;
  readonly section: string;
  readonly tail: string;
}

function around(text: string): Around {
  const body = xmlPlaces(text).find(({ name, parent }) => name === "body" && parent?.name === "document")!;
  const end = sectionIn(text, body);
  const lastBlock = childPlaces(text, body).findLast(({ start }) => start !== end?.start);
  return {
    head: text.slice(0, body.inner),
    inner: text.slice(body.inner, end?.start ?? body.innerEnd),
    ...(lastBlock?.name === "p" && { lastAt: lastBlock.start - body.inner }),
    section: end ? text.slice(end.start, end.end) : "<w:sectPr/>",
    tail: text.slice(body.innerEnd),
  };
}

function sectionIn(text: string, body: XmlPlace): XmlPlace | undefined {
  const last = childPlaces(text, body).at(-1);
  return last?.name === "sectPr" ? last : undefined;
}

/** A body whose last paragraph ends its section; a table is followed by one that does. */
function ended({ inner, lastAt, section }: Around): string {
  const last = lastAt === undefined ? undefined : inner.slice(lastAt).trimEnd();
  if (last === undefined || last.includes("<w:sectPr")) return `${inner}<w:p><w:pPr>${section}</w:pPr></w:p>`;
  const paragraph = last.replace(/^(<w:p(?:\s[^>]*?)?)\/>$/, "$1></w:p>");
  const made = /^<w:p(?:\s[^>]*)?>\s*<w:pPr\s*\/>/.test(paragraph)
    ? paragraph.replace(/<w:pPr\s*\/>/, () => `<w:pPr>${section}</w:pPr>`)
    : /^<w:p(?:\s[^>]*)?>\s*<w:pPr>/.test(paragraph)
      ? paragraph.replace(/(?=(?:<w:pPrChange\b[\s\S]*?<\/w:pPrChange>)?<\/w:pPr>)/, () => section)
      : paragraph.replace(/^<w:p(?:\s[^>]*)?>/, (tag) => `${tag}<w:pPr>${section}</w:pPr>`);
  return inner.slice(0, lastAt) + made;
}

/** The first section in a text begins on a new page, and with the first number where they are counted (17.6.12). */
function onNewPage(text: string, areCounted: boolean): string {
  return text.replace(/<w:sectPr\b(?:[^>]*\/>|[\s\S]*?<\/w:sectPr>)/, (section) => {
    const made = section.replace(/<w:type\b[^>]*\/>/, "");
    return areCounted ? withFirstNumber(made) : made;
  });
}

/** What stands after the numbers of pages in a section (`CT_SectPr`, 17.6.17). */
const AFTER_NUMBERS =
  /<w:(?:cols|formProt|vAlign|noEndnote|titlePg|textDirection|bidi|rtlGutter|docGrid|printerSettings|sectPrChange)\b|<\/w:sectPr>/;

function withFirstNumber(section: string): string {
  if (/<w:pgNumType\b[^>]*\bw:start=/.test(section)) return section;
  if (/<w:pgNumType\b/.test(section)) return section.replace(/<w:pgNumType\b/, '<w:pgNumType w:start="1"');
  const open = section.replace(/^<w:sectPr\b([^>]*)\/>$/, "<w:sectPr$1></w:sectPr>");
  return open.replace(AFTER_NUMBERS, (next) => `<w:pgNumType w:start="1"/>${next}`);
}

/** A text that stands again in one file: with names of bookmarks of its own, and without ids that are for one place. */
function apart(text: string, number: number): string {
  const names = [...text.matchAll(/<w:bookmarkStart\b[^>]*\bw:name="([^"]*)"/g)].map(([, name]) => name!);
  const known = new Set(names);
  const renamed = (name: string) => (known.has(name) ? `${name.slice(0, 36)}_${number}` : name);
  return text
    .replace(
      /(<w:(?:bookmarkStart|hyperlink)\b[^>]*\bw:(?:name|anchor)=")([^"]*)"/g,
      (_, tag: string, name: string) => `${tag}${renamed(name)}"`,
    )
    .replace(/<w:instrText\b[^>]*>[^<]*<|\bw:instr="[^"]*"/g, (instruction) =>
      instruction.replace(/[\w.]+/g, renamed),
    )
    .replace(/(<w:sdtPr>(?:(?!<\/w:sdtPr>)[\s\S])*?)<w:id\b[^>]*\/>/g, "$1")
    .replace(/ w14:(?:paraId|textId)="[^"]*"/g, "");
}

/** The same, with a number of its own for each bookmark and each picture. */
function numbered(text: string): string {
  let bookmark = 0;
  let picture = 0;
  const open = new Map<string, number[]>();
  return text
    .replace(
      /(<w:bookmark(Start|End)\b[^>]*?\bw:id=")([^"]*)"/g,
      (_, tag: string, side: string, id: string) => {
        if (side === "Start") {
          open.set(id, [...(open.get(id) ?? []), bookmark]);
          return `${tag}${bookmark++}"`;
        }
        return `${tag}${open.get(id)?.shift() ?? bookmark++}"`;
      },
    )
    .replace(/(<wp:docPr\b[^>]*?\bid=")\d+"/g, (_, tag: string) => `${tag}${++picture}"`);
}

/**
 * Has the lists of each text but the first count from their beginnings again: as lists of their own (17.9.15).
 * @param numbering the part that describes lists
 * @returns that part, and the texts
 */
export function countedAnew(
  numbering: string,
  texts: readonly string[],
): { numbering: string; texts: string[] } {
  const lists = [...numbering.matchAll(/<w:num\b[^>]*\bw:numId="(\d+)"[^>]*>([\s\S]*?)<\/w:num>/g)];
  let last = Math.max(0, ...lists.map(([, id]) => Number(id)));
  let made = "";
  const renumbered = texts.map((text, at) => {
    if (at === 0) return text;
    const own = new Map<string, string>();
    return text.replace(/(<w:numId\b[^>]*\bw:val=")(\d+)"/g, (all, tag: string, id: string) => {
      const list = lists.find(([, known]) => known === id);
      if (!list) return all;
      if (!own.has(id)) {
        own.set(id, String(++last));
        made += `<w:num w:numId="${last}">${withStarts(list[2]!, numbering)}</w:num>`;
      }
      return `${tag}${own.get(id)}"`;
    });
  });
  const end = numbering.lastIndexOf("</w:num>") + "</w:num>".length;
  return {
    numbering: made === "" ? numbering : numbering.slice(0, end) + made + numbering.slice(end),
    texts: renumbered,
  };
}

/** What a list is made of, with a start for each of its levels. */
function withStarts(list: string, numbering: string): string {
  const form = /<w:abstractNumId\b[^>]*\bw:val="(\d+)"/.exec(list)?.[1];
  const described =
    new RegExp(`<w:abstractNum\\b[^>]*\\bw:abstractNumId="${form}"[^>]*>[\\s\\S]*?</w:abstractNum>`).exec(
      numbering,
    )?.[0] ?? "";
  const levels = [
    ...described.matchAll(/<w:lvl\b[^>]*\bw:ilvl="(\d)"[^>]*>(?:\s*<w:start\b[^>]*\bw:val="(\d+)")?/g),
  ];
  const starts = levels
    .filter(([, level]) => !new RegExp(`<w:lvlOverride\\b[^>]*\\bw:ilvl="${level}"`).test(list))
    .map(
      ([, level, start = "1"]) =>
        `<w:lvlOverride w:ilvl="${level}"><w:startOverride w:val="${start}"/></w:lvlOverride>`,
    );
  return list + starts.join("");
}
