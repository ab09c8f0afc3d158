import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { unzipSync } from "fflate";
import { convert, officeTest } from "../support/libreoffice";
import { compose, type Content, type Picture } from "drawer";
import { readSource } from "drawer/files";

const join32 = (...values: number[]) => new Uint8Array(Int32Array.from(values).buffer);
const joined = (...pieces: (Uint8Array | readonly number[])[]) =>
  Uint8Array.from(pieces.flatMap((piece) => [...piece]));
const text = (signs: string) => [...signs].map((sign) => sign.charCodeAt(0));
const words = (...values: number[]) => new Uint8Array(Int16Array.from(values).buffer);

/** A blue rectangle of 96 × 48 pixels in each form that office programs have and browsers mostly do not. */
function samples(): Record<"emf" | "wmf" | "bmp" | "tiff", Uint8Array> {
  const body = joined(
    ...[
      join32(39, 24, 1, 0, 0x906030, 0),
      join32(37, 12, 1),
      join32(43, 24, 0, 0, 95, 47),
      join32(14, 20, 0, 16, 20),
    ],
  );
  const emf = joined(
    join32(1, 88, 0, 0, 95, 47, 0, 0, 2540, 1270),
    text(" EMF"),
    ...[join32(0x10000, 88 + body.length, 5, 2, 0, 0, 0, 1024, 768, 271, 203), body],
  );
  const record = (kind: number, ...values: number[]) =>
    joined(join32(3 + values.length), words(kind, ...values));
  const records = joined(
    ...[record(0x20b, 0, 0), record(0x20c, 48, 96), record(0x2fc, 0, 0x6030, 0x90, 0), record(0x12d, 0)],
    ...[record(0x41b, 47, 95, 0, 0), record(0)],
  );
  const placeable = joined([0xd7, 0xcd, 0xc6, 0x9a], words(0, 0, 0, 96, 48, 96, 0, 0));
  const sum = new Uint16Array(placeable.slice(0, 20).buffer).reduce((all, word) => all ^ word, 0);
  const wmf = joined(
    ...[
      placeable,
      words(sum, 1, 9, 0x300),
      join32((18 + records.length) / 2),
      words(1),
      join32(7),
      words(0),
      records,
    ],
  );
  const pixels = Array.from({ length: 96 * 48 }, () => [0x90, 0x60, 0x30]).flat();
  const bmp = joined(
    text("BM"),
    ...[
      join32(54 + pixels.length, 0, 54, 40, 96, -48),
      words(1, 24),
      join32(0, pixels.length, 2835, 2835, 0, 0),
      pixels,
    ],
  );
  const entry = (tag: number, type: number, count: number, value: number) =>
    joined(words(tag, type), join32(count, value));
  const entries = [
    ...[
      entry(256, 3, 1, 96),
      entry(257, 3, 1, 48),
      entry(258, 3, 1, 8),
      entry(259, 3, 1, 1),
      entry(262, 3, 1, 1),
    ],
    ...[entry(273, 4, 1, 8), entry(277, 3, 1, 1), entry(278, 3, 1, 48), entry(279, 4, 1, 96 * 48)],
  ];
  const grey = Array.from({ length: 96 * 48 }, () => 100);
  const tiff = joined(
    text("II*\0"),
    join32(8 + grey.length),
    grey,
    words(entries.length),
    ...entries,
    join32(0),
  );
  return { emf, wmf, bmp, tiff };
}

describe("pictures of office programs", () => {
  const folder = mkdtempSync(join(tmpdir(), "drawer-pictures-"));
  afterAll(() => rmSync(folder, { recursive: true, force: true }));
  const all = samples();

  officeTest("LibreOffice finds each in a docx and an odt, byte for byte, and so do we again", async () => {
    const sources = await Promise.all(
      Object.entries(all).map(([ending, bytes]) => readSource(bytes, `drawing of the hut.${ending}`)),
    );
    const pieces = sources.map((source) => source.at());
    expect(pieces.map(({ content }) => content[0])).toMatchObject(
      ["emf", "wmf", "bmp", "tiff"].map((type) => ({ mediaType: `image/${type}`, width: 96, height: 48 })),
    );
    const block = compose(pieces);
    for (const format of ["docx", "odt"] as const) {
      const { data, notices } = await block.to(format);
      expect(notices).toEqual([]);
      writeFileSync(join(folder, `all.${format}`), data);
      convert(folder, format === "docx" ? "odt" : "docx", [`all.${format}`]);
      const theirs = format === "docx" ? "all.odt" : "all.docx";
      const parts = Object.values(unzipSync(new Uint8Array(readFileSync(join(folder, theirs)))));
      const again = await readSource(new Uint8Array(readFileSync(join(folder, theirs))), theirs);
      for (const [ending, bytes] of Object.entries(all)) {
        // A bitmap it may keep in another form of its own.
        if (ending === "bmp") continue;
        expect(parts.some((part) => Buffer.compare(part, bytes) === 0)).toBe(true);
        expect([...again.at().pictures!.values()].some((part) => Buffer.compare(part, bytes) === 0)).toBe(
          true,
        );
      }
    }
  });

  test("HTML draws the one that browsers draw, and says what it does not", async () => {
    const sources = await Promise.all(
      Object.entries(all).map(([ending, bytes]) => readSource(bytes, `${ending} of the hut.${ending}`)),
    );
    const { data, notices } = await compose(sources.map((source) => source.at())).to("html");
    expect(String(data).match(/<img src="data:[^;]*/g)).toEqual(['<img src="data:image/bmp']);
    expect(String(data)).toContain("emf of the hut");
    expect(notices.map(({ reason }) => reason)).toEqual(["not-shown/pictures-in-page"]);
  });

  test("bytes that only begin as one of them are none, or one of no size", async () => {
    for (const [ending, bytes] of Object.entries(all))
      for (let length = 0; length < Math.min(bytes.length, 300); length += 7) {
        const read = await readSource(bytes.slice(0, length), `a.${ending}`).then(
          (source) => (source.at().content as Content)[0] as Picture,
          (error: { code?: string }) => error.code,
        );
        expect(["unreadable", `image/${ending}`]).toContain(typeof read === "object" ? read.mediaType : read);
      }
  });
});
