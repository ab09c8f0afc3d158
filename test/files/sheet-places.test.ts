import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import fc from "fast-check";
import { strToU8, zipSync } from "fflate";
import { convert, officeTest } from "../support/libreoffice";
import { readSource } from "drawer/files";

const folder = mkdtempSync(join(tmpdir(), "drawer-sheet-places-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** What looks like a sheet, or like the end of all of them, and is none. */
const decoy = fc.constantFrom(
  ...['<!-- <table:table table:name="No"> -->', "<!-- </table:table></office:spreadsheet> - > -->", ""],
  ...["<!---->", '<?note <table:table table:name="No"> ?>', "<!--\n</table:table\n>-->"],
);
/** What a cell says, and how it is written. */
const said = fc.constantFrom(
  { text: "</table:table>", xml: "<![CDATA[</table:table>]]>" },
  { text: '<table:table table:name="No">]', xml: '<![CDATA[<table:table table:name="No">]]]>' },
  { text: "5 > 4", xml: "5 > 4" },
  { text: "first wheatear", xml: "first<!-- </office:spreadsheet> --> wheatear" },
);
/** Text that packs badly, so that the part comes in many pieces, which end anywhere. */
const filling = fc
  .tuple(fc.nat(200_000), fc.nat())
  .map(([length, seed]) =>
    Array.from({ length: length / 8 }, (_, at) =>
      (((at + seed) * 2654435761) % 4294967296).toString(36),
    ).join(" "),
  );
const name = fc.tuple(fc.constantFrom("Ringing", "a > b", "Kosten für Öl", "it's"), fc.nat(9));
const workbook = fc.record({
  sheets: fc.uniqueArray(fc.record({ name, said, filling, before: decoy, inside: decoy }), {
    minLength: 2,
    maxLength: 5,
    selector: ({ name: [word, number] }) => `${word} ${number}`,
  }),
  prefix: fc.constantFrom("table", "t", "table-of"),
  newline: fc.constantFrom(" ", "\n", "\t"),
});

type Made = typeof workbook extends fc.Arbitrary<infer Value> ? Value : never;

const nameOf = ([word, number]: Made["sheets"][number]["name"]) => `${word} ${number}`;

const withPrefix = (xml: string, prefix: string) => xml.replace(/(<\/?|\s)table:/g, `$1${prefix}:`);

function contentOf({ sheets, prefix, newline }: Made): string {
  const urn = (what: string) => `urn:oasis:names:tc:opendocument:xmlns:${what}:1.0`;
  const tables = sheets.map(({ name, said, filling, before, inside }) => {
    const written = nameOf(name).includes("'") ? `"${nameOf(name)}"` : `'${nameOf(name)}'`;
    const cell = (xml: string) =>
      `<table:table-cell office:value-type="string"><text:p>${xml}</text:p></table:table-cell>`;
    return `${before}<table:table${newline}table:name=${written}${newline}><table:table-row>${cell(said.xml)}${inside}</table:table-row><table:table-row>${cell(filling)}</table:table-row></table:table${newline}>`;
  });
  const body = `${tables.join("")}<table:dde-links><table:dde-link><office:dde-source office:dde-application="x" office:dde-topic="y" office:dde-item="z"/><table:table table:name="Linked"><table:table-row/></table:table></table:dde-link></table:dde-links>`;
  return `<?xml version="1.0" encoding="UTF-8"?><office:document-content xmlns:office="${urn("office")}" xmlns:text="${urn("text")}" xmlns:${prefix}="${urn("table")}" office:version="1.3"><office:body><office:spreadsheet>${withPrefix(body, prefix)}</office:spreadsheet></office:body></office:document-content>`;
}

const MANIFEST =
  '<manifest:manifest xmlns:manifest="urn:oasis:names:tc:opendocument:xmlns:manifest:1.0" manifest:version="1.3"><manifest:file-entry manifest:full-path="/" manifest:media-type="application/vnd.oasis.opendocument.spreadsheet"/><manifest:file-entry manifest:full-path="content.xml" manifest:media-type="text/xml"/></manifest:manifest>';

officeTest(
  "the sheets of an ods are those that LibreOffice finds, whatever in it looks like one, and wherever its pieces end",
  async () => {
    const samples = fc.sample(workbook, { numRuns: 8, seed: 20310408 });
    samples.forEach((made, at) =>
      writeFileSync(
        join(folder, `${at}.ods`),
        zipSync({
          mimetype: [strToU8("application/vnd.oasis.opendocument.spreadsheet"), { level: 0 }],
          "META-INF/manifest.xml": strToU8(MANIFEST),
          "content.xml": strToU8(contentOf(made)),
        }),
      ),
    );
    convert(
      folder,
      "xlsx",
      samples.map((_, at) => `${at}.ods`),
    );
    for (const [at, { sheets, prefix }] of samples.entries()) {
      const [ours, theirs] = await Promise.all(
        ["ods", "xlsx"].map(async (format) => {
          const file = `${at}.${format}`;
          return (await readSource(new Uint8Array(readFileSync(join(folder, file))), file)).parts();
        }),
      );
      expect(ours).toEqual(theirs);
      expect(ours).toHaveLength(sheets.length);
      sheets.forEach(({ said: { text } }, index) =>
        expect(ours![index]!.text).toContain(withPrefix(text, prefix)),
      );
    }
  },
);
