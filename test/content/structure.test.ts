import { demoFile } from "../support/demo";
import { writeOffice } from "../support/office";
import {
  compose,
  Drawer,
  MemoryStore,
  safeLink,
  kindOf,
  readFlavours,
  readHtml,
  readPicture,
  writeHtml,
  writeMarkdown,
  writeText,
  type Content,
  type Marks,
  type TextRun,
} from "drawer";
import { readSource } from "drawer/files";

const read = async (html: string) => (await readHtml(html)).content;

/** What HTML is as content, said in Markdown where Markdown can say it. */
test.each([
  ["rows without a table", "<tr><td>9<td>12:21</tr>", "|  |  |\n| --- | --- |\n| 9 | 12:21 |"],
  [
    "a cell in comments without a table",
    "<!--StartFragment--><td>9</td><!--EndFragment-->",
    "|  |\n| --- |\n| 9 |",
  ],
  [
    "the header lines of a Windows clipboard",
    "Version:0.9\r\nStartHTML:97\r\n<html><body><p>a</body></html>",
    "a",
  ],
  ["a list in a list without an item", "<ul><li>a</li><ul><li>b</li></ul></ul>", "- a\n  - b"],
  ["a restarted list", "<ol start=4><li>a</ol>", "4. a"],
  ["a list whose numbers jump", "<ol><li>a<li value=7>b<li>c</ol>", "1. a\n\n7) b\n8) c"],
  [
    "the notes of a converter",
    '<p>a<a href="#fn1" class="footnote-ref" id="fnref1" role="doc-noteref"><sup>1</sup></a></p><section class="footnotes" role="doc-endnotes"><hr/><ol><li id="fn1"><p>b<a href="#fnref1" class="footnote-back" role="doc-backlink">↩︎</a></p></li></ol></section>',
    "a[^1]\n\n[^1]: b",
  ],
  [
    "the notes of a word processor, called twice",
    "<p>a<a href='#_ftn1' name='_ftnref1' style='mso-footnote-id:ftn1'><span>[1]</span></a> and <a href='#_ftn1' name='_ftnref2' style='mso-footnote-id:ftn1'>[1]</a></p><div style='mso-element:footnote-list'><br clear=all><hr size=1><div style='mso-element:footnote' id=ftn1><p><a href='#_ftnref1' name='_ftn1' style='mso-footnote-id:ftn1'>[1]</a> b</p></div></div>",
    "a[^1] and [^1]\n\n[^1]: b",
  ],
  [
    "the notes of another, each in a place of its own",
    '<p>a<a class="sdfootnoteanc" name="sdfootnote1anc" href="#sdfootnote1sym"><sup>1</sup></a>.</p><div id="sdfootnote1"><p><a class="sdfootnotesym" name="sdfootnote1sym" href="#sdfootnote1anc">1</a>b</p></div>',
    "a[^1].\n\n[^1]: b",
  ],
  [
    "a link that looks like a note's and leads nowhere",
    '<p>a<a href="#fn9" role="doc-noteref">9</a></p><section role="doc-endnotes"><p id="fn1">b</p></section>',
    "a9\n\nb",
  ],
  [
    "an equation that is drawn a second time for the eye",
    '<p>so <span><math><mfrac><mn>1</mn><mi>n</mi></mfrac></math></span><span aria-hidden="true">1n</span>.</p>',
    "so 1/n.",
  ],
  ["tasks", "<ul><li><input type=checkbox checked> a<li><input type=checkbox> b</ul>", "- ☑ a\n- ☐ b"],
  ["definitions", "<dl><dt>a<dd>b</dl>", "a\n\nb"],
  [
    "a head that is only bold",
    "<table><tr><td><b>A</b><td><b>B</b><tr><td>1<td>2</table>",
    "| A | B |\n| --- | --- |\n| 1 | 2 |",
  ],
  [
    "a foot that stands before its body",
    "<table><tfoot><tr><td>sum</tfoot><tr><td>1</table>",
    "|  |\n| --- |\n| 1 |\n| sum |",
  ],
  ["lines of a cell", "<table><tr><td><p>a</p><p>b</p></table>", "|  |\n| --- |\n| a<br>b |"],
  ["old elements", "<center><big><tt>a</tt></big></center><strike>b</strike>", "`a`\n\n~~b~~"],
  ["a divider and a quote", "<hr><blockquote>a<br>b</blockquote>", "***\n\n> a\\\n> b"],
  ["code with its language", "<pre><code class=language-ts>a\n b</code></pre>", "```ts\na\n b\n```"],
  ["what is hidden", "<p>a<span style='display:none'>b</span><span hidden>c</span></p>", "a"],
  ["forms", "<form><p>a</p><select><option>b</select><textarea>c</textarea></form>", "a"],
  [
    "a picture that is not there",
    "<p>a <img src='file:///C:/x/plank.png' alt='plank 31'> b</p>",
    "a plank 31 b",
  ],
  ["an unsafe link", "<a href='javascript:x'>a</a>", "a"],
  [
    "a link with spaces and brackets",
    "<a href=' https://a.example/b c|d '>a</a>",
    "[a](https://a.example/b%20c%7Cd)",
  ],
])("%s", async (_, html, markdown) => {
  expect(writeMarkdown(await read(html))).toBe(markdown);
});

