import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import fc from "fast-check";
import { unzipSync } from "fflate";
import { directionOf } from "../../dist/content/direction.js";
import { withAlignedHeaders } from "../../dist/formats/office/alignment.js";
import { notedContents, sheetTables } from "../support/contents";
import { demoFile } from "../support/demo";
import { AS_SHOWN, convert, officeTest } from "../support/libreoffice";
import { OFFICE_FORMATS, writeOffice, type OfficeFormat } from "../support/office";
import {
  compose,
  formatOf,
  readDelimited,
  readHtml,
  writeDelimited,
  writeHtml,
  writeText,
  type Cell,
  type Content,
  type Flow,
  type Run,
  type Table,
} from "drawer";
import { readSource } from "drawer/files";
import { mapContent } from "drawer/format";

const throughFile = async (content: Content, format: OfficeFormat) =>
  (await readSource(await writeOffice({ content }, format), `x.${format}`)).at().content;

/**
 * What a document has no form for: values behind cells, the language of code, and the seam between two quotes, two codes
 * or two tables.
 */
function asDocument(given: Content, format: "docx" | "odt"): Content {
  const content = mapContent(given, { flow: (flow) => [withDirection(flow)] });
  const flows: Flow[] = [];
  for (const flow of content) {
    const last = flows.at(-1);
    if (flow.type === "code" && last?.type === "code")
      flows[flows.length - 1] = { type: "code", text: `${last.text}\n${flow.text}` };
    else if (flow.type === "code") flows.push({ type: "code", text: flow.text });
    else if (flow.type === "quote" && last?.type === "quote")
      flows[flows.length - 1] = { type: "quote", flows: [...last.flows, ...flow.flows] };
    else if (flow.type === "table") {
      if (format === "docx" && last?.type === "table") flows.push({ type: "paragraph", runs: [] });
      const { rows } = withAlignedHeaders(flow);
      flows.push({ ...flow, rows: rows.map((row) => row.map(inDocument)) });
    } else flows.push(flow);
  }
  return flows;
}

/** A line that begins from right to left says so. */
function withDirection(flow: Flow): Flow {
  if (flow.type !== "paragraph" && flow.type !== "heading") return flow;
  const direction = directionOf(flow);
  if (!direction) return flow;
  const { align, ...line } = flow;
  // The natural side of a line is none of its own.
  return { ...line, direction, ...(align && !(direction === "rtl" && align === "right") && { align }) };
}

/** A figure or a date stands at the right of its cell. */
function inDocument({ value, ...cell }: Cell): Cell {
  return value && value.type !== "boolean" ? { align: "right", ...cell } : cell;
}

test.each(["docx", "odt"] as const)("content written as %s reads back the same", async (format) => {
  await fc.assert(
    fc.asyncProperty(notedContents, async (content) => {
      expect(await throughFile(content, format)).toEqual(asDocument(content, format));
    }),
    { numRuns: 60 },
  );
});

test.each(["xlsx", "ods"] as const)(
  "a table written as %s reads back the same, text as text and values with their formats",
  async (format) => {
    await fc.assert(
      fc.asyncProperty(sheetTables, async (table) => {
        expect(await throughFile([table], format)).toEqual([withAlignedHeaders(table)]);
      }),
      { numRuns: 60 },
    );
  },
);

test("rows written as TSV and CSV read back the same", async () => {
  await fc.assert(
    fc.asyncProperty(sheetTables, fc.constantFrom("\t" as const, "," as const), async (table, separator) => {
      const once = writeDelimited([table], separator).text;
      const read = await readDelimited(once, { separator });
      expect(writeDelimited(read.content, separator).text).toBe(once);
    }),
  );
});

