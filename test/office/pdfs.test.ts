import { spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";
import fc from "fast-check";
import { manyPages } from "../../bench/many-pages.mjs";
import { CHROMIUM_FLAGS, findHeadless } from "../../scripts/chromium.mjs";
import { runs, isFull } from "../support/counts";
import { demoFile } from "../support/demo";
import { convert, corpusTest, sayMissing } from "../support/libreoffice";
import { knownText, type KnownText } from "./pdf-texts";
import { compose, type Content, type DrawerError, type Flow } from "drawer";
import { readSource } from "drawer/files";

sayMissing();
const folder = mkdtempSync(join(tmpdir(), "drawer-pdf-"));
if (!process.env.KEEP)
  afterAll(() => rmSync(folder, { recursive: true, force: true, maxRetries: 20, retryDelay: 100 }));
const main = resolve("dist/bin/main.js");
const bytesOf = (name: string) => new Uint8Array(readFileSync(join(folder, name)));
const sourceOf = (name: string) => readSource(bytesOf(name), name);

function run(program: string, ...words: string[]): string {
  const { status, stdout, stderr } = spawnSync(program, words, {
    cwd: folder,
    encoding: "utf8",
    maxBuffer: 1 << 28,
  });
  if (status !== 0) throw new Error(`${program}: ${stderr}`);
  return stdout;
}

/** Has Chromium print a page of the folder. */
function print(page: string, pdf: string): void {
  const words = [`--user-data-dir=${join(folder, "browser")}`, `--print-to-pdf=${join(folder, pdf)}`];
  run(findHeadless()!, "--headless", ...CHROMIUM_FLAGS, ...words, `file://${join(folder, page)}`);
}

const page = (style: string, body: string) =>
  `<!doctype html><html lang="en"><meta charset="utf-8"><style>body { font: 11pt serif } ${style}
   @page { margin: 2cm; @top-center { content: "Merrow Spit, spring" } @bottom-center { content: counter(page) } }
   </style><body>${body}</body></html>`;
const RULED =
  "table { border-collapse: collapse; margin: 1em 0 } td, th { border: 1px solid #444; padding: 2pt 5pt; text-align: left }";
const PLAIN = "td, th { padding: 2pt 8pt; text-align: left }";
const COLUMNS = `${RULED} body { columns: 2; column-gap: 24pt; font-size: 10pt; text-align: justify; hyphens: auto }
  table { font-size: 5.5pt } td, th { padding: 1pt }`;

/** Programs that make a PDF of a text in Markdown, and how much of it a reader is to find, in hundredths. */
interface Maker {
  readonly make: (stem: string) => void;
  readonly paragraphs: number;
  readonly cells: number;
}
const htmlOf = (stem: string, style: string) => {
  writeFileSync(
    join(folder, `${stem}.html`),
    page(style, run("pandoc", `${stem}.md`, "-f", "markdown", "-t", "html")),
  );
  return `${stem}.html`;
};
const bySet = (style: string) => (stem: string) => void run("weasyprint", htmlOf(stem, style), `${stem}.pdf`);
const byBrowser = (style: string) => (stem: string) => print(htmlOf(stem, style), `${stem}.pdf`);
const byOffice = (told: object) => (stem: string) => {
  run("pandoc", `${stem}.md`, "-f", "markdown", "-o", `${stem}.docx`);
  convert(folder, `pdf:writer_pdf_Export:${JSON.stringify(told)}`, [`${stem}.docx`]);
};
const MAKERS: Readonly<Record<string, Maker>> = {
  "LibreOffice, with tags": { make: byOffice({ UseTaggedPDF: true }), paragraphs: 97, cells: 95 },
  "LibreOffice, without": { make: byOffice({ UseTaggedPDF: false }), paragraphs: 97, cells: 85 },
  "Chromium, tables with lines": { make: byBrowser(RULED), paragraphs: 97, cells: 95 },
  "Chromium, two columns": { make: byBrowser(COLUMNS), paragraphs: 97, cells: 95 },
  "WeasyPrint, tables with lines": { make: bySet(RULED), paragraphs: 97, cells: 95 },
  "WeasyPrint, tables without": { make: bySet(PLAIN), paragraphs: 97, cells: 85 },
  "WeasyPrint, two columns, hyphens": { make: bySet(COLUMNS), paragraphs: 95, cells: 85 },
  "groff, hyphens, tables without": {
    make: (stem) =>
      run("sh", "-c", `pandoc ${stem}.md -f markdown -t ms -s | groff -Kutf8 -ms -t -Tpdf > ${stem}.pdf`),
    paragraphs: 97,
    cells: 85,
  },
};

const plain = (text: string) => text.replace(/\s+/g, " ").trim();
const textOf = (flow: Flow): string => plain(compose([{ content: [flow], pictures: new Map() }]).text);

/** The lines of some content outside tables, and its tables, as a reader would tell them. */
function found(content: Content): { lines: string[]; tables: string[][][] } {
  const lines: string[] = [];
  const tables: string[][][] = [];
  const visit = (flows: Content) => {
    for (const flow of flows) {
      if (flow.type === "list") for (const item of flow.items) visit(item.flows);
      else if (flow.type === "quote") visit(flow.flows);
      else if (flow.type === "table")
        tables.push(flow.rows.map((row) => row.map((cell) => plain(cell.flows.map(textOf).join(" ")))));
      else lines.push(textOf(flow));
    }
  };
  visit(content);
  return { lines: lines.filter(Boolean), tables };
}

/** How many words stand in both, in the same order. */
function inBoth(one: readonly string[], other: readonly string[]): number {
  let before = new Uint16Array(other.length + 1);
  for (const word of one) {
    const row = new Uint16Array(other.length + 1);
    other.forEach(
      (each, at) => (row[at + 1] = each === word ? before[at]! + 1 : Math.max(before[at + 1]!, row[at]!)),
    );
    before = row;
  }
  return before[other.length]!;
}

/** How much of a text was found, in hundredths. */
function judged(known: readonly KnownText[], read: readonly ReturnType<typeof found>[]) {
  let [words, inOrder, lines, whole, cells, right] = [0, 0, 0, 0, 0, 0];
  known.forEach((text, at) => {
    const { lines: readLines, tables } = read[at]!;
    const wanted = text.lines.join(" ").split(" ");
    words += wanted.length;
    inOrder += inBoth(wanted, readLines.join(" ").split(" "));
    const left = [...readLines];
    for (const line of text.lines) {
      const place = left.indexOf(line);
      if (place >= 0) left.splice(place, 1);
      lines++;
      whole += place >= 0 ? 1 : 0;
    }
    for (const table of text.tables) {
      const same = tables.find(([first]) => first?.join() === table[0]!.join());
      table.forEach((row, down) =>
        row.forEach((cell, across) => {
          cells++;
          right += same?.[down]?.[across] === cell ? 1 : 0;
        }),
      );
    }
  });
  const hundredths = (part: number, all: number) => (100 * part) / all;
  return {
    words: hundredths(inOrder, words),
    paragraphs: hundredths(whole, lines),
    cells: hundredths(right, cells),
  };
}

corpusTest.each(Object.entries(MAKERS))(
  "texts that we know are found in what %s has made of them",
  async (name, maker) => {
    // In two columns a text has many lines that end early: one alone says little.
    const sample = name.includes("two columns") ? 2 : 1;
    const known = Array.from({ length: isFull ? 12 : sample }, (_, seed) => knownText(seed + 1, 9));
    const read: ReturnType<typeof found>[] = [];
    for (const [at, text] of known.entries()) {
      const stem = `${name.replace(/\W+/g, "-")}-${at}`;
      writeFileSync(join(folder, `${stem}.md`), text.markdown);
      maker.make(stem);
      read.push(found((await sourceOf(`${stem}.pdf`)).at().content));
    }
    const { words, paragraphs, cells } = judged(known, read);
    const isFound = words >= 99.5 && paragraphs >= maker.paragraphs && cells >= maker.cells;
    expect({ words, paragraphs, cells, isFound }).toMatchObject({ isFound: true });
  },
);

corpusTest(
  "a diary that LibreOffice has made a PDF keeps its headings, lists, table, looks and link; so does a letter that a browser prints",
  async () => {
    writeFileSync(join(folder, "diary.docx"), demoFile("diary.docx"));
    convert(folder, "pdf", ["diary.docx"]);
    const diary = await sourceOf("diary.pdf");
    expect(diary.title).toBe("Field diary");
    const { content } = diary.at();
    expect(compose([diary.at()]).markdown).toContain(
      "First **wheatear** on the seawall at 05:50; wind *south-east*, force 3",
    );
    expect(content.filter(({ type }) => type === "heading").map(textOf)).toEqual([
      "Field diary, Merrow Spit",
      "Tuesday 8 April",
      "Wednesday 9 April",
    ]);
    expect(compose([diary.at()]).html).toMatch(
      /0\.4 m<sup>2<\/sup> plot; .*<a href="https:\/\/merrow-spit\.example\/tides\?month=4&amp;station=2">/,
    );
    expect(compose([diary.at("t1")]).tsv.split("\n")[1]).toBe("Chiffchaff\t14\t3");
    expect(diary.at("p5..p7").content).toMatchObject([
      { type: "list", ordered: false, items: [{ flows: [{}, { type: "list" }] }, {}] },
    ]);
    writeFileSync(join(folder, "letter.html"), demoFile("letter.html"));
    print("letter.html", "letter.pdf");
    const letter = compose([(await sourceOf("letter.pdf")).at()]).markdown;
    expect(letter).toContain("# To the wardens of Merrow Spit");
    expect(letter).toContain("| Saturday | 12:54 | 0.6 m |");
    expect(letter).toMatch(/!\[[^\]]*\]|> “If that was not a wryneck/);
  },
);