const marksOf = (content: Content): Marks | undefined => {
  const flow = content[0]!;
  return flow.type === "paragraph"
    ? (flow.runs.find((run): run is TextRun => run.type === "text" && run.text === "x")?.marks ?? {})
    : undefined;
};

test.each<[string, Marks]>([
  ["<b>x</b>", { bold: true }],
  ["<b style='font-weight:normal'>x</b>", {}],
  ["<span style='font-weight:600;font-style:oblique'>x</span>", { bold: true, italic: true }],
  ["<u>a <span style='text-decoration:none'><b>y</b></span></u><u>x</u>", { underline: true }],
  ["<span style='text-decoration:underline line-through red'>x</span>", { underline: true, strike: true }],
  ["H<sub>x</sub>", { sub: true }],
  ["<span style='vertical-align:super'>x</span>", { sup: true }],
  [
    "<font color=red face='Gill Sans, sans-serif' size=5>x</font>",
    { color: "#ff0000", font: "Gill Sans", size: 18 },
  ],
  [
    "<span style='color:rgb(176 48 32 / 90%);background:hsl(120 50% 90%)'>x</span>",
    { color: "#b03020", background: "#d9f2d9" },
  ],
  [
    "<span style='font:italic bold 10pt/1.2 \"Source Serif\", serif'>x</span>",
    { bold: true, italic: true, font: "Source Serif", size: 10 },
  ],
  ["<span style='font-size:150%'>x</span>", { size: 18 }],
  ["<span style='color:inherit;background:transparent;font-family:inherit;font-size:huge'>x</span>", {}],
  [
    "<style>p .k b{color:#123456}.k>b{font-size:9pt}</style><p><span class=k><b>x</b></span>",
    { bold: true, color: "#123456", size: 9 },
  ],
  ["<style>b{color:red!important}</style><b style='color:blue'>x</b>", { bold: true, color: "#ff0000" }],
  [
    "<style>@media print{b{color:red}} b:hover{color:red} b[title]{color:red}</style><b>x</b>",
    { bold: true },
  ],
  [
    "<body style='color:#222233;font-family:Georgia'><span style='color:#222233;font-family:Georgia'>x</span></body>",
    {},
  ],
  ["<style>p.MsoNormal{font-size:11pt;font-family:Calibri}</style><p class=MsoNormal>x", {}],
  [
    "<a href='https://a.example/' style='color:blue;text-decoration:underline'>x</a>",
    { link: safeLink("https://a.example/")! },
  ],
  ["<mark>x</mark>", { background: "#ffff00" }],
])("the look of %s", async (html, marks) => {
  expect(marksOf(await read(html))).toEqual(marks);
});

test("a lone anchor is a link, a lone picture a picture, and a copy of several forms the best of them", async () => {
  expect(kindOf(await read("<a href='https://a.example/'>the tide table</a>"))).toBe("link");
  const picture = demoFile("sketches/tide.png");
  expect(readPicture(picture).content[0]).toMatchObject({ mediaType: "image/png", width: 240, height: 120 });
  const html = "<table><tr><td>net 4 net 5 after 09:00<td>2</table>";
  const folded = await readFlavours({ html, tsv: '"net 4\nnet 5 after 09:00"\t2', text: "net 4", picture });
  expect(writeMarkdown(folded.content)).toContain("| net 4<br>net 5 after 09:00 | 2 |");
  expect((await readFlavours({ picture, html: "<table><tr><td><br></table>" })).content).toEqual([]);
  expect((await readFlavours({ picture })).content[0]!.type).toBe("picture");
});

