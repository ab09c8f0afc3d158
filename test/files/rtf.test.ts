import { spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";
import fc from "fast-check";
import { knownText } from "../office/pdf-texts";
import { runs } from "../support/counts";
import { demoFile } from "../support/demo";
import { convert, corpusTest } from "../support/libreoffice";
import { compose, readFlavours, type DrawerError } from "drawer";
import { readSource } from "drawer/files";

const folder = mkdtempSync(join(tmpdir(), "drawer-rtf-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const bytesOf = (name: string) => new Uint8Array(readFileSync(join(folder, name)));
const latin = (text: string) => Uint8Array.from(text, (sign) => sign.charCodeAt(0));
const rtf = (body: string, head = "") =>
  readSource(
    latin(`{\\rtf1\\ansi\\ansicpg1252\\deff0{\\fonttbl{\\f0\\fcharset0 Serif;}}${head}\n${body}}`),
    "made.rtf",
  );
const markdown = async (body: string, head?: string) =>
  compose([(await rtf(body, head)).at()], { tidy: [] }).markdown;

corpusTest("what LibreOffice saves as RTF is read as the document that it was", async () => {
  const known = knownText(5, 4);
  writeFileSync(join(folder, "known.md"), known.markdown);
  spawnSync("pandoc", ["known.md", "-f", "markdown", "-o", "known.docx"], { cwd: folder });
  writeFileSync(join(folder, "diary.docx"), demoFile("diary.docx"));
  convert(folder, "rtf:Rich Text Format", ["diary.docx", "known.docx"]);
  for (const name of ["diary", "known"]) {
    const [saved, was] = await Promise.all(
      ["rtf", "docx"].map(async (ending) => readSource(bytesOf(`${name}.${ending}`), `${name}.${ending}`)),
    );
    expect(compose([saved!.at()], { style: "host", header: "no" }).markdown).toBe(
      compose([was!.at()], { style: "host", header: "no" }).markdown,
    );
    expect([name, saved!.title, saved!.notices]).toEqual([name, was!.title, []]);
  }
});

corpusTest(
  "letters look as their style and those that it is based on say, as LibreOffice shows them",
  async () => {
    const head =
      "{\\colortbl;\\red200\\green0\\blue0;}{\\stylesheet{\\s0\\f0\\fs22 Normal;}{\\s70\\sbasedon0 List Number;}" +
      "{\\s72\\sbasedon0\\b\\i\\cf1 Warning;}{\\s71\\sbasedon72 Aside;}{\\s73\\sbasedon71\\b0\\fs40 Shout;}}";
    const words = [
      "\\s70 plain",
      "\\s71 as its base",
      "\\s70\\fs28 large",
      "\\s71\\b0 slanted",
      "\\s73 of three",
      "\\s0 plain too",
    ];
    const body = words.map((each) => `\\pard\\plain ${each}\\par\n`).join("");
    const source = await rtf(body, head);
    writeFileSync(
      join(folder, "styles.rtf"),
      latin(`{\\rtf1\\ansi\\ansicpg1252\\deff0{\\fonttbl{\\f0\\fcharset0 Serif;}}${head}\n${body}}`),
    );
    convert(folder, "docx", ["styles.rtf"]);
    const shown = await readSource(bytesOf("styles.docx"), "styles.docx");
    expect(source.at().content).toEqual(shown.at().content);
  },
);

test("characters of code pages and of Unicode, fields, notes, hidden and deleted text, and merged cells are read as the standard says", async () => {
  const fonts =
    "{\\fonttbl{\\f1\\fcharset204 Cyr;}{\\f2\\fcharset128 Jap;}{\\f3\\fcharset2 Symbol;}{\\f4\\fcharset177 Heb;}}";
  expect(
    await markdown(
      "{\\f1 \\'d7\\'e0\\'e9\\'ea\\'e0} {\\f2 \\'92\\'b9} {\\f4 \\'f9\\'ec} \\u8364?\\uc2\\u169xx\\uc1 \\u-10179?\\u-8704?{\\f3 \\'b7} \\ldblquote a\\rdblquote\\~b\\par",
      fonts,
    ),
  ).toBe("Чайка 鳥 של €©😀• “a”\u00a0b");
  expect(
    await markdown(
      'See {\\field{\\*\\fldinst{HYPERLINK "https://merrow-spit.example/tides"}}{\\fldrslt{\\ul the tides}}}{\\v hidden}{\\deleted gone}.{\\footnote\\pard The \\b bar\\b0 .\\par}\\par',
    ),
  ).toBe("See [the tides](https://merrow-spit.example/tides).[^1]\n\n[^1]: The **bar**.");
  expect(
    await markdown("{\\*\\unknown not shown}{\\info{\\title Boards}}{\\header Head\\par}Shown\\par"),
  ).toBe("Shown");
  expect((await rtf("{\\info{\\title Boards}}x\\par")).title).toBe("Boards");
  const table = await rtf(
    "\\trowd\\trhdr\\clmgf\\cellx1000\\clmrg\\cellx2000\\cellx3000\\pard\\intbl Two\\cell\\cell One\\cell\\row" +
      "\\trowd\\clvmgf\\cellx1000\\cellx2000\\cellx3000\\pard\\intbl Down\\cell a\\par b\\cell 1\\cell\\row" +
      "\\trowd\\clvmrg\\cellx1000\\cellx3000\\pard\\intbl\\cell wide\\cell\\row\\pard After\\par",
  );
  expect(compose([table.at()]).html.replace(/ style="[^"]*"/g, "")).toMatch(
    /<th colspan="2"[^>]*>Two<\/th><th[^>]*>One<\/th>.*<td rowspan="2"[^>]*>Down<\/td><td[^>]*>.*a.*b.*<\/td><td[^>]*>1<\/td>.*<td colspan="2"[^>]*>wide<\/td>/s,
  );
  const picture = Buffer.from(demoFile("sketches/tide.png")).toString("hex");
  const shown = await rtf(
    `{\\*\\shppict{\\pict\\pngblip\\picw10\\pich10\n${picture}}}{\\nonshppict{\\pict\\wmetafile8 00}}\\par`,
  );
  expect(Buffer.compare([...shown.at("i1").pictures!.values()][0]!, demoFile("sketches/tide.png"))).toBe(0);
  const list =
    "{\\*\\listtable{\\list\\listtemplateid1{\\listlevel\\levelnfc4\\levelstartat3{\\leveltext\\'02\\'00);}{\\levelnumbers\\'01;}}{\\listlevel\\levelnfc23{\\leveltext\\'01\\u8226 ?;}{\\levelnumbers;}}\\listid7}}{\\*\\listoverridetable{\\listoverride\\listid7\\listoverridecount0\\ls1}}";
  expect(
    compose([
      (
        await rtf(
          "{\\listtext c)\\tab}\\ls1\\ilvl0 Nets\\par\\ilvl1 mended\\par\\ilvl0 Poles\\par\\pard\\plain End\\par",
          list,
        )
      ).at(),
    ]).text,
  ).toBe("c) Nets\n   - mended\nd) Poles\nEnd");
});

test("it is told by its bytes, taken where a clipboard has no HTML, and refused where it is none or is built to take all", async () => {
  const bytes = latin("{\\rtf1\\ansi First {\\b wheatear}\\par}");
  expect(compose([await readFlavours({ rtf: bytes, text: "First wheatear" })]).markdown).toBe(
    "First **wheatear**",
  );
  expect(compose([await readFlavours({ html: "<i>a</i>", rtf: bytes })]).markdown).toBe("*a*");
  writeFileSync(join(folder, "letter.doc"), bytes);
  const run = (...words: string[]) =>
    spawnSync(process.execPath, [resolve("dist/bin/main.js"), ...words], { cwd: folder, encoding: "utf8" });
  expect(run("look", "letter.doc").stdout).toBe(
    "p1  paragraph  First wheatear\n“letter.doc” is rtf by its content, and was read as that. If that is wrong, say what it is (--type in a command).\n",
  );
  await expect(readSource(latin("plain"), "a.rtf")).rejects.toMatchObject({ reason: "unreadable/not-one" });
  await expect(readSource(latin(`{\\rtf1 ${"{".repeat(5000)}`), "deep.rtf")).rejects.toMatchObject({
    code: "too-large",
  });
  // Each style is based on the one before it, the first on the last.
  const many = Array.from({ length: 20_000 }, (_, at) => at + 1);
  const styles = many.map((at) => `{\\s${at}\\sbasedon${at - 1 || many.length} S${at};}`).join("");
  const chained = await rtf(
    many.map((at) => `\\pard\\plain\\s${at} a\\par\n`).join(""),
    `{\\stylesheet${styles}}`,
  );
  expect(chained.at().content).toHaveLength(many.length);
  const whole = latin(
    '{\\rtf1\\ansi{\\fonttbl{\\f0 A;}}\\trowd\\cellx9\\pard\\intbl a\\cell\\row\\pard {\\footnote x\\par}{\\field{\\*\\fldinst HYPERLINK "x"}{\\fldrslt y}}{\\pict\\pngblip 00}\\u8364?\\bin3 abc\\par}',
  );
  await fc.assert(
    fc.asyncProperty(
      fc.array(fc.tuple(fc.nat(whole.length - 1), fc.nat(255)), { minLength: 1 }),
      fc.nat(whole.length),
      async (changes, cut) => {
        const changed = whole.slice(0, Math.max(6, cut));
        for (const [at, value] of changes) if (at > 5 && at < changed.length) changed[at] = value;
        const outcome = await readSource(changed, "x.rtf", { format: "rtf" }).then(
          (source) => source.at().content.length >= 0,
          (error: DrawerError) => /^(?:unreadable|too-large)/.test(error.reason ?? `${error}`),
        );
        expect(outcome).toBe(true);
      },
    ),
    runs(200, 5000),
  );
});
