import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import fc from "fast-check";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { contents } from "../support/contents";
import { convert, officeTest } from "../support/libreoffice";
import { OFFICE_FORMATS, writeOffice } from "../support/office";
import { rawWorkbook, type RawCell } from "../support/workbook";
import { paragraph, runsText, type Cell, type Picture, type Table } from "drawer";
import { readSource, writeCells } from "drawer/files";

const folder = mkdtempSync(join(tmpdir(), "drawer-ranges-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const file = (name: string) => new Uint8Array(readFileSync(join(folder, name)));
const textOf = ({ flows: [only] }: Cell) => (only?.type === "paragraph" ? runsText(only.runs) : "");

/** A cell, with what a sheet shows of it. */
type Made = { readonly raw: RawCell; readonly shown: string } | undefined;

const COLUMNS = 9;
/** Texts that pack badly, so that a sheet comes in many pieces. */
const word = fc.string({
  minLength: 40,
  maxLength: 120,
  unit: fc.constantFrom(..."abcdefghijklmnopqrstuvwxyzäß"),
});
const cell: fc.Arbitrary<Made> = fc.oneof(
  { weight: 4, arbitrary: fc.constant(undefined) },
  {
    weight: 6,
    arbitrary: word.map((text) => ({
      raw: { xml: `<is><t>${text}</t></is>`, attributes: ' t="inlineStr"' },
      shown: text,
    })),
  },
  {
    weight: 3,
    arbitrary: fc.integer({ min: -999, max: 999 }).map((number) => ({
      raw: { xml: `<v>${number}</v>`, format: "0.00" },
      shown: number.toFixed(2),
    })),
  },
  { weight: 1, arbitrary: fc.constant({ raw: { xml: "<f>1+1</f><v>2</v>", format: "0" }, shown: "2" }) },
  // A format that shows nothing of a number: the place is blank.
  { weight: 1, arbitrary: fc.constant({ raw: { xml: "<v>5</v>", format: ";;;" }, shown: "" }) },
);
const sheet = fc
  .record({
    /** How many columns the first rows have; those of the others come only later. */
    first: fc.constantFrom(2, 4, COLUMNS),
    /** Whole rows may be blank, also the first ones. */
    rows: fc.array(
      fc.oneof(
        { weight: 5, arbitrary: fc.array(cell, { minLength: COLUMNS, maxLength: COLUMNS }) },
        { weight: 1, arbitrary: fc.constant<Made[]>([]) },
      ),
      { minLength: 500, maxLength: 950, size: "max" },
    ),
    merges: fc.array(
      fc.record({ row: fc.nat(120), column: fc.nat(3), height: fc.nat(5), width: fc.nat(3) }),
      {
        maxLength: 3,
      },
    ),
    hidden: fc.nat(9),
    /** Whether names of elements have a prefix, and whether rows and cells say where they stand. */
    isPrefixed: fc.boolean(),
    isPlaced: fc.boolean(),
  })
  .map(({ first, rows, ...facts }) => ({
    ...facts,
    rows: rows.map((row, at, all) => (at < all.length - 30 ? row.slice(0, first) : row)),
  }));

type Sheet = typeof sheet extends fc.Arbitrary<infer Value> ? Value : never;

function workbookOf({ rows, merges, hidden, isPrefixed, isPlaced }: Sheet): Uint8Array {
  const refs = merges.map(({ row, column, height, width }) =>
    writeCells({ top: row, left: column, bottom: row + height, right: column + width + 1 }),
  );
  // What stands between is long, so that it comes in pieces of its own.
  const long = `<!-- ${Array.from({ length: 9000 }, (_, at) => ((at * 2654435761) % 4294967296).toString(36)).join(" ")} -->`;
  const whole = rawWorkbook(
    rows.map((row) => row.map((made) => made?.raw ?? (isPlaced ? undefined : { xml: "" }))),
    {
      rowAttributes: (row) => (row % 10 === hidden ? ' hidden="1"' : ""),
      after:
        long +
        (refs.length > 0
          ? `<mergeCells>${refs.map((ref) => `<mergeCell ref="${ref}"/>`).join("")}</mergeCells>`
          : "") +
        long +
        '<hyperlinks><hyperlink ref="A2:A30" r:id="rId1"/></hyperlinks>',
      relations:
        '<Relationship Id="rId1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/hyperlink" Target="https://merrow-spit.example/tides" TargetMode="External"/>',
    },
  );
  const parts = unzipSync(whole);
  const name = "xl/worksheets/sheet1.xml";
  let xml = strFromU8(parts[name]!);
  if (!isPlaced) xml = xml.replace(/(<(?:row|c)\b[^>]*?) r="[^"]*"/g, "$1");
  if (isPrefixed) xml = xml.replace(/(<\/?)(?=[a-z])/gi, "$1x:").replace('xmlns="', 'xmlns:x="');
  return zipSync({ ...parts, [name]: strToU8(xml) });
}

/** Most are near the top, and on the sheet: of the rest nothing needs to be read for them. */
const place = fc.tuple(
  fc.oneof({ weight: 4, arbitrary: fc.nat(60) }, fc.nat(950)),
  fc.oneof({ weight: 6, arbitrary: fc.nat(COLUMNS - 1) }, fc.nat(COLUMNS + 2)),
);
const rectangles = fc.array(
  fc.tuple(place, place).map(([[a, b], [c, d]]) => ({
    ...{ top: Math.min(a, c), bottom: Math.max(a, c), left: Math.min(b, d), right: Math.max(b, d) },
  })),
  { minLength: 12, maxLength: 12 },
);

officeTest(
  "a range that alone is read says what it says in the whole sheet, what its file says, and what LibreOffice makes of it",
  async () => {
    const samples = fc.sample(fc.tuple(sheet, rectangles), { numRuns: 4, seed: 20310408 });
    samples.forEach(([made], at) => writeFileSync(join(folder, `${at}.xlsx`), workbookOf(made)));
    convert(
      folder,
      "ods",
      samples.map((_, at) => `${at}.xlsx`),
    );
    for (const [at, [{ rows, merges }, asked]] of samples.entries()) {
      const wholes = await Promise.all(
        ["xlsx", "ods"].map(async (format) => {
          const bytes = file(`${at}.${format}`);
          const whole = await readSource(bytes, `${at}.${format}`);
          expect(whole.parts().map(({ text }) => text)).toHaveLength(1);
          for (const rectangle of asked) {
            const spot = writeCells(rectangle);
            const alone = (await readSource(bytes, `${at}.${format}`)).at(spot);
            expect([at, format, spot, JSON.stringify(alone)]).toEqual([
              ...[at, format, spot, JSON.stringify(whole.at(spot))],
            ]);
          }
          return whole;
        }),
      );
      for (const { top, left, bottom, right } of asked) {
        const spot = writeCells({ top, left, bottom, right });
        const [ours, theirs] = wholes.map((whole) =>
          ((whole.at(spot).content as readonly Table[])[0]?.rows ?? []).map((row) =>
            row.map((each) => [textOf(each), each.colspan ?? 1, each.rowspan ?? 1]),
          ),
        );
        expect([at, spot, JSON.stringify(ours)]).toEqual([at, spot, JSON.stringify(theirs)]);
        if (merges.length > 0) continue;
        const said = rows
          .slice(top, bottom + 1)
          .map((row) =>
            Array.from({ length: right - left + 1 }, (_, column) => row[left + column]?.shown ?? ""),
          );
        expect(
          ours!.map((row) =>
            row
              .map(([text]) => text)
              .join("|")
              .replace(/\|+$/, ""),
          ),
        ).toEqual(said.slice(0, ours!.length).map((row) => row.join("|").replace(/\|+$/, "")));
      }
    }
  },
);

/** Words that pack badly between flows of all kinds: a document that comes in many pieces. */
const long = fc
  .array(fc.tuple(contents, fc.array(word, { minLength: 4, maxLength: 9 })), {
    minLength: 60,
    maxLength: 60,
    size: "max",
  })
  .map((pieces) =>
    pieces.flatMap(([content, words]) => [...content, ...words.map((text) => paragraph(text))]),
  );

test.each(["docx", "odt"] as const)(
  "a spot of a %s that alone is read says what it says when all is read",
  async (format) => {
    for (const content of fc.sample(long, { numRuns: 1, seed: 20310408 })) {
      const bytes = await writeOffice({ content }, format);
      const whole = await readSource(bytes, `long.${format}`);
      const spots = whole.parts().map(({ spot }) => spot);
      const sections = whole.parts().flatMap(({ what }) => /s\d+/.exec(what) ?? []);
      for (const spot of [
        ...spots.filter((_, at) => at % 41 === 0),
        ...spots.slice(-2),
        ...sections.slice(0, 5),
        ...sections.slice(-3),
        "p3..p60",
      ]) {
        const alone = (await readSource(bytes, `long.${format}`)).at(spot);
        expect([spot, JSON.stringify(alone)]).toEqual([spot, JSON.stringify(whole.at(spot))]);
      }
    }
  },
);

test("of a document with many pictures those alone are unpacked that are asked for", async () => {
  const png = (at: number) =>
    strToU8(`\u0089PNG\r\n\u001a\n\0\0\0\rIHDR\0\0\0\x10\0\0\0\x10 sketch ${at}`, true);
  const W = 'xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main" xmlns:a="a" xmlns:r="r"';
  const ids = Array.from({ length: 100 }, (_, at) => at);
  const picture = (at: number) => `<w:p><w:r><w:drawing><a:blip r:embed="r${at}"/></w:drawing></w:r></w:p>`;
  const bytes = zipSync({
    "word/document.xml": strToU8(
      `<w:document ${W}><w:body>${ids.map(picture).join("")}</w:body></w:document>`,
    ),
    "word/_rels/document.xml.rels": strToU8(
      `<Relationships>${ids.map((at) => `<Relationship Id="r${at}" Target="media/${at}.png"/>`).join("")}</Relationships>`,
    ),
    ...Object.fromEntries(ids.map((at) => [`word/media/${at}.png`, png(at)])),
  });
  // Each says that it comes to 3 MB: all together are more than may be unpacked of one file.
  const view = new DataView(bytes.buffer);
  for (let at = 0; at < bytes.length - 46; at++)
    if (view.getUint32(at) === 0x504b0102 && strFromU8(bytes.subarray(at + 46, at + 56)) === "word/media")
      view.setUint32(at + 24, 3_000_000, true);
  const source = await readSource(bytes, "sketches.docx");
  expect(source.parts()).toHaveLength(100);
  for (const spot of ["i1", "i7", "i100"]) {
    const { content, pictures } = source.at(spot);
    const { hash } = content[0] as Picture;
    expect([...pictures!.keys()]).toEqual([hash]);
    expect(strFromU8(pictures!.get(hash)!.subarray(24))).toBe(` sketch ${Number(spot.slice(1)) - 1}`);
  }
  expect(() => source.at()).toThrow("unpacks to more than 256 MB");
});

test("a file that is cut short inside is refused where what is missing is asked for, and never taken for a blank one", async () => {
  const content = Array.from({ length: 3000 }, (_, at) => paragraph(`On day ${at} the wind was north-west.`));
  for (const [format, part, asked] of [
    ["docx", "word/document.xml", "p2999"],
    ["odt", "content.xml", "p2999"],
    ["xlsx", "xl/worksheets/sheet1.xml", "A2999"],
    ["ods", "content.xml", "A2999"],
  ] as const) {
    const parts = unzipSync(await writeOffice({ content }, format));
    const cut = zipSync({ ...parts, [part]: parts[part]!.slice(0, -20_000) });
    for (const spot of [undefined, asked]) {
      const read = async () => (await readSource(cut, `cut.${format}`)).at(spot);
      await expect(read()).rejects.toThrow(`“cut.${format}” is damaged`);
    }
    const look = async () => (await readSource(cut, `cut.${format}`)).parts();
    await expect(look()).rejects.toThrow(`“cut.${format}” is damaged`);
  }
});

test("a file in which a bit has changed says so, and never says another figure", async () => {
  const rows = Array.from({ length: 400 }, (_, at) => `day ${at},${(at * 7919) % 1009}\n`);
  const csv = await readSource(strToU8(`Day,Birds\n${rows.join("")}`), "birds.csv");
  const parts = {
    docx: "word/document.xml",
    odt: "content.xml",
    xlsx: "xl/worksheets/sheet1.xml",
    ods: "content.xml",
  };
  for (const format of OFFICE_FORMATS) {
    const whole = await writeOffice(csv.at(), format);
    for (const level of [0, 6] as const) {
      const bytes = zipSync(unzipSync(whole), { level });
      const says = async (file: Uint8Array) =>
        JSON.stringify((await readSource(file, `changed.${format}`)).at().content);
      const unchanged = await says(bytes);
      const letters = strFromU8(bytes, true);
      const headed = new RegExp(`PK\\x03\\x04[^]{26}${parts[format]}`).exec(letters)!;
      const begin = headed.index + headed[0].length;
      const end = letters.indexOf("PK", begin);
      await fc.assert(
        fc.asyncProperty(fc.integer({ min: begin, max: end - 1 }), fc.nat(7), async (at, bit) => {
          const changed = bytes.slice();
          changed[at]! ^= 1 << bit;
          // What fills up the last byte of what is packed says nothing.
          const said = await says(changed).catch(({ message }: Error) => message);
          expect(said === unchanged || said.includes(`“changed.${format}” is damaged`)).toBe(true);
        }),
        { numRuns: 40 },
      );
    }
  }
});
