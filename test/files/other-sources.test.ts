import { spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";
import fc from "fast-check";
import { chromium } from "playwright-core";
import { CHROMIUM_FLAGS, findHeadless } from "../../scripts/chromium.mjs";
import { PYTHON } from "../../scripts/office.mjs";
import { knownText } from "../office/pdf-texts";
import { runs } from "../support/counts";
import { demoFile } from "../support/demo";
import { convert, corpusTest } from "../support/libreoffice";
import { makeMsg } from "../support/msg";
import { compose, writeText, type Content, type DrawerError } from "drawer";
import { readSource } from "drawer/files";

const folder = mkdtempSync(join(tmpdir(), "drawer-sources-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const put = (name: string, bytes: string | Uint8Array) => writeFileSync(join(folder, name), bytes);
const bytesOf = (name: string) => new Uint8Array(readFileSync(join(folder, name)));
const read = (name: string) => readSource(bytesOf(name), name);
const run = (program: string, ...words: string[]) => {
  const { status, stdout, stderr } = spawnSync(program, words, { cwd: folder, encoding: "utf8" });
  if (status !== 0) throw new Error(`${program}: ${stderr}`);
  return stdout;
};
/** The words of a content, in order, whatever parts them. */
const wordsOf = (content: Content) => writeText(content).match(/[\p{L}\p{N}]+/gu) ?? [];

corpusTest(
  "a document of before 2007 says the words, line by line, that LibreOffice shows of it",
  async () => {
    put("known.md", knownText(9, 6).markdown);
    run("pandoc", "known.md", "-o", "known.docx");
    put("diary.docx", demoFile("diary.docx"));
    convert(folder, "doc:MS Word 97", ["known.docx", "diary.docx"]);
    convert(folder, "txt:Text (encoded):UTF8", ["known.doc", "diary.doc"]);
    for (const name of ["known", "diary"]) {
      const source = await read(`${name}.doc`);
      // Marks of items are none of its words.
      const shown = readFileSync(join(folder, `${name}.txt`), "utf8").replace(
        /^\s*(?:\d+\.|[•◦▪–])\s/gmu,
        "",
      );
      expect(wordsOf(source.at().content)).toEqual(shown.match(/[\p{L}\p{N}]+/gu));
      expect(source.notices.map(({ code }) => code)).toEqual(["left-out"]);
    }
    const table = compose([(await read("diary.doc")).at("t1")]).tsv;
    expect(table).toBe(compose([(await read("diary.docx")).at("t1")]).tsv);
    // As its program marks one that has a password ([MS-DOC] 2.5.2).
    const sealed = bytesOf("diary.doc");
    const facts = Buffer.from(sealed.buffer).indexOf(Buffer.from([0xec, 0xa5]));
    sealed[facts + 11]! |= 1;
    await expect(readSource(sealed, "hut.doc")).rejects.toThrow("“hut.doc” is protected with a password.");
  },
);

corpusTest("a book is read chapter by chapter as the text that it was made of", async () => {
  const tide = resolve("demo/sketches/tide.png");
  const { markdown } = knownText(3, 8);
  put(
    "book.md",
    `% Spring on the spit\n\n# The tide\n\n![](${tide})\n\n${markdown}\n\n# The end\n\nA note.[^1]\n\n[^1]: It ends.\n`,
  );
  for (const version of ["epub2", "epub3"]) {
    run("pandoc", "book.md", "-t", version, "-o", `${version}.epub`);
    run("pandoc", "book.md", "-o", "book.docx");
    const [book, document] = [await read(`${version}.epub`), await read("book.docx")];
    expect([book.title, book.notices]).toEqual(["Spring on the spit", []]);
    expect([...book.at("i1").pictures.values()]).toEqual([new Uint8Array(readFileSync(tide))]);
    const content = book.at().content;
    // Its first page says its title; after that all is what pandoc makes of the same text for a word processor.
    expect(wordsOf(content).slice(4)).toEqual(wordsOf(document.at().content).slice(4));
    expect(
      book
        .parts()
        .filter(({ type }) => type === "heading")
        .map(({ text }) => text)
        .slice(1),
    ).toEqual(
      document
        .parts()
        .filter(({ type }) => type === "heading")
        .map(({ text }) => text),
    );
  }
  expect(() => bytesOf("no.epub")).toThrow();
  put("not.epub", demoFile("diary.docx"));
  // Told by its bytes.
  expect((await read("not.epub")).format).toBe("docx");
});

const browserTest = findHeadless() || process.env["CI"] ? test : test.skip;
browserTest("a page that Chromium has saved with all that it shows is what the page was", async () => {
  const browser = await chromium.launch({ executablePath: findHeadless()!, args: CHROMIUM_FLAGS });
  try {
    const page = await browser.newPage();
    const tide = readFileSync("demo/sketches/tide.png").toString("base64");
    await page.route("https://merrow-spit.example/**", (route) => {
      const { pathname } = new URL(route.request().url());
      if (pathname.endsWith(".png"))
        return route.fulfill({ contentType: "image/png", body: Buffer.from(tide, "base64") });
      if (pathname.endsWith(".css"))
        return route.fulfill({
          contentType: "text/css",
          body: ".low { font-weight: bold } .no { display: none }",
        });
      return route.fulfill({
        contentType: "text/html; charset=utf-8",
        body: `<!doctype html><title>Tides – today</title><link rel="stylesheet" href="looks/page.css"><h1>Tides</h1>
          <p>It is <span class="low">low</span> at 12:54 – “be back” <a href="next">by then</a>.</p><p class="no">hidden</p>
          <img src="tide.png?a=1&amp;b=2" alt="The tide"><table><tr><th>Time</th></tr><tr><td>12:54</td></tr></table>`,
      });
    });
    await page.goto("https://merrow-spit.example/tides/");
    const session = await page.context().newCDPSession(page);
    const { data } = await session.send("Page.captureSnapshot", { format: "mhtml" });
    put("tides.mhtml", data);
  } finally {
    await browser.close();
  }
  const source = await read("tides.mhtml");
  expect([source.title, source.notices]).toEqual(["Tides – today", []]);
  expect(compose([source.at()]).markdown).toBe(
    "# Tides\n\nIt is **low** at 12:54 – “be back” [by then](https://merrow-spit.example/tides/next).\n\nThe tide\n\n| Time |\n| --- |\n| 12:54 |",
  );
  expect([...source.at("i1").pictures.values()]).toEqual([
    new Uint8Array(readFileSync("demo/sketches/tide.png")),
  ]);
  put("named", bytesOf("tides.mhtml"));
  expect((await read("named")).format).toBe("mhtml");
});

corpusTest(
  "a mail of one mail program says what another program makes of it: people, subject, text, what is attached",
  async () => {
    const person = (name: string) => ({
      name,
      address: `${name.split(" ")[0]!.toLowerCase()}@merrow-spit.example`,
    });
    const mail = {
      ...{ subject: "Nets – new", from: person("Ada Wren"), to: [person("Bo Tern"), person("Cy Knot")] },
      ...{ copy: [person("Dé Réti")], sent: new Date("2031-04-08T08:12:00Z") },
    };
    const tide = demoFile("sketches/tide.png");
    const attachments = [
      { name: "tide.png", bytes: tide, contentId: "tide" },
      { name: "costs.csv", bytes: demoFile("costs.csv") },
    ];
    const html =
      '<p>The <b>nets</b> &ndash; &ldquo;new&rdquo;</p><ul><li>one</li></ul><img src="cid:tide" alt="The tide">';
    put("html.msg", makeMsg({ ...mail, html, text: "The nets", attachments }));
    put(
      "text.msg",
      makeMsg({ ...mail, text: "Dear Bo,\n\n> when?\nToday.\n", attachments: attachments.slice(1) }),
    );
    put(
      "within.msg",
      makeMsg({ ...mail, text: "See.", attachments: [{ name: "inner.msg", bytes: bytesOf("html.msg") }] }),
    );
    for (const name of ["html", "text"]) {
      run("msgconvert", "--outfile", `${name}.eml`, `${name}.msg`);
      const [ours, other] = await Promise.all([read(`${name}.msg`), read(`${name}.eml`)]);
      const part = (source: typeof ours, from: number) =>
        source
          .parts()
          .filter(({ spot }) => /^[pi]/.test(spot))
          .slice(from)
          .map(({ text }) => text);
      expect(ours.title).toBe(mail.subject);
      // That program has no place for the recipients' names, and shows text beside HTML.
      expect(part(ours, 0)).toEqual(part(other, 0));
    }
    const source = await read("html.msg");
    expect(compose([source.at("t1")]).tsv).toBe(
      'From\tAda Wren <ada@merrow-spit.example>\nTo\t"Bo Tern <bo@merrow-spit.example>, Cy Knot <cy@merrow-spit.example>"\nCopy to\tDé Réti <dé@merrow-spit.example>\nDate\tTue, 08 Apr 2031 08:12:00 GMT\nSubject\tNets – new\n'.replaceAll(
        '"',
        "",
      ),
    );
    expect([...source.at("i1").pictures.values()]).toEqual([tide]);
    await source.open("a1");
    expect(compose([source.at("a1!A1:B2")]).tsv).toBe(
      compose([(await readSource(demoFile("costs.csv"), "costs.csv")).at("A1:B2")]).tsv,
    );
    const within = await read("within.msg");
    await within.open("a1!a1!A1");
    expect(
      within
        .parts()
        .map(({ spot, text }) => `${spot} ${text}`)
        .slice(-3)[0],
    ).toContain("a1!i1");

    const rtf = (body: string) =>
      `{\\rtf1\\ansi\\ansicpg1252\\fromhtml1 \\deff0{\\fonttbl{\\f0\\fswiss Arial;}}{\\*\\generator none;}\n${body}}`;
    put(
      "rtf.msg",
      makeMsg({
        ...mail,
        rtf: rtf(
          "{\\*\\htmltag19 <html>}{\\*\\htmltag64 <p>}\\htmlrtf \\par \\htmlrtf0 The {\\*\\htmltag84 <b>}\\htmlrtf {\\b \\htmlrtf0 nets\\htmlrtf }\\htmlrtf0 {\\*\\htmltag92 </b>} caf\\'e9 \\{\\u8364?\\} {\\*\\htmltag84 &euro;}\\htmlrtf \\'80\\htmlrtf0 {\\*\\htmltag72 </p>}{\\*\\mhtmltag1 no}{\\*\\htmltag4 \\par }",
        ),
      }),
    );
    expect(compose([(await read("rtf.msg")).at("p1")]).markdown).toBe("The **nets** café {€} €");
    put("plain-rtf.msg", makeMsg({ ...mail, rtf: "{\\rtf1\\ansi Only {\\b rich}.\\par}" }));
    expect(compose([(await read("plain-rtf.msg")).at("p1")]).markdown).toBe("Only **rich**.");
  },
);

const CALENDAR = [
  ...[
    "BEGIN:VCALENDAR",
    "VERSION:2.0",
    "PRODID:-//Merrow Spit//EN",
    "BEGIN:VEVENT",
    "UID:1@merrow-spit.example",
  ],
  ...["DTSTAMP:20310301T120000Z", "SUMMARY:Ringing morning", "DTSTART;TZID=Europe/London:20310408T053000"],
  ...["DURATION:PT5H30M", "LOCATION:Ringing hut\\, seawall", "RRULE:FREQ=WEEKLY;BYDAY=TU", "GEO:50.1;-1.2"],
  ...["ORGANIZER;CN=Ada Wren:mailto:ada@merrow-spit.example", "ATTENDEE:mailto:bo@merrow-spit.example"],
  ...["DESCRIPTION:Bring poles.\\nA line that is folded ", " here.", "BEGIN:VALARM", "ACTION:DISPLAY"],
  ...[
    "TRIGGER:-PT15M",
    "DESCRIPTION:x",
    "END:VALARM",
    "END:VEVENT",
    "BEGIN:VEVENT",
    "UID:2",
    "SUMMARY:Count day",
  ],
  ...["DTSTAMP:20310301T120000Z", "DTSTART;VALUE=DATE:20310412", "END:VEVENT", "BEGIN:VTODO", "UID:3"],
  ...[
    "DTSTAMP:20310301T120000Z",
    "SUMMARY:Mend nets",
    "DUE:20310405T100000Z",
    "END:VTODO",
    "END:VCALENDAR",
    "",
  ],
].join("\r\n");

test("a calendar's events and tasks are rows whose days and times are dates; what has no column, and what comes again, is said", async () => {
  put("round.ics", CALENDAR);
  const source = await read("round.ics");
  expect(compose([source.at("Events")]).tsv).toBe(
    'What\tBegins\tLasts\tTime zone\tWhere\tWho\tAbout\tRepeats\nRinging morning\t2031-04-08 05:30\tPT5H30M\tEurope/London\tRinging hut, seawall\t"Ada Wren <ada@merrow-spit.example>\nbo@merrow-spit.example"\t"Bring poles.\nA line that is folded here."\tFREQ=WEEKLY;BYDAY=TU\nCount day\t2031-04-12\t\t\t\t\t\t\n',
  );
  expect(compose([source.at("Tasks")]).tsv).toBe("What\tDue\tTime zone\nMend nets\t2031-04-05 10:00\tUTC\n");
  const [table] = source.at("Events!B2:B3").content;
  expect(JSON.stringify(table)).toContain('"date":"2031-04-08T05:30:00"');
  expect(source.notices.map(({ message }) => message).join("\n")).toMatch(
    /One event of “round\.ics” comes again.*\n.*no column: coordinates, reminders\./,
  );
  put("no.ics", "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nEND:VCALENDAR\r\n");
  await expect(read("no.ics")).rejects.toThrow("“no.ics” is not a calendar: it has no event or task.");
  put("cut.ics", CALENDAR.slice(0, 300));
  await expect(read("cut.ics")).rejects.toMatchObject({ code: "unreadable" });
});

corpusTest(
  "cards that another library has written, and those of telephones before it, are rows",
  async () => {
    run(
      PYTHON,
      "-c",
      `import vobject
with open("cards.vcf", "w", encoding="utf-8", newline="") as out:
    for family, given, tel in [("Wren", "Ada", "+44 1632 960001"), ("Réti", "Dé; Jr, the 2nd", "+44 1632 960002")]:
        card = vobject.vCard()
        card.add("n").value = vobject.vcard.Name(family=family, given=given)
        card.add("fn").value = given + " " + family
        card.add("tel").value = tel
        card.tel.type_param = ["WORK", "VOICE"]
        card.add("email").value = "hut@merrow-spit.example"
        card.add("adr").value = vobject.vcard.Address(street="1 Seawall", city="Merrow", code="MS1 1AA")
        card.add("org").value = ["Merrow Spit", "Ringing"]
        card.add("note").value = "Rings; weighs, and\\nwrites " + "long " * 40
        out.write(card.serialize())`,
    );
    expect(compose([(await read("cards.vcf")).at("Cards!A1:E3")]).tsv).toBe(
      "Name\tOrganisation\tTelephone\tMail\tAddress\nAda Wren\tMerrow Spit, Ringing\twork: +44 1632 960001\thut@merrow-spit.example\t1 Seawall, MS1 1AA Merrow\nDé; Jr, the 2nd Réti\tMerrow Spit, Ringing\twork: +44 1632 960002\thut@merrow-spit.example\t1 Seawall, MS1 1AA Merrow\n",
    );
    expect(compose([(await read("cards.vcf")).at("Cards!F3")]).text.trim()).toBe(
      `Rings; weighs, and\nwrites ${"long ".repeat(40)}`.trim(),
    );
    const old = [
      ...["BEGIN:VCARD", "VERSION:2.1", "N;CHARSET=ISO-8859-1;ENCODING=QUOTED-PRINTABLE:R=E9ti;D=E9"],
      ...[
        "TEL;CELL:+44 1632 960003",
        "NOTE;ENCODING=QUOTED-PRINTABLE:Long line=",
        " goes on=0D=0Asecond, and",
      ],
      ...["PHOTO;BASE64;PNG:", " iVBORw0KGgo=", "", "END:VCARD", ""],
    ].join("\r\n");
    put("old.vcf", new Uint8Array(Buffer.from(old, "latin1")));
    const telephone = await read("old.vcf");
    expect(compose([telephone.at()]).tsv).toBe(
      'Name\tTelephone\tNote\nDé Réti\tcell: +44 1632 960003\t"Long line goes on\nsecond, and"\n',
    );
    expect(telephone.notices[0]!.message).toContain("no column: photographs");
  },
);

test("files of these kinds that are cut or changed anywhere are read or refused in a sentence, and nothing hangs", async () => {
  const whole: Readonly<Record<string, Uint8Array>> = {
    "x.ics": new TextEncoder().encode(CALENDAR),
    "x.mhtml": new TextEncoder().encode(
      'From: <Saved by x>\r\nMIME-Version: 1.0\r\nContent-Type: multipart/related; boundary="b"\r\n\r\n--b\r\nContent-Type: text/html\r\nContent-Location: https://merrow-spit.example/\r\n\r\n<p>x<img src="a.png">\r\n--b\r\nContent-Type: image/png\r\nContent-Location: https://merrow-spit.example/a.png\r\nContent-Transfer-Encoding: base64\r\n\r\niVBORw0KGgo=\r\n--b--\r\n',
    ),
    "x.msg": makeMsg({
      ...{
        subject: "s",
        from: { name: "a", address: "a@b.example" },
        to: [{ name: "b", address: "b@b.example" }],
      },
      ...{
        sent: new Date(0),
        html: "<p>x</p>",
        attachments: [{ name: "y.txt", bytes: new Uint8Array(9000) }],
      },
    }),
  };
  await fc.assert(
    fc.asyncProperty(
      fc.constantFrom(...Object.keys(whole)),
      fc.array(fc.tuple(fc.nat(), fc.nat(255)), { minLength: 1, maxLength: 20 }),
      fc.double({ min: 0, max: 1, noNaN: true }),
      async (name, changes, cut) => {
        const from = whole[name]!;
        const changed = from.slice(0, cut < 0.5 ? from.length : Math.ceil(from.length * cut));
        for (const [at, value] of changes) changed[at % changed.length] = value;
        const outcome = await readSource(changed, name, { format: name.slice(2) as "ics" }).then(
          (source) => source.parts().length >= 0,
          (error: DrawerError) => (/^(?:unreadable|too-large|locked)/.test(error.reason) ? true : `${error}`),
        );
        expect(outcome).toBe(true);
      },
    ),
    runs(60, 2000),
  );
});
