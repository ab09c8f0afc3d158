import fc from "fast-check";
import {
  compose,
  paragraph,
  readDelimited,
  readHtml,
  readText,
  type Cell,
  type Piece,
  type Origin,
  type Recipe,
  type Row,
  type Table,
} from "drawer";

const table = (rows: string, headerRows: number, more: Partial<Table> = {}): Table => ({
  type: "table",
  headerRows,
  rows: rows.split("\n").map((line) => line.split(",").map(cell)),
  ...more,
});
const cell = (text: string): Cell => ({ flows: text === "" ? [] : [paragraph(text)] });
const of = (content: Table, origin?: Origin, label?: string): Piece => ({
  content: [content],
  ...(origin && { origin }),
  ...(label !== undefined && { label }),
});
const csv = async (rows: string, header: boolean | "guess" = "guess") => ({
  content: (await readDelimited(rows, { separator: ",", header })).content,
});
const text = (words: string): Piece => ({ content: readText(words).content });
const sheet = (at: string, document = "ringing.xlsx"): Origin => ({ document, at });
const rows = (pieces: readonly Piece[], more: Recipe = {}) => compose(pieces, { as: "rows", ...more });

test("a header picked by itself maps the rows that follow it, of its sheet or of its width", () => {
  const pieces = [
    of(table("Date,Ride,Species", 1), sheet("Spring!A1:C1")),
    of(table("8 April,Middle,Wren", 0), sheet("Spring!A3:C3")),
    of(table("Species,Date,Ride", 1), sheet("Autumn!A1:C1")),
    of(table("Wryneck,9 April,South", 0), sheet("Autumn!A3:C3")),
    of(table("9 April,North,Dunnock", 0), sheet("Spring!A4:C4")),
  ];
  expect(rows(pieces).csv).toBe(
    "Date,Ride,Species\n8 April,Middle,Wren\n9 April,South,Wryneck\n9 April,North,Dunnock\n",
  );
  const unknown = pieces.slice(2, 4).map(({ content }) => ({ content }));
  expect(rows([pieces[0]!, ...unknown]).csv).toBe("Date,Ride,Species\n9 April,South,Wryneck\n");
});

test("rows of a sheet whose header was picked stand under their own columns, however they were marked", () => {
  const pieces = [
    of(table("Date,Ride,Species\n8 April,Middle,Wren", 1), sheet("Spring!A1:C2")),
    of(table("Wryneck", 0), sheet("Spring!C9")),
    of(table("North,Dunnock,late", 0), sheet("Spring!B10:D10")),
  ];
  expect(rows(pieces).csv).toBe(
    "Date,Ride,Species,\n8 April,Middle,Wren,\n,,Wryneck,\n,North,Dunnock,late\n",
  );
});

test("blank edges of a range that was marked too wide do not hide its header", async () => {
  const wide = await csv(",,,\n,Ride,New,\n,North,14,\n,,,\n");
  const html = await readHtml(
    "<table><tr><td><td><td></tr><tr><td><td><b>New</b><td><b>Ride</b></tr><tr><td><td>6<td>Middle</tr></table>",
  );
  for (const second of [{ content: html.content }, await csv(",,\nNew,Ride,\n6,Middle,\n")])
    expect(rows([wide, second]).csv).toBe("Ride,New\nNorth,14\nMiddle,6\n");
});

test("first rows that hold the same names in any order are headers, whatever their case, spaces and accents", async () => {
  const pieces = [
    await csv("Name,Town\nAnna,Bergen\n"),
    await csv("TOWN,n ame\nÅlesund,Réti\n"),
    await csv("Town,Náme,Post\nOslo,Ida,0150\n"),
  ];
  expect(rows(pieces.slice(0, 2)).csv).toBe("Name,Town\nAnna,Bergen\nRéti,Ålesund\n");
  expect(rows(pieces.slice(0, 2), { header: "no" }).csv).toBe(
    "Name,Town\nAnna,Bergen\nTOWN,n ame\nÅlesund,Réti\n",
  );
  expect(rows(pieces, { header: "yes" }).csv).toBe(
    "Name,Town,Post\nAnna,Bergen,\nRéti,Ålesund,\nIda,Oslo,0150\n",
  );
  const twice = [await csv("Wren,Hut\n"), await csv("Hut,Wren\n"), await csv("Wren,Hut\n")];
  expect(rows(twice).csv).toBe("Wren,Hut\nHut,Wren\nWren,Hut\n");
});

