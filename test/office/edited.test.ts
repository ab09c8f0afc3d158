import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { extname, join } from "node:path";
import { some } from "../support/counts";
import { demoFile } from "../support/demo";
import { convert, corpusTest, sayMissing } from "../support/libreoffice";
import { makeCorpus } from "./corpus";
import { bare, editedDocuments } from "./edited-documents";
import { compose, readHtml, readText } from "drawer";
import { putInto, readSource, takeOut } from "drawer/files";

sayMissing();
const folder = mkdtempSync(join(tmpdir(), "drawer-edited-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const ALL = [
  "python-docx.docx",
  "pandoc.docx",
  "libreoffice.docx",
  "by-hand.docx",
  "list-numbers.docx",
  "diary.docx",
  "pandoc.odt",
  "libreoffice.odt",
  "odfpy.odt",
  "diary.odt",
];
/** Of each program and format some; the diary has the most kinds of parts. */
const FILES = some(ALL, (name) =>
  /^(?:pandoc|by-hand|list-numbers)\.docx$|^(?:diary|odfpy)\.odt$/.test(name),
);
let isMade = false;
function made(): void {
  if (!isMade) {
    makeCorpus(folder);
    for (const name of ["diary.docx", "diary.odt"]) writeFileSync(join(folder, name), demoFile(name));
  }
  isMade = true;
}
const { bytesOf, shownLines, putAtThreeSpots, takeThreeOut } = editedDocuments(folder);

corpusTest.each(FILES)(
  "%s with a block at three spots is in LibreOffice what it was, and the block",
  async (name) => {
    made();
    await putAtThreeSpots(name, name === "python-docx.docx" ? "host" : "own");
  },
);

corpusTest.each(FILES)("%s without three spots is in LibreOffice what it was without them", async (name) => {
  made();
  await takeThreeOut(name);
});

/** Numbers between 0 and 1, the same each time. */
function* shares(seed: number): Generator<number, never> {
  for (let state = seed; ;) yield (state = (state * 16_807) % 2_147_483_647) / 2_147_483_647;
}

const OFTEN = ["diary.docx", "python-docx.docx", "diary.odt", "libreoffice.odt"];
corpusTest.each(some(OFTEN, (name) => /^diary\.docx|^libreoffice/.test(name)))(
  "twenty edits of %s, one after another, come to what LibreOffice shows",
  async (name) => {
    made();
    const next = shares(name.length * 7919);
    const random = () => next.next().value;
    let bytes: Uint8Array = bytesOf(name);
    const put = new Set<string>();
    // Text of boxes it exports in no text.
    const seen = bare(shownLines([name]).get(name)!);
    const isSeen = (text: string) =>
      text.includes("PUT") || seen.some((line) => line.includes(text.slice(0, 20)));
    for (let round = 0; round < 20; round++) {
      const all = (await readSource(bytes, name)).parts();
      const parts = all.filter(({ spot, text }) => spot.startsWith("p") && isSeen(text));
      const { spot, text } = parts[Math.floor(random() * parts.length)]!;
      if (random() < 0.35 && put.has(text)) {
        ({ data: bytes } = await takeOut(bytes, name, [spot]));
        put.delete(text);
        continue;
      }
      const words = `PUT${round} in its place`;
      const where = random() < 0.5 ? "after" : "before";
      ({ data: bytes } = await putInto(bytes, name, spot, compose([readText(words)]), { put: where }));
      put.add(words);
    }
    const file = name.replace(".", "-twenty.");
    writeFileSync(join(folder, file), bytes);
    const shown = shownLines([name, file]);
    const now = bare(shown.get(file)!);
    expect(now.filter((line) => line.includes("PUT")).sort()).toEqual([...put].sort());
    expect(now.filter((line) => !line.includes("PUT"))).toEqual(bare(shown.get(name)!));
    // We see the same, in the same order.
    const own = compose([(await readSource(bytes, file)).at()])
      .text.split("\n")
      .filter((line) => line.includes("PUT"));
    expect(own.map((line) => line.replace(/^.*?(?=PUT)/, ""))).toEqual(
      now.filter((line) => line.includes("PUT")),
    );
  },
);

corpusTest.each(["diary.docx", "diary.odt", "libreoffice.odt"])(
  "what is marked as changed in %s comes, or does not, as LibreOffice's user decides",
  async (name) => {
    made();
    const before = bytesOf(name);
    const spots = (await readSource(before, name))
      .parts()
      .filter(({ spot, type }) => spot.startsWith("p") && /^(?:paragraph|heading)$/.test(type))
      .map(({ spot }) => spot);
    const [first, second, third] = [spots[0]!, spots[1]!, spots[2]!];
    const block = compose([
      await readHtml("<p>First <b>wren</b></p><ul><li>reeds</li><li>gorse</li></ul><p>Last tern</p>"),
    ]);
    const edits: [string, (track: boolean) => Promise<{ data: Uint8Array }>][] = [
      ["after", (track) => putInto(before, name, second, block, { track })],
      ["before", (track) => putInto(before, name, first, block, { track, put: "before" })],
      ["instead", (track) => putInto(before, name, second, block, { track, put: "instead" })],
      ["without", (track) => takeOut(before, name, [third], { track })],
      ["several", (track) => takeOut(before, name, [second, third], { track })],
    ];
    // Rows below others are marked where the format marks them.
    if (name === "diary.docx") {
      const rows = compose([
        await readHtml(
          "<table><tr><th>New<th>Species<tr><td>3<td><b>Robin</b>, <i>first</i><tr><td>4<td>Wren</table>",
        ),
      ]);
      edits.push(["rows", (track) => putInto(before, name, "t1!A1:C3", rows, { track, put: "after" })]);
    }
    const ending = extname(name);
    const put = (file: string, bytes: Uint8Array) => writeFileSync(join(folder, file), bytes);
    put(`was${ending}`, before);
    for (const [edit, make] of edits) {
      const marked = await make(true);
      put(`${edit}-yes${ending}`, marked.data);
      put(`${edit}-no${ending}`, marked.data);
      put(`${edit}-done${ending}`, (await make(false)).data);
      // Read by us, what is marked is as if it were accepted.
      expect((await readSource(marked.data, name)).parts().map(({ text }) => text)).toEqual(
        (await readSource((await make(false)).data, name)).parts().map(({ text }) => text),
      );
    }
    const html = "html:HTML (StarWriter)";
    const files = (which: string) => edits.map(([edit]) => `${edit}-${which}${ending}`);
    convert(folder, html, [`was${ending}`, ...files("done")]);
    convert(folder, html, files("yes"), "changes:AcceptAllTrackedChanges");
    convert(folder, html, files("no"), "changes:RejectAllTrackedChanges");
    const shownIn = (file: string) =>
      /<body[\s\S]*<\/body>/i
        .exec(readFileSync(join(folder, `${file}.html`), "utf8"))![0]
        .replace(/ (?:style|class|name|id|src)="[^"]*"|\s+/g, " ");
    const decided = edits.map(([edit]) => ({
      [edit]: [shownIn(`${edit}-no`) === shownIn("was"), shownIn(`${edit}-yes`) === shownIn(`${edit}-done`)],
    }));
    expect(decided).toEqual(edits.map(([edit]) => ({ [edit]: [true, true] })));
  },
);

corpusTest.each(["diary.docx", "diary.odt"])(
  "rows come below others in a table of %s, by the names of its columns, in their looks, as LibreOffice shows",
  async (name) => {
    made();
    const before = bytesOf(name);
    const put = async (at: string, html: string) =>
      (await putInto(before, name, at, compose([await readHtml(html)]), { put: "after" })).data;
    const rich =
      "<table><tr><th>New<th>Species<tr><td>3<td><p>Robin</p><ul><li><b>seen</b></li><li><u>heard</u></li></ul><tr><td><u>4</u><td>two<br>lines &amp; more</table>";
    const ending = extname(name);
    /** The rows of the last table of a file, as LibreOffice writes them. */
    const rowsOf = (file: string) =>
      [
        .../<table[\s\S]*<\/table>/i
          .exec(readFileSync(join(folder, `${file}.html`), "utf8"))![0]
          .matchAll(/<tr[\s\S]*?<\/tr>/gi),
      ].map(([row]) =>
        [...row.matchAll(/<t[dh][\s\S]*?<\/t[dh]>/gi)].map(([cell]) =>
          cell
            .replace(/<[^>]*>/g, " ")
            .replace(/\s+/g, " ")
            .trim(),
        ),
      );
    const files = {
      was: before,
      middle: await put("t1!A1:C3", rich),
      end: await put("t1!A1:C4", rich),
      head: await put("t1!A1:C1", rich),
      plain: await put("t1!B2:C3", "<table><tr><td>8<td>9</table>"),
    };
    for (const [file, bytes] of Object.entries(files)) writeFileSync(join(folder, `${file}${ending}`), bytes);
    convert(
      folder,
      "html:HTML (StarWriter)",
      Object.keys(files).map((file) => `${file}${ending}`),
    );
    const was = rowsOf("was");
    expect(was).toHaveLength(4);
    const rows = [
      ["Robin seen heard", "3", ""],
      ["two lines &amp; more", "4", ""],
    ];
    const withRows = (at: number, added = rows) => [...was.slice(0, at), ...added, ...was.slice(at)];
    expect(rowsOf("middle")).toEqual(withRows(3));
    expect(rowsOf("end")).toEqual(withRows(4));
    expect(rowsOf("head")).toEqual(withRows(1));
    expect(rowsOf("plain")).toEqual(withRows(3, [["", "8", "9"]]));
    const merged = await putInto(
      before,
      name,
      "t1!A1:C4",
      compose([await readHtml("<table><tr><td>1<td>2<td>3<td>4</table>")]),
      { put: "after" },
    ).catch(({ reason }: { reason: string }) => reason);
    expect(merged).toBe("cannot-edit/shape");
  },
);