test("merged cells stay merged in every format that has them", async () => {
  const html =
    "<table><thead><tr><th colspan=2>Rides<th>New</thead><tr><td rowspan=2>8 April<td>North<td>14<tr><td>Middle<td>6<tr><td colspan=2>All rides<td>20</table>";
  const { content } = await readHtml(html);
  // What is written for sheets has the values of its figures too.
  const untyped = (read: Content) =>
    JSON.parse(
      JSON.stringify(read, (key, value: unknown) => (key === "value" ? undefined : value)),
    ) as Content;
  expect(untyped((await readHtml(writeHtml(content))).content)).toEqual(content);
  for (const format of ["docx", "odt"] as const) expect(await throughFile(content, format)).toEqual(content);
  for (const format of ["xlsx", "ods"] as const) {
    const [table] = (await throughFile(content, format)) as [Table];
    const places = (rows: Table["rows"]) =>
      rows.map((row) =>
        row.map(({ colspan = 1, rowspan = 1, flows }) => `${writeText(flows)} ${colspan}×${rowspan}`),
      );
    expect(places(table.rows)).toEqual(places((content[0] as Table).rows));
  }
});

test("a picture keeps its bytes, its size and its description in documents; a sheet says that it has none", async () => {
  const { content, pictures } = (await readSource(demoFile("sketches/wheatear.png"), "wheatear.png")).at();
  const source = { content, picture: (hash: string) => pictures.get(hash) };
  for (const format of ["docx", "odt"] as const) {
    const reading = (await readSource(await writeOffice(source, format), `x.${format}`)).at();
    expect(reading.content).toEqual(content);
    expect([...reading.pictures.values()]).toEqual([...pictures.values()]);
  }
  expect((await formatOf("xlsx").write!(source)).notices[0]!.code).toBe("not-shown");
});

officeTest(
  "every written file opens in LibreOffice and says there what it says here",
  async () => {
    const folder = mkdtempSync(join(tmpdir(), "drawer-office-"));
    const open = (to: string, names: string[], filter?: string) => convert(folder, to, names, filter);
    const letter = (await readSource(demoFile("letter.html"), "letter.html")).at().content;
    const spring = (await readSource(demoFile("ringing.ods"), "ringing.ods")).at("Spring!A1:G6").content;
    for (const format of OFFICE_FORMATS) {
      const bytes = await writeOffice(
        { content: /s$|x$/.test(format) && format !== "docx" ? spring : letter },
        format,
      );
      writeFileSync(join(folder, `written-${format}.${format}`), bytes);
    }
    // Text out of page layouts, with the characters that XML has no form for.
    const controls: Content = [
      { type: "heading", level: 1, runs: [{ type: "text", text: "Page\u0001 one" }] },
      { type: "paragraph", runs: [{ type: "text", text: "north\fsouth\vwest \u001b[31m\ud800 end" }] },
      { type: "code", text: "a\fb\u0002" },
    ];
    for (const format of OFFICE_FORMATS) {
      const bytes = await writeOffice({ content: controls, title: 'A & "B" <\u0003C>' }, format);
      writeFileSync(join(folder, `controls-${format}.${format}`), bytes);
    }
    open("txt:Text (encoded):UTF8", ["controls-docx.docx", "controls-odt.odt"]);
    for (const format of ["docx", "odt"])
      expect(readFileSync(join(folder, `controls-${format}.txt`), "utf8").replace(/^\uFEFF/, "")).toBe(
        "Page one\nnorth\nsouth\nwest [31m\ufffd end\na\nb\n",
      );
    open(AS_SHOWN, ["controls-xlsx.xlsx", "controls-ods.ods"]);
    for (const format of ["xlsx", "ods"])
      expect(readFileSync(join(folder, `controls-${format}.csv`), "utf8")).toContain(
        "Page one\nnorth\nsouth\nwest",
      );
    open("txt:Text (encoded):UTF8", ["written-docx.docx", "written-odt.odt"]);
    open(AS_SHOWN, ["written-xlsx.xlsx", "written-ods.ods"]);
    for (const format of ["docx", "odt"]) {
      const text = readFileSync(join(folder, `written-${format}.txt`), "utf8");
      for (const words of [
        "To the wardens of Merrow Spit",
        "on the path by the ringing hut",
        "12:54",
        "the Saturday page",
      ])
        expect(text).toContain(words);
    }
    for (const format of ["xlsx", "ods"]) {
      const csv = readFileSync(join(folder, `written-${format}.csv`), "utf8");
      expect(csv).toBe(writeDelimited(spring, ",", { guard: false }).text);
    }
    // A column composed for one cell, as a sheet takes it from each flavour of a clipboard.
    const column = (await readSource(demoFile("ringing.ods"), "ringing.ods")).at("Spring!C2:C6");
    const cell = compose([column], { as: "lines", fit: "cell" });
    writeFileSync(join(folder, "from-html.html"), `<meta charset="utf-8">${cell.html}`);
    writeFileSync(join(folder, "from-text.csv"), cell.text);
    open("ods", ["from-html.html"], "HTML (StarCalc)");
    open("ods", ["from-text.csv"], "CSV:9,34,76");
    for (const flavour of ["from-html.ods", "from-text.ods"]) {
      const [sheet] = (await readSource(new Uint8Array(readFileSync(join(folder, flavour))), flavour)).at()
        .content as [Table];
      expect([
        sheet.rows.length,
        sheet.rows[0]!.length,
        writeText(sheet.rows[0]![0]!.flows).split("\n"),
      ]).toEqual([
        ...[1, 1],
        ["Chiffchaff", "Willow warbler", "Goldcrest", "Wryneck", "Réti “Ring” test, no bird"],
      ]);
    }
    rmSync(folder, { recursive: true, force: true });
  },
  120_000,
);

