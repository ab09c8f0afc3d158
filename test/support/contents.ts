import fc, { type Arbitrary } from "fast-check";
import type { Cell, Content, Flow, Item, Marks, Paragraph, Run, Table } from "drawer";

/** Words that try the writers: figures, formulas, markup, other scripts. */
const word = fc.oneof(
  {
    weight: 3,
    arbitrary: fc.constantFrom("tide", "wren", "spit", "net", "ride", "Réti", "ебб", "עוף", "🐦", "66.0"),
  },
  {
    weight: 1,
    arbitrary: fc.constantFrom(
      "007",
      "=1+1",
      "-3",
      "1.",
      "#",
      "*",
      "**",
      "_a_",
      "<b>",
      "&amp;",
      "[x](y)",
      "`",
      "|",
      "~~",
      "+",
      ">",
      "\\",
      "1)",
      "---",
      "!",
      "a*b",
      '"q"',
      "'",
    ),
  },
);
const text = fc.array(word, { minLength: 1, maxLength: 4 }).map((words) => words.join(" "));

const on = fc.constant(true as const);
const marks = (full: boolean): Arbitrary<Marks> =>
  fc
    .record(
      {
        ...{
          bold: on,
          italic: on,
          strike: on,
          link: fc.constantFrom("https://merrow-spit.example/a?b=1&c=2", "mailto:hut@merrow-spit.example"),
        },
        ...(full && {
          ...{
            underline: on,
            color: fc.constantFrom("#b03020", "#14606a"),
            background: fc.constant("#fff3d6"),
          },
          ...{ font: fc.constantFrom("Georgia", "Liberation Sans"), size: fc.constantFrom(9, 10.5, 18) },
        }),
      },
      { requiredKeys: [] },
    )
    .map((some) => some as Marks);

/** Runs without two neighbours that look the same, as readers give them. */
function runs(full: boolean): Arbitrary<Run[]> {
  return fc
    .array(fc.tuple(text, fc.option(marks(full), { nil: undefined, freq: 2 })), {
      minLength: 1,
      maxLength: 3,
    })
    .map((parts) =>
      parts.map(([words, look], index): Run => {
        const spaced = index < parts.length - 1 ? `${words} ` : words;
        return look && Object.keys(look).length > 0
          ? { type: "text", text: spaced, marks: look }
          : { type: "text", text: spaced };
      }),
    )
    .filter((list) =>
      list.every((run, i) => i === 0 || JSON.stringify(look(run)) !== JSON.stringify(look(list[i - 1]!))),
    );
}
const look = (run: Run) => Object.entries((run.type === "text" && run.marks) || {}).sort();

const paragraph = (full: boolean): Arbitrary<Paragraph> =>
  full
    ? fc
        .record({
          runs: runs(true),
          align: fc.option(fc.constantFrom("center" as const, "right" as const), { nil: undefined }),
        })
        .map(({ runs: own, align }) => ({ type: "paragraph", runs: own, ...(align && { align }) }))
    : looseRuns.map((own) => ({ type: "paragraph", runs: own }));

/** Runs for Markdown: marked words with spaces outside their marks, where Markdown keeps them. */
const looseRuns: Arbitrary<Run[]> = fc
  .array(fc.tuple(text, fc.option(marks(false), { nil: undefined, freq: 2 })), { minLength: 1, maxLength: 3 })
  .map((parts) =>
    parts.flatMap(([words, own], index): Run[] => {
      const marked = own && Object.keys(own).length > 0;
      return [
        ...(index > 0 ? [{ type: "text" as const, text: " " }] : []),
        marked ? { type: "text", text: words, marks: own } : { type: "text", text: words },
      ];
    }),
  )
  .map((list) => {
    const merged: Run[] = [];
    for (const run of list) {
      const last = merged.at(-1);
      if (run.type === "text" && !run.marks && last?.type === "text" && !last.marks)
        merged[merged.length - 1] = { type: "text", text: last.text + run.text };
      else merged.push(run);
    }
    return merged;
  });

const cell = (full: boolean): Arbitrary<Cell> =>
  fc.oneof(
    { weight: 1, arbitrary: fc.constant({ flows: [] } as Cell) },
    {
      weight: 4,
      arbitrary: (full ? runs(true) : looseRuns).map((own): Cell => ({
        flows: [{ type: "paragraph", runs: own }],
      })),
    },
    ...(full
      ? [
          {
            weight: 1,
            arbitrary: fc.constant<Cell>({
              flows: [{ type: "paragraph", runs: [{ type: "text", text: "66.0" }] }],
              align: "right",
              value: { type: "number", number: 66, format: "0.0" },
            }),
          },
          {
            weight: 1,
            arbitrary: fc.constant<Cell>({
              flows: [{ type: "paragraph", runs: [{ type: "text", text: "8 April" }] }],
              value: { type: "date", date: "2031-04-08", format: 'd" April"' },
            }),
          },
        ]
      : []),
  );

const table = (full: boolean): Arbitrary<Table> =>
  fc
    .tuple(fc.integer({ min: 1, max: 3 }), fc.integer({ min: 2, max: 3 }))
    .chain(([width, height]) =>
      fc.array(fc.array(cell(full), { minLength: width, maxLength: width }), {
        minLength: height,
        maxLength: height,
      }),
    )
    .filter((rows) => full || rows[0]!.some(({ flows }) => flows.length > 0))
    .map(
      (rows) =>
        ({ type: "table", headerRows: 1, rows: [rows[0]!.map(plainCell), ...rows.slice(1)] }) as Table,
    );

/** A header's cells are bold by being headers, so no mark says it. */
function plainCell({ flows }: Cell): Cell {
  const words = flows.length > 0 ? "Ride" : "";
  return { flows: words === "" ? [] : [{ type: "paragraph", runs: [{ type: "text", text: words }] }] };
}