test("columns are called otherwise, and what is nowhere is said", async () => {
  const pieces = [await csv("Name,E-Mail\nAnna,a@b\n", true), await csv("Email,Name\nc@d,Ida\n", true)];
  const block = rows(pieces, { columns: { "e-mail": "Email", Fax: "Telefax" } });
  expect(block.csv).toBe("Name,Email\nAnna,a@b\nIda,c@d\n");
  expect(block.notices.map(({ message }) => message)).toEqual(["No column is called “Fax”."]);
  expect(() => compose(pieces, { columns: { a: "b" } })).toThrow("only with as rows");
});

test("a first row that holds a column which is called otherwise is a header, in words alone too", async () => {
  const pieces = [await csv("E-Mail,Name\nx,Zoe\n"), await csv("name,Email\nMax,m\n")];
  const block = rows(pieces, { columns: { "E-Mail": "Email" } });
  expect(block.csv).toBe("Email,Name\nx,Zoe\nm,Max\n");
  expect(block.notices).toEqual([]);
});

test("a header of two rows keeps what stands above its names, where it is another", () => {
  const above = (ride: string): Row => [
    { flows: [paragraph("Date")], rowspan: 2 },
    { flows: [paragraph(ride)], colspan: 2 },
  ];
  const piece = (ride: string, names: string, body: string): Piece =>
    of({
      ...table(`${names}\n${body}`, 2),
      rows: [above(ride), ...table(`${names}\n${body}`, 0).rows],
    });
  const block = rows([
    piece("North ride", "New,Retrap", "8 April,14,3"),
    piece("North ride", "Retrap,New", "9 April,1,2"),
    piece("South ride", "Retrap,New", "9 April,0,1"),
  ]);
  expect(block.csv).toBe(
    "Date,North ride,\n,New,Retrap\n8 April,14,3\n9 April,2,1\n,,South ride\n9 April,1,0\n",
  );
});

test("in a table a source is a column, or a list below; text around a piece stands in its cells", () => {
  const pieces = [
    of(table("Ride,New\nNorth,14", 1), sheet("A1:B2")),
    of(table("New,Ride\n6,Middle", 1), sheet("A1:B2", "second.xlsx")),
    text("a note"),
  ];
  expect(rows(pieces, { cite: "inline" }).csv).toBe(
    'Ride,New,Source\nNorth,14,"ringing.xlsx, A1:B2"\nMiddle,6,"second.xlsx, A1:B2"\na note,,\n',
  );
  expect(rows(pieces, { cite: "notes" }).csv).toMatch(
    /^Ride,New,Source\nNorth,14,\[1\]\nMiddle,6,\[2\]\na note,,\n"1\. ringing/,
  );
  expect(rows(pieces, { cite: "list" }).content.map(({ type }) => type)).toEqual(["table", "list"]);
  expect(rows(pieces, { before: "→ ", after: ";" }).csv).toBe(
    "Ride,New\n→ North,14;\nMiddle;,→ 6\n→ a note;,\n",
  );
  expect(compose(pieces.slice(0, 2), { as: "columns", cite: "inline" }).csv).toBe(
    'Ride,New,Source,New,Ride,Source\nNorth,14,"ringing.xlsx, A1:B2",6,Middle,"second.xlsx, A1:B2"\n',
  );
  expect(compose([pieces[0]!], { as: "pairs", cite: "inline" }).csv).toBe(
    'Ride,New,"ringing.xlsx, A1:B2"\nNorth,14,"ringing.xlsx, A1:B2"\n',
  );
  expect(
    compose([{ ...text("The total was 25"), origin: { document: "a.docx" } }], { cite: "notes" }).text,
  ).toBe("The total was 25[1]\n1. a.docx");
});