corpusTest("lines that run down the page, from right to left, are read in their order", async () => {
  const lines = ["春の鳥は海辺に来る。風は南東、潮は低い。", "二つ目の段落です。夜明けに網を開けた。"];
  const style = 'body { writing-mode: vertical-rl; font: 14pt "VL Gothic"; height: 400px }';
  writeFileSync(
    join(folder, "down.html"),
    `<!doctype html><meta charset="utf-8"><style>${style}</style>${lines.map((line) => `<p>${line}</p>`).join("")}`,
  );
  print("down.html", "down.pdf");
  expect(
    compose([(await sourceOf("down.pdf")).at()])
      .text.trim()
      .split("\n"),
  ).toEqual(lines);
});

corpusTest(
  "letters from right to left, and lines that stand on their side, are read in their order",
  async () => {
    const hebrew = "הציפור הראשונה נראתה על חומת הים בבוקר, בשעה 05:50.";
    const arabic = "وصل الطائر الأول إلى السور في الصباح الباكر.";
    writeFileSync(
      join(folder, "rtl.html"),
      page(
        "",
        `<p dir="rtl">${hebrew}</p><p dir="rtl">${arabic}</p><p style="transform: translate(6cm, 6cm) rotate(90deg); width: 8cm">Read at the side of the page</p>`,
      ),
    );
    print("rtl.html", "rtl.pdf");
    const said = compose([(await sourceOf("rtl.pdf")).at()]).text.normalize("NFKC");
    for (const text of [hebrew, arabic, "Read at the side of the page"].map((each) => each.normalize("NFKC")))
      expect([said.includes(text), text, said]).toEqual([true, text, said]);
  },
);