function flow(full: boolean, depth: number): Arbitrary<Flow> {
  const leaves: Arbitrary<Flow>[] = [
    paragraph(full),
    paragraph(full),
    fc
      .record({
        level: fc.constantFrom(1 as const, 2 as const, 3 as const),
        runs: text.map((words): Run[] => [{ type: "text", text: words }]),
      })
      .map((own) => ({ type: "heading", ...own })),
    fc.constant<Flow>({ type: "divider" }),
    fc.constantFrom<Flow>(
      { type: "code", text: "gauge  1\n\n  <b> 2" },
      { type: "code", text: "x", language: "ts" },
    ),
    table(full),
  ];
  if (depth === 0) return fc.oneof(...leaves);
  return fc.oneof(
    ...leaves,
    list(full, depth),
    fc
      .array(paragraph(full), { minLength: 1, maxLength: 2 })
      .map((flows): Flow => ({ type: "quote", flows })),
  );
}

const looseOr = (full: boolean) => (full ? runs(true) : looseRuns);

function list(full: boolean, depth: number): Arbitrary<Flow> {
  const nested =
    depth > 0 ? fc.option(list(full, depth - 1), { nil: undefined, freq: 3 }) : fc.constant(undefined);
  const item = fc
    .tuple(looseOr(full), nested)
    .map(([own, inner]): Item => ({ flows: [{ type: "paragraph", runs: own }, ...(inner ? [inner] : [])] }));
  return fc
    .record({
      ordered: fc.boolean(),
      start: fc.constantFrom(1, 1, 5),
      numbers: fc.constantFrom(undefined, undefined, "lower-alpha" as const, "upper-roman" as const),
      bullet: fc.constantFrom(undefined, undefined, "✓", "–"),
      items: fc.array(item, { minLength: 1, maxLength: 3 }),
    })
    .map(({ ordered, start, items, numbers, bullet }) => ({
      type: "list",
      ordered,
      ...(ordered && start > 1 && { start }),
      ...(full && ordered && numbers && { marker: { numbers } }),
      ...(full && !ordered && bullet !== undefined && { marker: { bullet } }),
      items,
    }));
}

/** Content of every kind and look. */
export const contents: Arbitrary<Content> = fc.array(flow(true, 2), {
  minLength: 1,
  maxLength: 4,
}) as Arbitrary<Content>;

/** Content in whose paragraphs and headings notes are called. */
export const notedContents: Arbitrary<Content> = fc
  .tuple(contents, fc.array(paragraph(true), { minLength: 1, maxLength: 2 }))
  .map(([content, flows]) =>
    content.map((flow) =>
      flow.type === "paragraph" || flow.type === "heading"
        ? { ...flow, runs: [...flow.runs, { type: "note" as const, flows }] }
        : flow,
    ),
  );

/** Content that Markdown has a form for. */
export const plainContents: Arbitrary<Content> = fc.array(flow(false, 2), {
  minLength: 1,
  maxLength: 4,
}) as Arbitrary<Content>;

/** Tables that a sheet can hold whole: each cell looks one way throughout. */
export const sheetTables: Arbitrary<Table> = fc
  .tuple(fc.integer({ min: 1, max: 3 }), fc.integer({ min: 1, max: 4 }))
  .chain(([width, height]) => {
    const rows = fc.array(fc.array(sheetCell, { minLength: width, maxLength: width }), {
      minLength: height,
      maxLength: height,
    });
    const filled: Cell[] = Array.from({ length: width }, (_, at) => ({
      flows: [{ type: "paragraph", runs: [{ type: "text", text: `Ride ${at}` }] }],
    }));
    const typed: Cell[] = Array.from({ length: width }, () => number(66, "66.0", "0.0"));
    return rows.map((own): Table => ({ type: "table", headerRows: 1, rows: [filled, ...own, typed] }));
  });

const number = (value: number, text: string, format?: string): Cell => ({
  flows: [{ type: "paragraph", runs: [{ type: "text", text }] }],
  align: "right",
  value: { type: "number", number: value, ...(format && { format }) },
});

const sheetCell: Arbitrary<Cell> = fc.oneof(
  fc.constant<Cell>({ flows: [] }),
  fc.constantFrom<Cell>(number(-3, "-3"), number(0.5, "50%", "0%"), number(1234.5, "1,234.50", "#,##0.00")),
  fc.constant<Cell>({
    ...{ flows: [{ type: "paragraph", runs: [{ type: "text", text: "2031-04-08" }] }], align: "right" },
    value: { type: "date", date: "2031-04-08", format: "yyyy-mm-dd" },
  }),
  fc.constant<Cell>({
    flows: [{ type: "paragraph", runs: [{ type: "text", text: "TRUE" }] }],
    value: { type: "boolean", boolean: true },
  }),
  fc
    .tuple(
      fc.oneof(
        text,
        fc.constantFrom("007", "1e5", "-3", "=1+1", "+44 1", "@home", "1/2", "TRUE", "net 4\nnet 5"),
      ),
      fc.record({ bold: on, italic: on, color: fc.constant("#b03020") }, { requiredKeys: [] }),
      fc.record(
        { align: fc.constantFrom("center" as const, "right" as const), background: fc.constant("#ddeedd") },
        { requiredKeys: [] },
      ),
    )
    .map(([words, look, place]): Cell => {
      const marks = Object.keys(look).length > 0 ? { marks: look } : {};
      const runs = words
        .split("\n")
        .flatMap((line, index): Run[] => [
          ...(index > 0 ? [{ type: "break" as const }] : []),
          { type: "text", text: line, ...marks },
        ]);
      return { flows: [{ type: "paragraph", runs }], ...place };
    }),
);
