import { safeLink } from "../../content/address.js";
import { type Marks, type Picture, type Run, type TextRun, textRun } from "../../content/model.js";
import { mergeRuns } from "../../content/runs.js";
import { content as words } from "../../messages/en/content.js";
import type { LineOptions } from "./options.js";

/** Where a line of Markdown stands: what a line break is there, and what must be escaped. */
export type LinePlace = "lines" | "heading" | "cell";

const BREAKS: Readonly<Record<LinePlace, string>> = { lines: "\\\n", heading: "<br>", cell: "<br>" };

/** Writes runs as one line of Markdown (several, where it has breaks and may have them). */
export function spansMarkdown(runs: readonly Run[], place: LinePlace, options: LineOptions): string {
  const spans = runs.length === 1 && isPlainLine(runs[0]!) ? runs.slice() : spansOf(runs);
  while (spans.at(-1)?.type === "break") spans.pop();
  const writer = new LineWriter(place, options, spans.length === 1);
  writer.group(spans, 0);
  const text = /[ \t]$/m.test(writer.text) ? writer.text.replace(/[ \t]+$/gm, "") : writer.text;
  if (place === "cell") return text.trim().replaceAll("|", "\\|");
  if (place === "heading") return text.trim().replace(/(^|\s)(#+)$/, "$1\\$2");
  if (!text.includes("\n")) return lineMarkdown(text);
  return text.split("\n").map(lineMarkdown).join("\n");
}

function lineMarkdown(line: string): string {
  return escapeLineStart(line.replace(/^[ \t]+/, ""));
}

/** Whether a run is all that there is to say of it. */
function isPlainLine(run: Run): boolean {
  return run.type === "text" && run.marks === undefined && run.text !== "" && !/[\r\n]/.test(run.text);
}

/** Runs with the marks that Markdown has, parted where lines end, and with the spaces at the edges of marks outside them. */
function spansOf(runs: readonly Run[]): Run[] {
  const plain = mergeRuns(runs.flatMap((run): Run[] => (run.type === "text" ? linesOf(run) : [run])));
  return plain.flatMap((run): Run[] => (run.type === "text" ? loosenSpaces(run) : [run]));
}

/** A run with the marks that Markdown has, parted where a line ends in it. */
function linesOf({ text, marks }: TextRun): Run[] {
  const seen = marks && seenOf(marks);
  if (!/[\r\n]/.test(text)) return text === "" ? [] : [textRun(text, seen)];
  return text
    .split(/\r\n|\r|\n/)
    .flatMap((line, index): Run[] => [
      ...(index > 0 ? [{ type: "break" } as const] : []),
      ...(line === "" ? [] : [textRun(line, seen)]),
    ]);
}

/** The marks that Markdown has. */
function seenOf(marks: Marks): Marks {
  for (const name in marks)
    if (!SEEN.has(name)) return Object.fromEntries(Object.entries(marks).filter(([each]) => SEEN.has(each)));
  return marks;
}

const SEEN = new Set<string>(["bold", "italic", "strike", "underline", "sub", "sup", "code", "link"]);

/** Marks, from the outermost in, with what opens and closes them in Markdown and, where that would be misread, in HTML. */
const SPANS: readonly { mark: keyof Marks; sign?: string; element: string }[] = [
  { mark: "bold", sign: "**", element: "strong" },
  { mark: "italic", sign: "*", element: "em" },
  { mark: "strike", sign: "~~", element: "del" },
  { mark: "underline", element: "u" },
  { mark: "sub", element: "sub" },
  { mark: "sup", element: "sup" },
];

function isUnmarked(run: Run): boolean {
  return run.type === "break" || (run.type === "text" && run.marks === undefined);
}

class LineWriter {
  text = "";
  /** Whether what is written is the text of a link, in which an address must not become another. */
  #isInLink = false;

  constructor(
    readonly place: LinePlace,
    readonly options: LineOptions,
    /** Whether a picture has no words beside it. */
    readonly isAlone: boolean,
  ) {}

  /** Writes runs whose outer marks stand open already: first links, then each kind of span, then the text. */
  group(runs: readonly Run[], level: number, after = ""): void {
    // Most lines have no marks at all.
    if (level > SPANS.length || runs.every(isUnmarked)) {
      runs.forEach((run, at) =>
        this.#leaf(run, at + 1 < runs.length ? firstSign(runs[at + 1]!, level) : after),
      );
      return;
    }
    for (let from = 0; from < runs.length;) {
      const mark = markAt(runs[from]!, level);
      let to = from + 1;
      while (to < runs.length && markAt(runs[to]!, level) === mark) to++;
      const group = runs.slice(from, to);
      const next = to < runs.length ? firstSign(runs[to]!, level) : after;
      if (mark === undefined) this.group(group, level + 1, next);
      else if (level === 0) this.#link(group, mark as string);
      else this.#span(group, level, next);
      from = to;
    }
  }

  #link(runs: readonly Run[], link: string): void {
    const only = runs.length === 1 ? (runs[0] as TextRun) : undefined;
    if (only?.text === link && Object.keys(only.marks!).length === 1 && /^https?:[^\s<>]+$/.test(link)) {
      this.text += `<${link}>`;
      return;
    }
    this.text += "[";
    this.#isInLink = true;
    this.group(runs, 1, "]");
    this.#isInLink = false;
    this.text += `](${/[()]/.test(link) ? `<${link}>` : link})`;
  }

  /** A span is written with signs where CommonMark's flanking rules (section 6.2) read them so, otherwise as HTML. */
  #span(runs: readonly Run[], level: number, after: string): void {
    const { sign, element } = SPANS[level - 1]!;
    const before = this.text.at(-1) ?? "";
    const opens = flanks(firstSign(runs[0]!, level), before);
    const closes = flanks(lastSign(runs.at(-1)!, level), after);
    const touches = /[*~]/.test(before) || /[*~]/.test(after);
    const hasBreak = runs.some((run) => run.type === "break");
    if (sign && opens && closes && !touches && !hasBreak) {
      this.text += sign;
      this.group(runs, level + 1, sign[0]);
      this.text += sign;
      return;
    }
    this.text += `<${element}>`;
    this.group(runs, level + 1, "<");
    this.text += `</${element}>`;
  }

  /** A picture whose bytes have no address is its description, apart from the words around it. */
  #picture({ hash, alt, link: given }: Picture): void {
    const address = this.options.pictureAddress?.(hash);
    const text = this.isAlone ? alt || words.picture : `[${alt || words.picture}]`;
    const shown = address === undefined ? escapeText(text) : `![${escapeText(alt)}](<${address}>)`;
    const link = given && safeLink(given);
    this.text += link === undefined ? shown : `[${shown}](<${link}>)`;
  }

  #leaf(run: Run, next: string): void {
    if (run.type === "break") this.text += BREAKS[this.place];
    else if (run.type === "note") this.text += `[^${this.options.notes.numberOf(run)}]`;
    else if (run.type === "picture") this.#picture(run);
    else if (run.marks?.code && run.text.trim() !== "") this.text += codeSpan(run.text);
    else {
      const text = this.#isInLink ? escapeInLink(run.text) : escapeAround(run.text, /^\s?$/.test(next));
      // Before a link it would make a picture of it.
      this.text += next === "[" ? text.replace(/!$/, "\\!") : text;
    }
  }
}

