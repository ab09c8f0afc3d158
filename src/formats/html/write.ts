import { safeLink } from "../../content/address.js";
import { toBase64 } from "../../content/base64.js";
import { directionOf } from "../../content/direction.js";
import { withFigures } from "../../content/figures.js";
import type {
  Cell,
  Content,
  Flow,
  Heading,
  Item,
  List,
  Marker,
  Marks,
  Paragraph,
  Picture,
  Run,
  Table,
  TextRun,
} from "../../content/model.js";
import { NoteNumbers } from "../../content/notes.js";
import { CSS_NUMBER_FORMS, type NumberForm } from "../../content/number-forms.js";
import { isDrawn } from "../../content/picture.js";
import { content as words } from "../../messages/en/content.js";
import { looksTyped, markedCode, markedLine } from "../delimited/formula.js";
import { cellText } from "../text/write.js";
import { escapeHtml } from "./escape.js";
import { writtenNumber } from "./sheet-numbers.js";

/** How HTML is to be written. */
export interface HtmlOptions {
  /** Returns the bytes of a picture. Without it, or where it has none, the alternative text stands for the picture. */
  readonly picture?: (hash: string) => Uint8Array | undefined;
  /** @internal Whether what is written stands in a cell, which says itself that it is text. */
  readonly inCell?: boolean;
  /** @internal Whether the line of a cell is a block, which a word processor that flattens a table keeps apart from the next. */
  readonly cellBlocks?: boolean;
}

/**
 * Writes content as an HTML fragment for pasting and for pages: elements for structure, inline styles for look, no
 * classes, no scripts, no style sheets. Typed cells carry their value and format in the attributes that spreadsheets
 * read; a text that looks like a figure carries the text format, so that a sheet leaves it text.
 * @param content what is written
 * @param options where the bytes of pictures come from
 */
export function writeHtml(content: Content, options: HtmlOptions = {}): string {
  const notes = new NoteNumbers();
  const html = flowsHtml(content, { ...options, notes });
  let items = "";
  for (const flows of notes.bodies()) items += itemHtml({ flows }, { ...options, notes });
  return items === "" ? html : `${html}<ol>${items}</ol>`;
}

/** How a part of content is to be written: notes are numbered from its beginning on. */
interface PartOptions extends HtmlOptions {
  readonly notes: NoteNumbers;
}

/** How many flows are written before their text is put into one string. */
const CHUNK = 64;

/**
 * Flows one after another. A text that grows by `+` is a tree of its pieces until it is read, which thousands of flows
 * would make deep, and dear to keep: so it is put together a chunk at a time.
 */
function flowsHtml(content: Content, options: PartOptions): string {
  if (content.length === 1) return flowHtml(content[0]!, options);
  const chunks: string[] = [];
  for (let from = 0; from < content.length; from += CHUNK)
    chunks.push(
      content
        .slice(from, from + CHUNK)
        .map((flow) => flowHtml(flow, options))
        .join(""),
    );
  return chunks.join("");
}

function flowHtml(flow: Flow, options: PartOptions): string {
  switch (flow.type) {
    case "paragraph":
      return `<p${layout(flow)}>${runsHtml(flow.runs, options) || "<br>"}</p>`;
    case "heading":
      return `<h${flow.level}${layout(flow)}>${runsHtml(flow.runs, options)}</h${flow.level}>`;
    case "list":
      return listHtml(flow, options);
    case "table":
      return tableHtml(flow, options);
    case "quote":
      return `<blockquote>${flowsHtml(flow.flows, options)}</blockquote>`;
    case "code":
      return `<pre><code${flow.language ? ` class="language-${escapeHtml(flow.language)}"` : ""}>${
        flow.text.startsWith("\n") ? "\n" : ""
      }${escapeHtml(options.inCell ? flow.text : markedCode(flow.text))}</code></pre>`;
    case "picture":
      return `<p>${pictureHtml(flow, options)}</p>`;
    case "divider":
      return "<hr>";
  }
}

function layout(flow: Paragraph | Heading): string {
  return (
    (flow.direction ? ` dir="${flow.direction}"` : ownDirection(flow)) +
    (flow.align ? ` style="text-align: ${flow.align}"` : "")
  );
}

/** Lets a line from right to left that does not say so find its own direction, whatever stands around it (HTML, 3.2.6.4). */
function ownDirection(line: Paragraph | Heading): string {
  return directionOf(line) === "rtl" ? ' dir="auto"' : "";
}

function listHtml(list: List, options: PartOptions): string {
  const tag = list.ordered ? "ol" : "ul";
  const start = list.ordered && (list.start ?? 1) !== 1 ? ` start="${list.start}"` : "";
  const type = markerStyle(list);
  const style = type === undefined ? "" : ` style="list-style-type: ${type}"`;
  return `<${tag}${start}${style}>${list.items.map((item) => itemHtml(item, options)).join("")}</${tag}>`;
}

