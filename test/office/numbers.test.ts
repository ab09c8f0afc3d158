import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { rawDocument } from "../support/document";
import { convert, officeTest } from "../support/libreoffice";
import { writeText } from "drawer";
import { readSource } from "drawer/files";

/** Every way to write numbers of the standard (ECMA-376 part 1, 17.18.59) that LibreOffice writes as that says. */
const FORMATS =
  "decimal upperRoman lowerRoman upperLetter lowerLetter ordinal cardinalText ordinalText chicago aiueo iroha decimalHalfWidth decimalEnclosedCircle aiueoFullWidth irohaFullWidth decimalZero ganada chosung decimalEnclosedCircleChinese ideographEnclosedCircle ideographTraditional taiwaneseCounting ideographLegalTraditional taiwaneseCountingThousand chineseCounting chineseLegalSimplified chineseCountingThousand koreanDigital koreanCounting koreanDigital2 russianLower russianUpper hebrew1 arabicAlpha arabicAbjad hindiVowels thaiLetters".split(
    " ",
  );
/** Those that it writes as decimal, with what the standard says of the eleventh. */
const ELEVENTH: Readonly<Record<string, string>> = {
  ...{ hex: "B", decimalFullWidth: "１１", decimalEnclosedFullstop: "⒒", decimalEnclosedParen: "⑾" },
  ...{ ideographDigital: "一一", japaneseCounting: "十一", ideographZodiac: "戌", hebrew2: "כ" },
  ...{ thaiNumbers: "๑๑", hindiNumbers: "११", numberInDash: "- 11 -" },
};
/** Words of languages that Drawer does not write numbers in. */
const UNKNOWN = ["vietnameseCounting", "thaiCounting", "bahtText", "dollarText", "hindiCounting"];
const NUMBERS = [1, 2, 3, 4, 9, 10, 11, 20, 21, 26, 27, 28, 34, 101];

const level = (format: string, start = 1, at = 0) =>
  `<w:lvl w:ilvl="${at}"><w:start w:val="${start}"/><w:numFmt w:val="${format}"/><w:lvlText w:val="%${at + 1})"/><w:lvlJc w:val="left"/></w:lvl>`;
const abstract = (id: number, levels: string, more = "") =>
  `<w:abstractNum w:abstractNumId="${id}"><w:multiLevelType w:val="multilevel"/>${more}${levels}</w:abstractNum>`;
const num = (id: number, of = id, more = "") =>
  `<w:num w:numId="${id}"><w:abstractNumId w:val="${of}"/>${more}</w:num>`;
const item = (list: number, text: string, at = 0) =>
  `<w:p><w:pPr><w:numPr><w:ilvl w:val="${at}"/><w:numId w:val="${list}"/></w:numPr></w:pPr><w:r><w:t>${text}</w:t></w:r></w:p>`;

const OFFICE = "http://schemas.openxmlformats.org/officeDocument/2006/relationships";
const documentOf = (body: string, numbering: string) =>
  rawDocument(body, `<Relationship Id="rId9" Type="${OFFICE}/numbering" Target="numbering.xml"/>`, {
    "word/numbering.xml": `<w:numbering xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main">${numbering}</w:numbering>`,
  });

