import { makeCell, makeTable } from "../../content/make-table.js";
import { paragraph, type Content, type Flow, type Row } from "../../content/model.js";
import { notice, type Notice } from "../../content/notice.js";
import { formatNotices } from "../../messages/en/formats.js";
import type { ReadDocument } from "../format.js";
import { isEncryptedDoc } from "../heads.js";
import { locked } from "../office/zip.js";
import { readInThread } from "../thread/read-in-thread.js";

/**
 * Reads the words of a document of before 2007: its paragraphs, and its tables where their cells say so. Looks, lists, headings, links and
 * pictures stay behind, which is told.
 * @throws DrawerError `unreadable`, `locked`, `too-large`, `unknown-format` where the package that reads it is not installed
 */
export async function readDoc(bytes: Uint8Array, file: string): Promise<ReadDocument> {
  if (isEncryptedDoc(bytes)) throw locked(file);
  const { body, notes, boxes, comments, edges } = await readInThread("doc", bytes, file);
  const isSaid = (text: string) => text.trim() !== "";
  const after = [boxes, notes].filter(isSaid).flatMap((text) => flowsOf(text));
  const notices: Notice[] = [notice(formatNotices, "left-out/old-document", { file })];
  if (isSaid(notes)) notices.push(notice(formatNotices, "as-text/notes", { file }));
  if (isSaid(comments) || isSaid(edges))
    notices.push(
      notice(formatNotices, "left-out/edges", { file, comments: isSaid(comments), edges: isSaid(edges) }),
    );
  return { content: [...flowsOf(body), ...after], pictures: new Map(), notices };
}

/** Lines as paragraphs. A row of a table is a line that ends with a tab: each of its cells does. */
function flowsOf(text: string): Content {
  const flows: Flow[] = [];
  let rows: Row[] = [];
  const endTable = () => {
    if (rows.length > 0) flows.push(makeTable(evened(rows), 0));
    rows = [];
  };
  for (const line of text.replace(/\r\n?/g, "\n").replace(/\n+$/, "").split("\n")) {
    if (line.endsWith("\t")) {
      const cells = line.slice(0, -1).split("\t");
      rows.push(cells.map((cell) => makeCell(cell.trim() === "" ? [] : [paragraph(cell.trim())], {})));
      continue;
    }
    endTable();
    flows.push(paragraph(line.replace(/[\u0000-\u0008\u000e-\u001f]/g, "")));
  }
  endTable();
  return flows;
}

/** Rows that are as long as the longest. */
function evened(rows: readonly Row[]): Row[] {
  const width = Math.max(...rows.map((row) => row.length));
  return rows.map((row) => [...row, ...Array.from({ length: width - row.length }, () => makeCell([], {}))]);
}