test("pages are spots, read alone, and what goes wrong with a spot is said; numbers of pages are left out, and counted", async () => {
  const source = await readSource(manyPages(5000), "many.pdf");
  const said = ({ content, notices = [] }: ReturnType<typeof source.at>) => [
    compose([{ content, pictures: new Map() }]).text.trim(),
    notices.map(({ message }) => message),
  ];
  const left = (lines: string) => [
    `Left out of “many.pdf”: ${lines} at the edges of pages, their running heads, feet and numbers.`,
  ];
  expect(said(source.at("pg4000"))).toEqual(["Wheatear 4000 was seen on the seawall.", left("one line")]);
  expect(said(source.at("pg2..pg3"))).toEqual([
    "Wheatear 2 was seen on the seawall.\nWheatear 3 was seen on the seawall.",
    left("2 lines"),
  ]);
  expect(said(source.at("p3"))[0]).toBe("Wheatear 3 was seen on the seawall.");
  expect(source.at("pg7").origin).toEqual({ document: "many.pdf", at: "pg7" });
  expect(() => source.at("pg5001")).toThrow("“many.pdf” has no pg5001: it has 5000 pages, pg1 to pg5000.");
  const text = await readSource(new TextEncoder().encode("A line."), "a.txt");
  expect(() => text.at("pg1")).toThrow("“pg1” is not a spot");
});