describe("the numbers of lists, as LibreOffice shows them", () => {
  const folder = mkdtempSync(join(tmpdir(), "drawer-numbers-"));
  afterAll(() => rmSync(folder, { recursive: true, force: true }));
  /** A document as text, by us and by LibreOffice: its lines without the space at their ends. */
  const shown = async (name: string, body: string, numbering: string) => {
    writeFileSync(join(folder, `${name}.docx`), documentOf(body, numbering));
    convert(folder, "txt:Text (encoded):UTF8", [`${name}.docx`]);
    convert(folder, "odt", [`${name}.docx`]);
    const lines = (text: string) =>
      text
        .replace(/^\ufeff/, "")
        .split(/\r?\n/)
        .map((line) => line.replace(/\s+/g, " ").trim())
        .filter(Boolean);
    const ours = async (format: string) => {
      const source = await readSource(
        new Uint8Array(readFileSync(join(folder, `${name}.${format}`))),
        `${name}.${format}`,
      );
      const { content, notices } = source.at();
      return { lines: lines(writeText(content)), notices };
    };
    return {
      theirs: lines(readFileSync(join(folder, `${name}.txt`), "utf8")),
      docx: await ours("docx"),
      odt: await ours("odt"),
    };
  };

  officeTest("every way of the standard, near and far, from docx and from odt", async () => {
    const lists = FORMATS.flatMap((format) => NUMBERS.map((number) => ({ format, number })));
    const { theirs, docx, odt } = await shown(
      "forms",
      lists.map(({ format, number }, at) => item(at + 1, `${format} ${number}`)).join(""),
      lists.map(({ format, number }, at) => abstract(at + 1, level(format, number))).join("") +
        lists.map((_, at) => num(at + 1)).join(""),
    );
    expect(docx.lines).toEqual(theirs);
    expect(odt.lines).toEqual(theirs);
  });

  officeTest(
    "what LibreOffice writes as decimal is as the standard says; what we do not write is counted",
    async () => {
      const formats = [...Object.keys(ELEVENTH), ...UNKNOWN];
      const { docx } = await shown(
        "others",
        formats.map((format, at) => item(at + 1, format)).join(""),
        formats.map((format, at) => abstract(at + 1, level(format, 11))).join("") +
          formats.map((_, at) => num(at + 1)).join(""),
      );
      expect(docx.lines).toEqual(formats.map((format) => `${ELEVENTH[format] ?? "11"}) ${format}`));
      expect(docx.notices.map(({ message }) => message)).toEqual([
        `${UNKNOWN.length} items of “others.docx” are numbered in a way that Drawer does not write: their numbers are plain here.`,
      ]);
    },
  );

  officeTest("a style's levels, a form that changes within a list, and letters past the last", async () => {
    const letters = Array.from({ length: 29 }, (_, at) => item(4, `letter ${at + 1}`));
    const { theirs, docx, odt } = await shown(
      "linked",
      [
        ...[item(1, "linked"), item(1, "linked on"), item(1, "below", 1)],
        ...[item(2, "first"), item(2, "second"), item(3, "third in another form"), item(2, "fourth")],
        ...letters,
      ].join(""),
      abstract(1, "", '<w:numStyleLink w:val="Rounds"/>') +
        abstract(2, level("lowerLetter") + level("upperRoman", 1, 1), '<w:styleLink w:val="Rounds"/>') +
        abstract(3, level("decimal")) +
        abstract(4, level("lowerLetter")) +
        num(1) +
        num(2, 3) +
        num(3, 3, `<w:lvlOverride w:ilvl="0">${level("upperRoman")}</w:lvlOverride>`) +
        num(4),
    );
    expect(docx.lines).toEqual(theirs);
    expect(odt.lines).toEqual(theirs);
    expect(docx.lines.slice(-3)).toEqual(["aa) letter 27", "bb) letter 28", "cc) letter 29"]);
  });

  test("forms of one's own: a leading zero is kept, more of them are counted", async () => {
    const own = (format: string) => `<w:numFmt w:val="custom" w:format="${format}"/>`;
    const beside = (format: string) =>
      `<mc:AlternateContent xmlns:mc="http://schemas.openxmlformats.org/markup-compatibility/2006"><mc:Choice Requires="w14">${own(format)}</mc:Choice><mc:Fallback><w:numFmt w:val="decimal"/></mc:Fallback></mc:AlternateContent>`;
    const body = item(1, "one") + item(1, "two") + item(2, "three");
    const levels = (format: (sample: string) => string) =>
      ["01, 02, 03, ...", "001, 002, 003, ..."]
        .map((sample, at) => abstract(at + 1, level("decimal").replace(/<w:numFmt[^>]*>/, format(sample))))
        .join("") +
      num(1) +
      num(2);
    // LibreOffice knows no forms of one's own: they are as the standard says (ECMA-376 part 1, 17.9.17).
    for (const format of [own, beside]) {
      const source = await readSource(documentOf(body, levels(format)), "own.docx");
      const { content, notices } = source.at();
      expect(writeText(content).match(/.+/g)).toEqual(["01) one", "02) two", "1) three"]);
      expect(notices.map(({ message }) => message).join()).toMatch(/^One item/);
    }
  });
});
