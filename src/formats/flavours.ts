import { toBase64 } from "../content/base64.js";
import type { Table } from "../content/model.js";
import type { Reading } from "../content/notice.js";
import { readPictureBytes } from "../content/picture.js";
import { isBlank, someFlow } from "../content/traverse.js";
import { sources } from "../messages/en/content.js";
import { readDelimited } from "./delimited/read.js";
import { readHtml, type HtmlReadOptions } from "./html/read.js";
import { NOTHING, readPicture } from "./picture/read.js";
import { readText } from "./text/read.js";
import { cellText } from "./text/write.js";

/** What one copy offers: the same thing in several forms, any of which may be missing. */
export interface Flavours {
  /** `text/html` */
  readonly html?: string;
  /** `text/plain` */
  readonly text?: string;
  /** `text/rtf`, in its own bytes. */
  readonly rtf?: Uint8Array;
  /** Tab-separated rows, where a sheet offers them apart. */
  readonly tsv?: string;
  /** A picture's bytes, of any type the model knows. */
  readonly picture?: Uint8Array;
  /** Whether the source declares that what it offers is a secret. */
  readonly secret?: boolean;
}

/**
 * Reads the best of several flavours: HTML before bare text, because it keeps structure and look; Rich Text Format where there is no HTML; a table's own rows
 * before a picture of them; a picture only when nothing else says anything. A blank cell stays blank, whatever pictures
 * of it are offered beside it. Where the HTML of a sheet has folded a cell's lines into one and the tab-separated
 * flavour has kept them, the cell is taken from there. Where the HTML is one picture by its address, and its bytes are offered beside
 * it, they are the picture's.
 *
 * @param flavours what a clipboard or a transfer offers
 * @param options how HTML is parsed, where that is not by the reader's own parser
 * @example
 * ```js
 * import { readFlavours, writeMarkdown } from "drawer";
 *
 * const copied = { html: "<p>First <b>wheatear</b></p>", text: "First wheatear" };
 * console.log(writeMarkdown((await readFlavours(copied)).content)); // First **wheatear**
 * ```
 */
export async function readFlavours<Node>(
  flavours: Flavours,
  options: HtmlReadOptions<Node> = {},
): Promise<Reading> {
  if (flavours.html !== undefined && flavours.html.trim() !== "") {
    const reading = await readHtml(withLonePicture(flavours.html, flavours.picture), options);
    if (!isBlank(reading.content)) return withLines(reading, flavours.tsv);
    if (someFlow(reading.content, (flow) => flow.type === "table")) return { ...reading, content: [] };
  }
  if (flavours.tsv !== undefined && /[\t\n]/.test(flavours.tsv.trimEnd())) {
    return readDelimited(flavours.tsv, { separator: "\t" });
  }
  if (flavours.rtf !== undefined && flavours.rtf.length > 0) {
    const { readRtf } = await import("./rtf/read.js");
    const { content, pictures, notices } = readRtf(flavours.rtf, sources.clipboard);
    if (!isBlank(content)) return { content, pictures, notices };
  }
  if (flavours.text !== undefined && flavours.text.trim() !== "") return readText(flavours.text);
  return flavours.picture ? readPicture(flavours.picture) : NOTHING;
}

/**
 * HTML that is nothing but one picture, as browsers offer an image that is copied, with the bytes that are offered beside it: by its
 * address alone it would be a picture that could not be had. Other HTML stays as it is: a picture beside it shows all of it.
 */
function withLonePicture(html: string, picture: Uint8Array | undefined): string {
  const facts = picture && readPictureBytes(picture);
  if (!facts || !isLonePicture(html)) return html;
  const data = `data:${facts.mediaType};base64,${toBase64(picture)}`;
  const alone = html.replace(/&nbsp;|\u00A0/gi, " ");
  return alone.replace(
    /(<img\b[^>]*?\ssrc\s*=\s*)(?:"[^"]*"|'[^']*'|[^\s>]+)/i,
    (_, before: string) => `${before}"${data}"`,
  );
}

function isLonePicture(html: string): boolean {
  if ((html.match(/<img\b/gi)?.length ?? 0) !== 1 || html.length > MOST_OF_LONE) return false;
  const words = html.replace(
    /<!--[^]*?-->|<(style|title|script)\b[^]*?<\/\1\s*>|<[^>]*>|&nbsp;|\u00A0/gi,
    "",
  );
  return words.trim() === "";
}

/** HTML of one picture has no more characters, unless the picture's bytes stand in it. */
const MOST_OF_LONE = 20_000;

/** Puts back the line ends of cells that only the tab-separated flavour has kept. */
async function withLines(reading: Reading, tsv: string | undefined): Promise<Reading> {
  const [table, ...rest] = reading.content;
  if (tsv === undefined || !tsv.includes('"') || table?.type !== "table" || rest.length > 0) return reading;
  const other = (await readDelimited(tsv, { separator: "\t", header: false })).content[0] as
    Table | undefined;
  if (!other || other.rows.length !== table.rows.length) return reading;
  const rows = table.rows.map((row, index) => {
    const lines = other.rows[index]!;
    if (row.length !== lines.length) return row;
    return row.map((cell, column) => {
      const shown = cellText(cell.flows);
      const kept = lines[column]!;
      const folded = cellText(kept.flows);
      const same =
        folded.includes("\n") && !shown.includes("\n") && collapseSpaces(folded) === collapseSpaces(shown);
      return same ? { ...cell, flows: kept.flows } : cell;
    });
  });
  return { ...reading, content: [{ ...table, rows }] };
}

const collapseSpaces = (text: string) => text.replace(/\s+/g, " ").trim();