corpusTest(
  "a locked PDF asks for its password, which stands in a file; a page of a scanner says what it is",
  () => {
    writeFileSync(join(folder, "open.pdf"), manyPages(2));
    run("qpdf", "--encrypt", "tern", "owner", "256", "--", "open.pdf", "locked.pdf");
    writeFileSync(join(folder, "right"), "tern\n");
    writeFileSync(join(folder, "wrong"), "knot\n");
    const look = (...words: string[]) => {
      const { status, stdout, stderr } = spawnSync(process.execPath, [main, "look", ...words], {
        cwd: folder,
        encoding: "utf8",
      });
      return [status, stdout, stderr].join("\n");
    };
    expect(look("locked.pdf")).toMatch(
      /^1\n\n.*“locked\.pdf” is protected with a password\. .*--password-file/,
    );
    expect(look("locked.pdf", "--password-file", "wrong")).toMatch(/^1\n\n.*does not open “locked\.pdf”/);
    expect(look("locked.pdf", "--password-file", "right")).toMatch(
      /^0\np1 +paragraph +page 1 +Wheatear 1 was seen/,
    );
    const picture = Buffer.from(demoFile("sketches/tide.png")).toString("base64");
    const style = "@page { margin: 0 !important } body { margin: 0 } img { width: 21cm; height: 29cm }";
    writeFileSync(
      join(folder, "scan.html"),
      `<style>${style}</style><img src="data:image/png;base64,${picture}">`,
    );
    run("weasyprint", "scan.html", "scan.pdf");
    expect(look("scan.pdf")).toMatch(
      /^0\ni1 +picture +page 1 [^\n]*\nPage 1 of “scan\.pdf” is a picture without text, as a scanner makes it/,
    );
  },
);

test("damaged at random it is refused in a sentence, or read as far as it goes", async () => {
  const whole = manyPages(3);
  await fc.assert(
    fc.asyncProperty(
      fc.array(fc.tuple(fc.nat(whole.length - 1), fc.nat(255)), { minLength: 1, maxLength: 12 }),
      fc.nat(whole.length),
      async (changes, cut) => {
        const bytes = whole.slice(0, cut % 3 === 0 ? Math.max(20, cut) : undefined);
        for (const [at, value] of changes) if (at > 8 && at < bytes.length) bytes[at] = value;
        const outcome = await readSource(bytes, "x.pdf", { format: "pdf" })
          .then((source) => source.at().content.length >= 0)
          .catch((error: DrawerError) => /^(?:unreadable|locked|too-large)/.test(error.reason ?? `${error}`));
        expect(outcome).toBe(true);
      },
    ),
    runs(8, 200),
  );
});
