import { execFileSync } from "node:child_process";
import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { convert, corpusTest, officeTest } from "../support/libreoffice";
import { compose, picturesOf, type Content } from "drawer";
import { putInto, readSource, type Source } from "drawer/files";

const folder = mkdtempSync(join(tmpdir(), "drawer-flat-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const bytesOf = (name: string) => new Uint8Array(readFileSync(join(folder, name)));

/** A file of the sample data as LibreOffice makes it: the package, and the single XML file of that. */
function made(name: string, packed: "odt" | "ods"): readonly [packed: string, flat: string] {
  const filters = { odt: "fodt:OpenDocument Text Flat XML", ods: "fods:OpenDocument Spreadsheet Flat XML" };
  const names = [packed, packed.replace("o", "fo")].map((ending) => name.replace(/\w+$/, ending));
  cpSync(`demo/${name}`, join(folder, name));
  convert(folder, packed, [name]);
  convert(folder, filters[packed], [names[0]!]);
  return names as [string, string];
}

/** What a source holds, with its pictures by what they are. */
const held = (source: Source) => {
  const { content, pictures = new Map() } = source.at();
  return { content, spots: source.parts().map(({ spot }) => spot), pictures: [...pictures.keys()].sort() };
};

describe("an OpenDocument that is one XML file", () => {
  officeTest.each([
    ["diary.docx", "odt"],
    ["ringing.xlsx", "ods"],
  ] as const)("holds of %s what the package that LibreOffice makes of it holds", async (name, packed) => {
    const [theirs, ours] = made(name, packed);
    const [one, other] = [await readSource(bytesOf(theirs), theirs), await readSource(bytesOf(ours), ours)];
    expect(held(other)).toEqual(held(one));
    expect(held(other).content.length).toBeGreaterThan(0);
    // It is told from its bytes too.
    expect((await readSource(bytesOf(ours), "named otherwise")).parts()).toEqual(other.parts());
  });

  corpusTest("reads equations, which are embedded in it, as the package has them", async () => {
    const markdown = "Nets: $a^2 + b^2$, or\n\n$$\\frac{n}{2}$$\n\nThe end.\n";
    execFileSync("pandoc", ["-f", "markdown", "-o", join(folder, "sums.docx")], { input: markdown });
    convert(folder, "odt", ["sums.docx"]);
    convert(folder, "fodt:OpenDocument Text Flat XML", ["sums.odt"]);
    const [one, other] = [
      await readSource(bytesOf("sums.odt"), "sums.odt"),
      await readSource(bytesOf("sums.fodt"), "sums.fodt"),
    ];
    expect(held(other)).toEqual(held(one));
    expect(compose([other.at()]).text).toMatch(/a.*2.*b.*2[^]*n.*2[^]*The end/);
  });

  officeTest("has its pictures", async () => {
    const block = compose([
      await readSource(new Uint8Array(readFileSync("demo/sketches/tide.png")), "tide.png").then((source) =>
        source.at(),
      ),
    ]);
    const { data } = await block.to("odt", {});
    writeFileSync(join(folder, "sketch.odt"), data);
    convert(folder, "fodt:OpenDocument Text Flat XML", ["sketch.odt"]);
    const { content, pictures } = (await readSource(bytesOf("sketch.fodt"), "sketch.fodt")).at();
    const [picture] = picturesOf(content as Content);
    expect(picture).toMatchObject({ mediaType: "image/png" });
    expect(pictures!.get(picture!.hash)!.length).toBeGreaterThan(100);
  });

  officeTest("is read, and not changed where it is; one that is cut short is refused", async () => {
    made("diary.docx", "odt");
    const text = bytesOf("diary.fodt");
    const block = compose([(await readSource(text, "diary.fodt")).at("p1")]);
    await expect(putInto(text, "diary.fodt", "p1", block)).rejects.toThrow(
      /^Nothing was changed: “diary.fodt” is a document in a single XML file/,
    );
    await expect(
      readSource(text.slice(0, text.length / 2), "cut.fodt").then((source) => source.at()),
    ).rejects.toThrow(/“cut.fodt”/);
  });
});
