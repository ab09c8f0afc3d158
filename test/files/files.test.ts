import { strToU8, unzipSync, zipSync } from "fflate";
import { encrypt } from "officecrypto-tool";
import { demoFile } from "../support/demo";
import { writeDelimited, writeMarkdown, writeText, type Table } from "drawer";
import { readSource } from "drawer/files";

const open = (name: string) => readSource(demoFile(name), name);

test.each(["diary.docx", "diary.odt"])("%s reads as it was written", async (name) => {
  const diary = await open(name);
  const at = (spot: string) => writeMarkdown(diary.at(spot).content);
  expect(diary.parts().map(({ spot, what }) => `${spot} ${what}`)).toEqual(
    [
      "p1 heading 1, s1",
      "p2 heading 2, s2",
      "p3 paragraph",
      "p4 paragraph",
      "p5 item",
      "p6 item",
      "p7 item",
    ].concat(
      [
        "p8 numbered item",
        "p9 numbered item",
        "p10 numbered item",
        "p11 heading 2, s3",
        "p12 paragraph",
        "p13 quote",
      ],
      ["t1 table 4 × 3", "p14 paragraph"],
    ),
  );
  expect(at("p3")).toBe(
    "First **wheatear** on the seawall at 05:50; wind *south-east*, force 3, and the tide <u>an hour past low</u>.",
  );
  expect(JSON.stringify(diary.at("p3..p4").content)).toMatch(
    /"color":"#b03020".*"background":"#ffef9f".*"align":"center"/,
  );
  expect(at("p9..p10")).toBe("2. Weigh\n3. Release at the ride");
  expect(at("p6..p7")).toBe("- - middle ride shut at 09:00, wind\n- South ride: closed for repair");
  expect(at("p12")).toMatch(
    /m<sup>2<\/sup> plot; ~~old staff gauge~~ replaced\. See \[tide table\]\(https:\/\/merrow-spit/,
  );
  expect(at("t1!A1:B2")).toBe("| Species | New |\n| --- | --- |\n| Chiffchaff | 14 |");
  expect(writeText(diary.at("p14").content)).toBe("Boardwalk plank 31 is loose.\nDo not lean on the rail.");
  expect(diary.at("s3").content).toHaveLength(5);
});

test.each(["ringing.xlsx", "ringing.ods"])(
  "%s gives cells as shown, and the values behind them",
  async (name) => {
    const ringing = await open(name);
    expect(ringing.parts().map(({ spot }) => spot)).toEqual(["Spring!A1:G8", "Costs!A1:D4"]);
    const [row] = ringing.at("Spring!A4:G4").content as [Table];
    expect(writeDelimited([row], ",").text).toBe(
      '2031-04-09,North,Goldcrest,2,11,53.5,"net 4\nnet 5 after 09:00"\n',
    );
    expect(row.headerRows).toBe(0);
    expect(row.rows[0]!.map(({ value }) => value?.type)).toEqual([
      "date",
      undefined,
      undefined,
      "number",
      "number",
      "number",
      undefined,
    ]);
    const [sums] = ringing.at("A8:F8").content as [Table];
    expect(sums.rows[0]![0]!.colspan).toBe(3);
    expect(sums.rows[0]!.at(-1)!.value).toEqual({
      type: "number",
      number: 0.621621621621622,
      format: "0.0%",
    });
    expect((ringing.at("Spring!A1:G1").content[0] as Table).headerRows).toBe(1);
    expect(writeDelimited(ringing.at("Costs").content, ",").text).toContain(
      '"Larch plank, 2.4 m",18,11.20,201.60',
    );
    expect(ringing.at("J30").content).toEqual([]);
  },
);

test("letters, notes, rows and lines are read by the endings of their names", async () => {
  expect((await open("letter.html")).parts().map(({ spot }) => spot)).toEqual(
    expect.arrayContaining(["p1", "t1", "p8"]),
  );
  expect(writeMarkdown((await open("notes.md")).at().content)).toContain("- ~~New log book~~ bought");
  expect(writeDelimited((await open("costs.csv")).at("A5:D5").content, ",").text).toBe("Order no.,0071,,\n");
  expect((await open("rota.tsv")).parts()[0]!.spot).toBe("rota!A1:C4");
  const log = await readSource(strToU8("one\n\nthree\nfour\n"), "log.txt");
  expect(writeText(log.at("l2..l4").content)).toBe("\nthree\nfour");
  expect(writeText(log.at("p2").content)).toBe("three");
});

test("old encodings and byte order marks are read as what they are", async () => {
  const read = async (bytes: Uint8Array, name = "a.txt") =>
    writeText((await readSource(bytes, name)).at().content);
  expect(await read(new Uint8Array([0x52, 0xe9, 0x74, 0x69]))).toBe("Réti");
  expect(await read(new Uint8Array([0xff, 0xfe, 0x52, 0, 0xe9, 0]))).toBe("Ré");
  expect(await read(new Uint8Array([0xef, 0xbb, 0xbf, 0x52]))).toBe("R");
  expect(await read(new Uint8Array([...strToU8('<meta charset="iso-8859-2"><p>'), 0xb9]), "a.html")).toBe(
    "š",
  );
});

const diary = demoFile("diary.docx");
const parts = unzipSync(diary);
const locked = new Uint8Array(encrypt(Buffer.from(diary), { password: "seawall" }));
const odt = unzipSync(demoFile("diary.odt"));
const encrypted = zipSync({ ...odt, "META-INF/manifest.xml": strToU8("<manifest:encryption-data/>") });

test.each([
  ["cut.docx", diary.slice(0, 4000), "“cut.docx” is damaged or cut short."],
  ["empty.docx", new Uint8Array(), "“empty.docx” is damaged or cut short."],
  [
    "broken.docx",
    zipSync({ ...parts, "word/document.xml": strToU8("<w:document><w:body>") }),
    "“broken.docx” is damaged",
  ],
  [
    "hollow.docx",
    zipSync({ "word/styles.xml": parts["word/styles.xml"]! }),
    "its part “word/document.xml” is missing",
  ],
  ["locked.docx", locked, "“locked.docx” is protected with a password."],
  ["locked.xlsx", locked, "“locked.xlsx” is protected with a password."],
  ["locked.odt", encrypted, "“locked.odt” is protected with a password."],
  ["old.docx", locked.slice(0, 20), "“old.docx” is in an old office format."],
  [
    "letter.wpd",
    strToU8("x"),
    "Drawer does not read “letter.wpd”. Open it in its own program, and save or export it as docx or odt.",
  ],
  [
    "talk.ppt",
    strToU8("x"),
    "Drawer does not read “talk.ppt”. Open it in its own program, and save or export it as pptx or pdf.",
  ],
  ["tide.heic", strToU8("x"), "as png or jpeg."],
  ["all.zip", strToU8("PK"), "“all.zip” is an archive. Unpack it"],
  ["cut.xlsx", demoFile("ringing.xlsx").slice(0, 3000), "“cut.xlsx” is damaged or cut short."],
  ["notes.xyz", strToU8("x"), "Drawer does not read “.xyz” files (“notes.xyz”)."],
  ["notes", strToU8("x"), "“notes” has no ending that tells what it is."],
  ["rows.csv", strToU8('a,"b\nc,d'), "Row 1 of “rows.csv” has a quotation mark that is never closed"],
  ["sketch.png", strToU8("not a picture"), "“sketch.png” is not a picture that Drawer reads"],
])("%s is refused with a sentence", async (name, bytes, message) => {
  const read = async () => (await readSource(bytes, name)).at();
  await expect(read()).rejects.toMatchObject({
    name: "DrawerError",
    message: expect.stringContaining(message),
  });
});

test.each([
  ["diary.docx", "p99", "“diary.docx” has no p99: it has 14 paragraphs, p1 to p14."],
  ["diary.docx", "t2", "it has one table, t1."],
  ["diary.docx", "i1", "it has no pictures."],
  ["diary.docx", "t1!D9", "the table has 4 rows and 3 columns."],
  ["diary.docx", "paragraph 3", "“paragraph 3” is not a spot of a document."],
  ["ringing.xlsx", "Summer!A1", "“ringing.xlsx” has no sheet “Summer”. Its sheets are: Spring, Costs."],
  ["ringing.xlsx", "Spring!", "has no Spring!."],
])("%s has no %s", async (name, spot, message) => {
  const source = await open(name);
  expect(() => source.at(spot)).toThrow(message);
});