officeTest(
  "no text becomes a formula in LibreOffice, wherever it stands, from HTML, CSV in any language, or TSV",
  async () => {
    const folder = mkdtempSync(join(tmpdir(), "drawer-formulas-"));
    const values = [
      "=1+1",
      " =1+1",
      '=HYPERLINK("https://a.example";"x")',
      "@SUM(1;1)",
      "-2+3+cmd|' /C x'!A0",
      "+SUM(1)",
      "=a;=1+1",
    ];
    const text = (words: string) => ({ type: "paragraph", runs: [{ type: "text", text: words }] }) as const;
    const below = (words: string) =>
      ({
        type: "paragraph",
        runs: [{ type: "text", text: "a" }, { type: "break" }, { type: "text", text: words }],
      }) as const;
    const parted = (words: string) =>
      ({
        type: "paragraph",
        runs: [...words].map((letter, at) => ({
          type: "text",
          text: letter,
          ...(at % 2 && { marks: { bold: true } }),
        })),
      }) as Flow;
    const list = (words: string): Flow => ({
      type: "list",
      ordered: false,
      items: [{ flows: [text(words)] }],
    });
    const places: readonly ((words: string) => Flow)[] = [
      ...[
        text,
        below,
        parted,
        list,
        (words: string): Flow => ({ type: "heading", level: 2, runs: text(words).runs }),
      ],
      ...[
        (words: string): Flow => ({ type: "quote", flows: [text(words)] }),
        (words: string): Flow => ({ type: "code", text: `x\n${words}` }),
      ],
      (words) => ({
        type: "table",
        headerRows: 0,
        caption: text(words).runs,
        rows: [[{ flows: [text("x")] }]],
      }),
      ...[text, below, parted, list].map((inner) => (words: string): Flow => ({
        type: "table",
        headerRows: 0,
        rows: [[{ flows: [text("x")] }, { flows: [inner(words)] }]],
      })),
    ];
    const content = values.flatMap((words) => places.map((place) => place(words)));
    writeFileSync(join(folder, "html.html"), `<meta charset="utf-8">${writeHtml(content)}`);
    for (const [name, separator] of [
      ["commas", ","],
      ["tabs", "\t"],
    ] as const)
      writeFileSync(join(folder, `${name}.csv`), writeDelimited(content, separator).text);
    const open = (name: string, filter: string) => {
      convert(folder, "ods", [name], filter);
      const [[, bytes]] = Object.entries(
        unzipSync(new Uint8Array(readFileSync(join(folder, name.replace(/\.\w+$/, ".ods"))))),
      ).filter(([part]) => part === "content.xml") as [[string, Uint8Array]];
      return new TextDecoder().decode(bytes).match(/<table:table-cell[^>]*table:formula[^>]*>/g) ?? [];
    };
    expect(open("html.html", "HTML (StarCalc)")).toEqual([]);
    for (const codes of [44, 59, 9]) {
      expect(open("commas.csv", `CSV:${codes},34,76`)).toEqual([]);
      expect(open("tabs.csv", `CSV:${codes},34,76`)).toEqual([]);
    }
    rmSync(folder, { recursive: true, force: true });
  },
  180_000,
);