/** What CSS calls the way in which items are marked (Counter Styles Level 3; Lists and Counters Level 3, 3.5). */
function markerStyle({ ordered, marker }: List): string | undefined {
  if (ordered) return marker?.numbers && cssNumbers(marker.numbers);
  if (marker?.bullet === undefined) return undefined;
  return BULLET_STYLES[marker.bullet] ?? `'${cssString(marker.bullet)} '`;
}

/** Whether HTML has a way to say how a list is numbered; what stands around its numbers it cannot say. */
export function saysNumbers({ numbers, before = "", after = "." }: Marker): boolean {
  return before === "" && after === "." && (numbers === undefined || cssNumbers(numbers) !== undefined);
}

/** What CSS calls a way to write numbers; the letters that it has are not repeated. */
function cssNumbers(form: NumberForm): string | undefined {
  const plain = form.replace(/-repeated$/, "") as NumberForm;
  return CSS_NUMBER_FORMS.has(plain) ? plain : undefined;
}

const BULLET_STYLES: Readonly<Record<string, string>> = { "•": "disc", "◦": "circle", "▪": "square" };

/** An item's first line stands in the item itself, as most editors write it; what follows keeps its own elements. */
function itemHtml(item: Item, options: PartOptions): string {
  const [first, ...rest] = item.flows;
  const bare = first?.type === "paragraph" && !first.align && !first.direction && first.runs.length > 0;
  return `<li${bare ? ownDirection(first) : ""}>${bare ? runsHtml(first.runs, options) + flowsHtml(rest, options) : flowsHtml(item.flows, options)}</li>`;
}

function tableHtml(given: Table, options: PartOptions): string {
  const table = withFigures(given);
  const inCell = { ...options, inCell: true };
  const row = (cells: readonly Cell[], tag: "th" | "td") =>
    `<tr>${cells.map((cell) => cellHtml(cell, tag, inCell)).join("")}</tr>`;
  const head = table.rows.slice(0, table.headerRows);
  const body = table.rows.slice(table.headerRows);
  return (
    "<table>" +
    (table.caption ? `<caption>${runsHtml(table.caption, options)}</caption>` : "") +
    (head.length > 0 ? `<thead>${head.map((cells) => row(cells, "th")).join("")}</thead>` : "") +
    (body.length > 0 ? `<tbody>${body.map((cells) => row(cells, "td")).join("")}</tbody>` : "") +
    "</table>"
  );
}

function cellHtml(cell: Cell, tag: "th" | "td", options: PartOptions): string {
  const only = cell.flows.length === 1 ? cell.flows[0] : undefined;
  const bare =
    only?.type === "paragraph" && !only.align && !only.direction && only.runs.length > 0 ? only : undefined;
  const line = bare && runsHtml(bare.runs, options);
  const inner = line && options.cellBlocks ? `<div>${line}</div>` : (line ?? flowsHtml(cell.flows, options));
  const style: string[] = [];
  if (cell.align) style.push(`text-align: ${cell.align}`);
  if (cell.background) style.push(`background: ${cell.background}`);
  const typed = typedAttributes(cell);
  if (typed.style) style.push(typed.style);
  return (
    `<${tag}` +
    (bare ? ownDirection(bare) : "") +
    (cell.colspan && cell.colspan > 1 ? ` colspan="${cell.colspan}"` : "") +
    (cell.rowspan && cell.rowspan > 1 ? ` rowspan="${cell.rowspan}"` : "") +
    typed.attributes +
    (style.length > 0 ? ` style="${style.join("; ")}"` : "") +
    `>${inner}</${tag}>`
  );
}

/** The attributes that carry a typed value: those that LibreOffice takes, and the number format property that other sheets read. */
function typedAttributes(cell: Cell): { attributes: string; style: string } {
  const { value } = cell;
  if (value) {
    const { sdval, sdnum } = writtenNumber(value);
    return {
      attributes: ` sdval="${sdval}" sdnum="${escapeHtml(sdnum)}"`,
      style:
        value.type !== "boolean" && value.format ? `mso-number-format: '${cssString(value.format)}'` : "",
    };
  }
  return looksTyped(cellText(cell.flows))
    ? { attributes: ` sdnum="1033;0;@"`, style: `mso-number-format: '\\@'` }
    : { attributes: "", style: "" };
}