/** Escapes the text of a link, in which no address and no brackets may be read; not every program heeds backslashes there. */
function escapeInLink(text: string): string {
  return escapeText(text)
    .replace(ADDRESS_START, "$1\\$2")
    .replace(/\\([[\]])/g, (_, bracket: string) => (bracket === "[" ? "&#91;" : "&#93;"));
}

/** Where a bare address begins to be read as a link (GitHub Flavored Markdown, 6.9). */
const ADDRESS_START = /(?<![A-Za-z])(https?|www)([:.])/gi;

/** Bare addresses, without the signs at their end that belong to the sentence around them. */
const ADDRESS = /(?<![A-Za-z])https?:\/\/[^\s<>]*[^\s<>.,;:!?'"()[\]{}*_~`\\|]|(?<![\w.])www\.[^\s<>]+/gi;

/**
 * Escapes text, but for the addresses in it: what Markdown would escape in them would break them.
 *
 * @param endsApart whether the text is followed by the line's end or a space, at which an address ends
 */
function escapeAround(text: string, endsApart: boolean): string {
  let escaped = "";
  let at = 0;
  for (const { 0: address, index } of text.matchAll(ADDRESS)) {
    // What stands beside the address is escaped as at the edge of a run.
    escaped += escapeText(text.slice(at, index));
    at = index + address.length;
    // An address goes on to the next space, signs that are escaped included.
    const word = address + /^[^\s<]*/.exec(text.slice(at))![0];
    const next = text[index + word.length];
    const isPlain = escapeText(word) === word && (next === undefined ? endsApart : next !== "<");
    if (isPlain) escaped += address;
    else if (/^www/i.test(address)) escaped += escapeText(address).replace(ADDRESS_START, "$1\\$2");
    else escaped += `<${address}>`;
  }
  return escaped + escapeText(text.slice(at));
}

/** The value of a level's mark on a run: the address at level 0, true at the others; nothing where it is off. */
function markAt(run: Run, level: number): string | true | undefined {
  if (run.type !== "text") return undefined;
  if (level === 0) return run.marks?.link && safeLink(run.marks.link);
  return run.marks?.[SPANS[level - 1]!.mark] as true | undefined;
}

/** The first character that a run writes inside the given level; a sign for what opens there. */
function firstSign(run: Run, level: number): string {
  if (run.type === "break") return "\n";
  if (run.type === "picture") return run.link === undefined ? "!" : "[";
  if (run.type === "note") return "[";
  // An address may be written in angle brackets.
  return opensMore(run, level) ?? (/^https?:\/\//i.test(run.text) ? "<" : (run.text.at(0) ?? ""));
}

function lastSign(run: Run, level: number): string {
  if (run.type === "break") return "\n";
  if (run.type === "picture") return ")";
  if (run.type === "note") return "]";
  return opensMore(run, level) ?? (/https?:\/\/[^\s<>]*$/i.test(run.text) ? ">" : (run.text.at(-1) ?? ""));
}

function opensMore(run: TextRun, level: number): string | undefined {
  if (!run.marks) return undefined;
  if (level === 0 && run.marks.link) return "[";
  for (let i = level; i < SPANS.length; i++) if (run.marks[SPANS[i]!.mark]) return SPANS[i]!.sign?.[0] ?? "<";
  return run.marks.code ? "`" : undefined;
}

/** Whether a delimiter between `inside` and `outside` opens or closes emphasis on its inner side. */
function flanks(inside: string, outside: string): boolean {
  if (inside === "" || /^\s/u.test(inside)) return false;
  if (!/^[\p{P}\p{S}]/u.test(inside)) return true;
  return outside === "" || /^[\s\p{P}\p{S}]/u.test(outside);
}

/** Spaces at the edges of a marked run stand outside its marks, where Markdown wants them. */
function loosenSpaces(run: TextRun): TextRun[] {
  if (!run.marks || run.marks.code) return [run];
  const match = /^(\s*)([\s\S]*?)(\s*)$/u.exec(run.text)!;
  if (match[1] === "" && match[3] === "") return [run];
  const loose = (text: string): TextRun[] =>
    text === ""
      ? []
      : [run.marks!.link ? { type: "text", text, marks: { link: run.marks!.link } } : { type: "text", text }];
  const core: TextRun[] = match[2] === "" ? [] : [{ ...run, text: match[2]! }];
  return core.length === 0 ? loose(run.text) : [...loose(match[1]!), ...core, ...loose(match[3]!)];
}

function codeSpan(text: string): string {
  const longest = text.match(/`+/g)?.reduce((most, ticks) => Math.max(most, ticks.length), 0) ?? 0;
  const fence = "`".repeat(longest + 1);
  const pad = /^`|`$|^ .* $/.test(text) ? " " : "";
  return fence + pad + text + pad + fence;
}

/** Escapes what Markdown would read as its own in the middle of a line. */
function escapeText(text: string): string {
  if (!/[\\`*_[\]<&~]/.test(text)) return text;
  return text.replace(
    /[\\`*[\]~]|(?<![A-Za-z0-9])_|_(?![A-Za-z0-9])|<(?=[A-Za-z/!?]|$)|&(?=#?\w{1,31};|#?\w{0,31}$)/g,
    // A backslash may be taken for a part of an address before it, and what it stands before be live then.
    (sign) => (sign === "<" ? "&lt;" : "\\" + sign),
  );
}

/** Escapes what Markdown would read as its own at the start of a line. */
function escapeLineStart(line: string): string {
  if (/^\[\^\d+\]:/.test(line)) return line.replace("]:", "]\\:");
  if (!/^[#+\-=>:|\d]/.test(line)) return line;
  if (/^(?:#{1,6}(?:\s|$)|[-+](?:\s|$)|=+\s*$|>|[-:|][-:|\s]*$)/.test(line)) return "\\" + line;
  return line.replace(/^(\d{1,9})([.)])(?=\s|$)/, "$1\\$2");
}