test("a picture inside HTML keeps its bytes; one outside is named in a notice", async () => {
  const bytes = demoFile("sketches/wheatear.png");
  const inside = await readHtml(
    `<p><img alt="a wheatear" src="data:image/png;base64,${Buffer.from(bytes).toString("base64")}"></p>`,
  );
  expect(inside.content[0]).toMatchObject({ type: "picture", width: 240, height: 160, alt: "a wheatear" });
  expect([...inside.pictures.values()]).toEqual([bytes]);
  const written = writeHtml(inside.content, { picture: (hash) => inside.pictures.get(hash) });
  expect((await readHtml(written)).content).toEqual(inside.content);
  const outside = await readHtml("<img src='file:///C:/plank.png' alt='plank 31'>");
  expect(outside.notices).toMatchObject([
    {
      code: "left-out",
      message: expect.stringContaining("The picture “plank 31” is not in what was copied"),
    },
  ]);
});

test("a picture and a link in a caption are as good as others: the bytes are kept, the address is found", async () => {
  const png = Buffer.from(demoFile("sketches/tide.png")).toString("base64");
  const table = await readHtml(
    `<table><caption>Tides <a href="https://merrow.example/tides">here</a> <img alt=light src="data:image/png;base64,${png}"></caption><tr><td>a<td>b</table>`,
  );
  const drawer = new Drawer(new MemoryStore());
  await drawer.collect([{ ...table, origin: {} }]);
  const [snippet] = await drawer.snippets("1");
  expect([...snippet!.pictures.values()].map((bytes) => Buffer.from(bytes).toString("base64"))).toEqual([
    png,
  ]);
  expect(compose([snippet!], { fit: "address" }).text).toBe("https://merrow.example/tides");
});

test("direction is carried, and other scripts come through whole", async () => {
  const html = "<p dir=rtl>עברית עם <b>x</b></p><p>e\u0301 🏴󠁧󠁢󠁳󠁣󠁴󠁿 ेक</p>";
  const content = await read(html);
  expect(content[0]).toMatchObject({ direction: "rtl" });
  expect(await read(writeHtml(content))).toEqual(content);
  for (const format of ["docx", "odt"] as const) {
    expect((await readSource(await writeOffice({ content }, format), `x.${format}`)).at().content).toEqual(
      content,
    );
  }
  expect(writeText(content)).toBe("עברית עם x\ne\u0301 🏴󠁧󠁢󠁳󠁣󠁴󠁿 ेक");
});

test("what sheets write beside a cell is its value: empty, exact, or in a member of its own", async () => {
  const [table] = await read(
    `<table><tr><td x:num>58.50<td x:num="47946" style='mso-number-format:"d\\ mmm"'>8 Apr<td x:str>007` +
      `<td data-sheets-value='{"1":3,"3":0.5}' data-sheets-numberformat='{"1":2,"2":"0%"}'>50%<td sdval="1" sdnum="1033;0;BOOLEAN">TRUE</table>`,
  );
  expect(table?.type === "table" && table.rows[0]!.map(({ value }) => value)).toEqual([
    { type: "number", number: 58.5 },
    { type: "date", date: "2031-04-08", format: "d mmm" },
    undefined,
    { type: "number", number: 0.5, format: "0%" },
    { type: "boolean", boolean: true },
  ]);
});

test("lists keep the marks that their items have, in text too", async () => {
  const html =
    '<ol type="a" start="2"><li>b<ol style="list-style-type: upper-roman"><li>I</li></ol></li></ol>' +
    '<ul style="list-style-type: square"><li>s<ul><li>usual</li></ul></li></ul><ul style="list-style-type: &quot;→ &quot;"><li>arrow</li></ul>';
  const content = await read(html);
  expect(writeText(content)).toBe("b. b\n   I. I\n- s\n  - usual\n→ arrow");
  expect(content).toMatchObject([
    {
      marker: { numbers: "lower-alpha" },
      start: 2,
      items: [{ flows: [{}, { marker: { numbers: "upper-roman" } }] }],
    },
    { marker: { bullet: "▪" } },
    { marker: { bullet: "→" } },
  ]);
  expect(await read(writeHtml(content))).toEqual(content);
  for (const format of ["docx", "odt"] as const) {
    const written = await writeOffice({ content }, format);
    expect((await readSource(written, `x.${format}`)).at().content).toEqual(content);
  }
});