const part = fc.record({
  text: fc.string({ minLength: 1, maxLength: 6, unit: fc.constantFrom(..."ab ö&<鳥ن", "_x0041_", "  ") }),
  marks: fc.record(
    {
      ...{ bold: fc.constant(true), italic: fc.constant(true), underline: fc.constant(true) },
      ...{ strike: fc.constant(true), sub: fc.constant(true), color: fc.constantFrom("#c00000", "#1f4e79") },
    },
    { requiredKeys: [] },
  ),
});
const line = fc.array(
  fc.oneof({ weight: 4, arbitrary: part }, { weight: 1, arbitrary: fc.constant("break") }),
  {
    minLength: 1,
    maxLength: 5,
  },
);

officeTest("parts of a cell that look different look so in LibreOffice, in xlsx and in ods", async () => {
  const folder = mkdtempSync(join(tmpdir(), "drawer-parts-"));
  const lines = fc.sample(line, { numRuns: 150, seed: 20310408 });
  const runs = lines.map((each): Run[] =>
    // A letter at each end: which spaces at the ends a sheet shows is not asked here.
    [
      { type: "text", text: "x" },
      ...each.map((item): Run => (typeof item === "string" ? { type: "break" } : { type: "text", ...item })),
      { type: "text", text: "x" },
    ],
  );
  const content: Content = [
    {
      type: "table",
      headerRows: 0,
      rows: runs.map((each) => [{ flows: [{ type: "paragraph", runs: each }] }]),
    },
  ];
  /** Each sign with how it looks. */
  const looks = (each: readonly Run[]) =>
    each.flatMap((run) =>
      run.type === "text"
        ? [...run.text].map((sign) =>
            [
              sign,
              ...Object.entries(run.marks ?? {})
                .sort()
                .flat(),
            ].join(" "),
          )
        : ["break"],
    );
  for (const [format, other] of [
    ["xlsx", "ods"],
    ["ods", "xlsx"],
  ] as const) {
    const bytes = await writeOffice({ content }, format);
    writeFileSync(join(folder, `parts.${format}`), bytes);
    convert(folder, other, [`parts.${format}`]);
    for (const [name, read] of [
      [`parts.${format}`, bytes],
      [`parts.${other}`, new Uint8Array(readFileSync(join(folder, `parts.${other}`)))],
    ] as const) {
      const [table] = (await readSource(read, name)).at().content as [Table];
      const shown = table.rows.map(([cell]) =>
        looks(cell!.flows.flatMap((flow) => (flow.type === "paragraph" ? flow.runs : []))),
      );
      expect([name, shown]).toEqual([name, runs.map(looks)]);
    }
  }
  rmSync(folder, { recursive: true, force: true });
});

officeTest("what is bold, slanted or large in an odt is so in each script", async () => {
  const folder = mkdtempSync(join(tmpdir(), "drawer-scripts-"));
  const marks = { bold: true, italic: true, size: 20 } as const;
  const runs: Run[] = [
    { type: "text", text: "A " },
    { type: "text", text: "gull 鳥が来た نورس", marks },
  ];
  writeFileSync(
    join(folder, "scripts.odt"),
    await writeOffice({ content: [{ type: "paragraph", runs }] }, "odt"),
  );
  convert(folder, "fodt", ["scripts.odt"]);
  const flat = readFileSync(join(folder, "scripts.fodt"), "utf8");
  const [, style] = /<text:span text:style-name="(\w+)">gull/.exec(flat)!;
  const [look] = new RegExp(`style:name="${style}" [^>]*>\\s*<style:text-properties[^>]*>`).exec(flat)!;
  for (const [prefix, script] of [
    ["fo", ""],
    ["style", "-asian"],
    ["style", "-complex"],
  ] as const)
    for (const [name, said] of [
      ["weight", "bold"],
      ["style", "italic"],
      ["size", "20pt"],
    ] as const)
      expect(look).toContain(`${prefix}:font-${name}${script}="${said}"`);
  rmSync(folder, { recursive: true, force: true });
});