test("captions and wide tables stay tables, beside others, as pairs, in CSV and in a grid", async () => {
  const caption = [{ type: "text", text: "Spring" }] as const;
  const three = of(table("a,b,c\nd,e,f", 0, { caption }));
  expect(compose([three], { as: "pairs" })).toMatchObject({
    csv: "Spring\na,b,c\nd,e,f\n",
    notices: [{ code: "not-shown" }],
  });
  expect(compose([three, text("x\ny")], { as: "columns" }).csv).toBe("Spring\na,b,c,x\nd,e,f,y\n");
  expect(compose([three]).csv).toBe("Spring\na,b,c\nd,e,f\n");
  expect(compose([three], { fit: "cells" }).csv).toBe("Spring,,\na,b,c\nd,e,f\n");
  const list = await readHtml("<ul><li>-one<ul><li>two</li></ul></li></ul><ol start=3><li>c</li></ol>");
  expect(compose([{ content: list.content }]).csv).toBe("'-one\ntwo\n3. c\n");
});

test.each<[Recipe, string]>([
  [{ between: "space" }, "a b c"],
  [{ between: "nothing" }, "abc"],
  [{ between: "tab" }, "a\tb\tc"],
  [{ between: "comma" }, "a, b, c"],
  [{ between: "blank" }, "a\n\nb\n\nc"],
  [{ as: "lines", between: "* * *" }, "a\n* * *\nb\n* * *\nc"],
])("between %j gives %j", (recipe, expected) =>
  expect(compose([text("a"), of(table("b", 0)), text("c")], recipe).text).toBe(expected),
);

test("what stands between pieces is refused where it would do nothing, and said where it cannot be", () => {
  for (const recipe of [
    { as: "lines", between: "space" },
    { as: "bullets", between: "blank" },
    { as: "numbers", between: "tab" },
    { as: "rows", between: "; " },
  ] as const)
    expect(() => compose([text("a")], recipe)).toThrow(/has no place for .* between pieces/);
  const block = compose([text("a"), of(table("b,c", 0)), text("d")], { between: "space" });
  expect([block.text, block.notices.length]).toEqual(["a\nb\tc\nd", 1]);
});

test.each([
  ["Open at 6 p.m.", "Open at 6 p.m., x"],
  ["Gale et al.", "Gale et al., x"],
  ["the U.S.", "the U.S., x"],
  ["Wrens Ltd.", "Wrens Ltd., x"],
  ["wrens etc.", "wrens etc., x"],
  ["A wren sang.", "A wren sang, x"],
  ["Net shut…", "Net shut…, x"],
])("in a sentence “%s” keeps the stop that belongs to it", (first, expected) =>
  expect(compose([text(first), text("x"), text("y")], { as: "sentence", locale: "en-GB" }).text).toBe(
    `${expected} and y`,
  ),
);

test("two numbered lists do not run together in text", async () => {
  const list = await readHtml("<ol><li>a</li></ol>");
  expect(compose([list, list]).text).toBe("1. a\n\n1. a");
});

/** Sheets of the same columns, each in an order of its own, with blank edges, parted into pieces in any way. */
const columns = ["Date", "Ride", "Species", "New"];
const pickings = fc.array(
  fc.record({
    order: fc.shuffledSubarray(columns, { minLength: columns.length }),
    count: fc.integer({ min: 1, max: 4 }),
    left: fc.integer({ min: 0, max: 2 }),
    isParted: fc.boolean(),
    hasCaption: fc.boolean(),
    recipe: fc.constantFrom<Recipe>({}, { cite: "inline" }, { cite: "list" }, { style: "bare" }),
  }),
  { minLength: 1, maxLength: 4 },
);