function cssString(format: string): string {
  return escapeHtml(format.replace(/[\\'@]/g, (sign) => "\\" + sign).replace(/[\n\r\f]/g, " "));
}

function runsHtml(line: readonly Run[], options: PartOptions): string {
  const runs = options.inCell ? line : markedLines(line);
  let html = "";
  let before = " ";
  for (let index = 0; index < runs.length; index++) {
    const run = runs[index]!;
    if (run.type === "text") {
      const after = runs[index + 1];
      html += textHtml(run, before, after === undefined || after.type === "break");
      before = run.text.at(-1) ?? before;
    } else if (run.type === "picture") {
      html += pictureHtml(run, options);
      before = "";
    } else if (run.type === "break") {
      // A break at the very end of a line shows only when another follows it.
      html += index === runs.length - 1 ? "<br><br>" : "<br>";
      before = " ";
    } else {
      html += `<sup>[${options.notes.numberOf(run)}]</sup>`;
      before = "]";
    }
  }
  return html;
}

/** Runs whose lines a sheet takes as text, each of which would be a cell of its own there. */
function markedLines(runs: readonly Run[]): readonly Run[] {
  if (!beginsBySign(runs)) return runs;
  const lines: Run[][] = [[]];
  for (const run of runs) {
    lines.at(-1)!.push(run);
    if (run.type === "break") lines.push([]);
  }
  return lines.flatMap(markedLine);
}

/** Whether a line may begin with a sign by which formulas begin; most do not, which is quickly seen. */
function beginsBySign(runs: readonly Run[]): boolean {
  let isBeginning = true;
  for (const run of runs) {
    if (run.type === "text") {
      if ((isBeginning || run.text.includes("\n")) && /^\s*[=@+-]/m.test(run.text)) return true;
      isBeginning &&= run.text.trim() === "";
    } else if (run.type !== "note") isBeginning = run.type === "break";
  }
  return false;
}

/** What HTML has a sign of its own for, or would fold; most text has none of it, which is quickly seen. */
const UNPLAIN = /[&<>"'\t\n]| {2}/;

function textHtml(run: TextRun, before: string, lineEnds: boolean): string {
  const isPlain = !UNPLAIN.test(run.text);
  const text = isPlain ? run.text : escapeHtml(run.text);
  const isFolded = (!isPlain && / {2}|[\t\n]/.test(run.text)) || isFoldedAtEdge(run.text, before, lineEnds);
  const kept = isFolded ? `<span style="white-space: pre-wrap">${text}</span>` : text;
  return run.marks ? marked(kept, run.marks) : kept;
}

/** Whether HTML would fold a space at the beginning or the end of this text away. */
function isFoldedAtEdge(text: string, before: string, lineEnds: boolean): boolean {
  return (before === " " && text.startsWith(" ")) || (lineEnds && text.endsWith(" "));
}

function marked(text: string, marks: Marks): string {
  let html = text;
  const style: string[] = [];
  if (marks.color) style.push(`color: ${marks.color}`);
  if (marks.background) style.push(`background-color: ${marks.background}`);
  if (marks.font) style.push(`font-family: ${fontHtml(marks.font)}`);
  if (marks.size) style.push(`font-size: ${marks.size}pt`);
  if (marks.code) html = `<code>${html}</code>`;
  if (marks.sub) html = `<sub>${html}</sub>`;
  if (marks.sup) html = `<sup>${html}</sup>`;
  if (marks.strike) html = `<s>${html}</s>`;
  if (marks.underline) html = `<u>${html}</u>`;
  if (marks.italic) html = `<em>${html}</em>`;
  if (marks.bold) html = `<strong>${html}</strong>`;
  if (style.length > 0) html = `<span style="${style.join("; ")}">${html}</span>`;
  const address = marks.link && safeLink(marks.link);
  if (address) html = `<a href="${escapeHtml(address)}">${html}</a>`;
  return html;
}

function fontHtml(font: string): string {
  return /^[\w-]+$/.test(font) ? font : `'${escapeHtml(font.replace(/[\\'"]/g, ""))}'`;
}

function pictureHtml(picture: Picture, options: PartOptions): string {
  const shown = bytesHtml(picture, options);
  const address = picture.link && safeLink(picture.link);
  return address ? `<a href="${escapeHtml(address)}">${shown}</a>` : shown;
}

function bytesHtml(picture: Picture, options: PartOptions): string {
  const bytes = options.picture?.(picture.hash);
  if (!bytes || !isDrawn(picture.mediaType)) return `<em>${escapeHtml(picture.alt || words.picture)}</em>`;
  const size =
    (picture.width ? ` width="${picture.width}"` : "") +
    (picture.height ? ` height="${picture.height}"` : "");
  return `<img src="data:${picture.mediaType};base64,${toBase64(bytes)}" alt="${escapeHtml(picture.alt)}"${size}>`;
}