test("rows of sheets in any order of columns, in any pieces, stand under their own names", () => {
  let n = 0;
  fc.assert(
    fc.property(pickings, (sheets) => {
      const expected: string[] = [];
      const pieces = sheets.flatMap(({ order, count, left, isParted, hasCaption }, at) => {
        const edge = Array.from({ length: left }, () => "");
        const line = (cells: readonly string[]) => [...edge, ...cells, ...edge].join(",");
        const body = Array.from({ length: count }, () => {
          const values = Object.fromEntries(columns.map((name) => [name, `${name}${++n}`]));
          expected.push(columns.map((name) => values[name]).join(","));
          return line(order.map((name) => values[name]!));
        });
        const letter = (column: number) => "ABCDEFGH"[column]!;
        const spot = (row: number) =>
          sheet(`S${at}!${letter(0)}${row}:${letter(order.length + 2 * left - 1)}${row}`);
        const more = hasCaption ? { caption: [{ type: "text", text: `S${at}` } as const] } : {};
        return isParted
          ? [
              of(table(line(order), 1, more), spot(1)),
              ...body.map((row, index) => of(table(row, 0), spot(index + 3))),
            ]
          : [of(table([line(order), ...body].join("\n"), 1, more), sheet(`S${at}!A1:H9`))];
      });
      const block = rows(pieces, sheets[0]!.recipe);
      const made = block.content.find((flow): flow is Table => flow.type === "table")!;
      const lines = compose([{ content: [made] }])
        .csv.trimEnd()
        .split("\n");
      const names = lines[0]!.split(",");
      const values = lines.slice(1).map((row) => {
        const cells = row.split(",");
        return columns.map((name) => cells[names.indexOf(name)]).join(",");
      });
      expect(values).toEqual(expected);
    }),
  );
});

const fileOf = async (text: string, document: string) => ({
  ...(await readDelimited(text, { separator: "," })),
  origin: { document },
});
/** What is laid out of these tables of different files, as lines with bars between the cells. */
const laid = async (recipe: Recipe, ...tables: readonly string[]) => {
  const pieces = await Promise.all(tables.map((text, at) => fileOf(text.replaceAll("/", "\n"), `${at}.csv`)));
  const { tsv, notices } = compose(pieces, recipe);
  const rows = tsv.replace(/\n$/, "").split("\n");
  return {
    rows: rows.map((row) => row.split("\t").join("|").trimEnd()),
    told: notices.map(({ code }) => code),
  };
};

test.each<[says: string, tables: readonly string[], rows: readonly string[], told?: readonly string[]]>([
  [
    "fewer of the names",
    ["Name,Ort,Tel/Anna,Hut,1", "Ort,Name/Quay,Per"],
    ["Name|Ort|Tel", "Anna|Hut|1", "Per|Quay|"],
  ],
  [
    "more of the names",
    ["Ort,Name/Quay,Per", "Name,Ort,Tel/Anna,Hut,1"],
    ["Ort|Name|Tel", "Quay|Per|", "Hut|Anna|1"],
  ],
  [
    "a header with a blank cell",
    ["Name,,Tel/Anna,Hut,1", "Tel,Name/2,Per"],
    ["Name||Tel", "Anna|Hut|1", "Per||2"],
  ],
  [
    "a title above",
    ["Spring list/Name,Ort/Anna,Hut", "Ort,Name/Quay,Per"],
    ["Spring list", "Name|Ort", "Anna|Hut", "Per|Quay"],
  ],
  [
    "two rows of names",
    ["Contact,,Where/Name,Tel,Ort/Anna,1,Hut", "Contact,,Where/Tel,Name,Ort/2,Per,Quay"],
    ["Contact||Where", "Name|Tel|Ort", "Anna|1|Hut", "Per|2|Quay"],
  ],
  [
    "names over figures",
    ["Net,5/Rope,6", "Item,Cost/Hook,7"],
    ["Item|Cost", "Net|5", "Rope|6", "Hook|7"],
    ["by-position"],
  ],
  [
    "names that disagree",
    ["Boat,Port/Gannet,West", "Item,Cost/Net,5"],
    ["Boat|Port", "Gannet|West", "Item|Cost", "Net|5"],
    ["by-position"],
  ],
  [
    "names of which one is the same",
    ["Name,Ort/Anna,Hut", "Name,Mail/Per,x"],
    ["Name|Ort", "Anna|Hut", "Name|Mail", "Per|x"],
    ["by-position"],
  ],
  ["data alone", ["Wren,5/Tern,6", "Knot,7/Ruff,8"], ["Wren|5", "Tern|6", "Knot|7", "Ruff|8"]],
  ["rows of names alone", ["Anna,Hut", "Anna,Hut,Ringer"], ["Anna|Hut|", "Anna|Hut|Ringer"]],
])("rows stand under their own names, or it is told: %s", async (_, tables, rows, told = []) => {
  expect(await laid({ as: "rows" }, ...tables)).toEqual({ rows, told });
});

test("where names disagree, a word makes them headers", async () => {
  const tables = ["Name,Ort/Anna,Hut", "Name,Mail/Per,x"];
  expect(await laid({ as: "rows", header: "yes" }, ...tables)).toEqual({
    rows: ["Name|Ort|Mail", "Anna|Hut|", "Per||x"],
    told: [],
  });
  const [first] = tables.map((text) => text.replaceAll("/", "\n"));
  const both = compose(
    [await fileOf(`Contact,,\n${first!.replace("Ort", "Tel,Ort").replace("Hut", "1,Hut")}`, "a")],
    { header: "yes" },
  );
  expect((both.content[0] as Table).headerRows).toBe(2);
});

test("side by side, no table stands a row lower because its header is not known", async () => {
  expect((await laid({ as: "columns" }, "Boat,Port/Gannet,West", "Item,Cost/Net,5")).rows).toEqual([
    "Boat|Port|Item|Cost",
    "Gannet|West|Net|5",
  ]);
  expect((await laid({ as: "columns" }, "Wren,5/Tern,6", "Item,Cost/Net,5")).rows).toEqual([
    "||Item|Cost",
    "Wren|5|Net|5",
    "Tern|6||",
  ]);
});

test("however columns are named, ordered and left out, each value stands under its name", async () => {
  const NAMES = ["Name", "Ort", "Tel", "Mail"];
  const order = fc.shuffledSubarray(NAMES, { minLength: 2 });
  await fc.assert(
    fc.asyncProperty(
      fc.array(order, { minLength: 1, maxLength: 5 }),
      fc.boolean(),
      async (orders, isTitled) => {
        // The first has all names, so each other one's are known.
        const tables = [NAMES, ...orders].map((names, at) => {
          const title = isTitled && at % 2 === 1 ? `List ${at}/` : "";
          return `${title}${names.join(",")}/${names.map((name) => `${name.toLowerCase()}${at}`).join(",")}`;
        });
        const { rows, told } = await laid({ as: "rows" }, ...tables);
        const head = rows.findIndex((row) => row.includes("|") && NAMES.every((name) => row.includes(name)));
        const names = rows[head]!.split("|");
        expect(told).toEqual([]);
        expect(rows.slice(head + 1)).toHaveLength(tables.length);
        for (const [at, row] of rows.slice(head + 1).entries())
          for (const [column, cell] of row.split("|").entries())
            if (cell !== "") expect(cell).toBe(`${names[column]!.toLowerCase()}${at}`);
      },
    ),
  );
});

test("many rows of one cell above others are nothing special", () => {
  const row = (...texts: string[]): Row =>
    texts.map((text) => ({ flows: text === "" ? [] : [paragraph(text)] }));
  const rows = [...Array.from({ length: 100_000 }, (_, at) => row(`wren ${at}`, "")), row("tern", "hut")];
  const table: Table = { type: "table", headerRows: 0, rows };
  const block = compose([{ content: [table] }, { content: [table] }], { as: "rows" });
  // Quadratic time would end in the limit of the test.
  expect((block.content.at(-1) as Table).rows.length).toBeGreaterThan(0);
  expect(block.text).toContain("wren 99999");
});
