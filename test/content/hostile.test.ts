import fc from "fast-check";
import { strFromU8, unzipSync, zipSync } from "fflate";
import { runs } from "../support/counts";
import { demoFile } from "../support/demo";
import { OFFICE_FORMATS, writeOffice } from "../support/office";
import {
  DrawerError,
  readDelimited,
  readFlavours,
  readHtml,
  readMarkdown,
  readPicture,
  readText,
  writeHtml,
  writeMarkdown,
  writeText,
  type Address,
  type Content,
} from "drawer";
import { readSource } from "drawer/files";

/** Pieces of every format, to be put together wrongly. */
const shred = fc.constantFrom(
  ...[
    "<table>",
    "<tr>",
    "<td colspan=9 rowspan=9>",
    "<th>",
    "</table>",
    "<ul>",
    "<li>",
    "<p>",
    "</p>",
    "<b>",
    "</b>",
    "<a href=x>",
    "<br>",
    "<pre>",
    "<h1>",
    "<style>p{",
    "}</style>",
  ],
  ...[
    "<!--",
    "-->",
    "<svg>",
    "<math>",
    "<select>",
    "<template>",
    "</body>",
    "&#0;",
    "&amp",
    "\u0000",
    "style='",
    "'",
    '"',
    ">",
    "<",
    "mso-list:l0 level1 lfo1;",
    "<p style='mso-list:l0 level9 lfo1'>",
  ],
  ...[
    "# ",
    "- ",
    "1. ",
    "> ",
    "```\n",
    "| a | b |\n|--|--|\n",
    "**",
    "_",
    "~~",
    "[",
    "](",
    ")",
    "\\",
    "\n",
    "\n\n",
    "    ",
    "\t",
    ",",
    ";",
    "=1",
    "\ud800",
    "\u202e",
    "é",
    "🐦",
    "a",
  ],
);
const shreds = fc.array(shred, { maxLength: 40 }).map((parts) => parts.join(""));

/** Reads, writes in every form, and lets nothing out but Drawer's own kind of refusal. */
async function survives(read: () => Promise<{ content: Content }>): Promise<void> {
  let content: Content;
  try {
    ({ content } = await read());
  } catch (error) {
    expect(error).toBeInstanceOf(DrawerError);
    return;
  }
  for (const written of [writeHtml(content), writeMarkdown(content), writeText(content)])
    expect(typeof written).toBe("string");
}

test.each<[string, (text: string) => Promise<{ content: Content }>]>([
  ["HTML", (text) => readHtml(text)],
  ["Markdown", (text) => readMarkdown(text)],
  ["CSV", (text) => readDelimited(text)],
  ["text", async (text) => readText(text)],
  ["flavours", (text) => readFlavours({ html: text, text, tsv: text })],
])("the reader of %s survives whatever it is given", async (_, read) => {
  await fc.assert(
    fc.asyncProperty(fc.oneof(shreds, fc.string({ unit: "binary", maxLength: 200 })), (text) =>
      survives(() => read(text)),
    ),
    runs(60, 3000),
  );
});

test.each(["diary.docx", "diary.odt", "ringing.xlsx", "ringing.ods", "sketches/tide.png"])(
  "the reader of %s survives any damage to it",
  async (name) => {
    const whole = demoFile(name);
    const damage = fc.record({
      cut: fc.nat(whole.length),
      flips: fc.array(fc.tuple(fc.nat(whole.length - 1), fc.nat(255)), { maxLength: 8 }),
    });
    await fc.assert(
      fc.asyncProperty(damage, async ({ cut, flips }) => {
        const bytes = whole.slice(0, flips.length > 0 ? undefined : cut);
        for (const [at, value] of flips) bytes[at] = value;
        await survives(async () => (await readSource(bytes, name)).at());
        expect(readPicture(bytes).content.length).toBeLessThanOrEqual(1);
      }),
      { numRuns: 60 },
    );
  },
  120_000,
);

const repeated = (unit: string, times: number) => unit.repeat(times);

test.each([
  ["10 MB of <b>", () => readHtml(repeated("<b>", 3_400_000)), "nested more than 512 deep"],
  [
    "a table that spans a billion places",
    () => readHtml(`<table>${repeated("<td colspan=1000 rowspan=65000>x", 20)}`),
    "more than 1,000,000 cells",
  ],
  ["40 MB of text", async () => readText(repeated("tide ", 8_000_000)), "takes at most 33,554,432 at once"],
])("%s is refused with a sentence, before it costs anything", async (_, read, message) => {
  await expect(read()).rejects.toThrow(message);
});

test.each([
  ["100 lists in each other", repeated("<ul><li>a", 100), 100],
  ["100 tables in each other", repeated("<table><tr><td>a", 100), 100],
  ["100,000 cells", `<table>${repeated(`<tr>${repeated("<td>a", 100)}`, 1000)}</table>`, 100_000],
])("%s are read whole", async (_, html, letters) => {
  const { content } = await readHtml(html);
  expect(writeHtml(content).match(/a(?=<)/g)).toHaveLength(letters);
});

test("a document that would unpack to gigabytes is refused before it is unpacked; one that lies about it is damaged", async () => {
  const claiming = (bytes: number) => {
    const zip = zipSync({ "word/document.xml": new Uint8Array(2_000_000) });
    const view = new DataView(zip.buffer);
    for (let at = 0; at < zip.length - 4; at++)
      if (view.getUint32(at) === 0x504b0102) view.setUint32(at + 24, bytes, true);
    return zip;
  };
  const read = async (bytes: number, name: string) => (await readSource(claiming(bytes), name)).at();
  await expect(read(3_000_000_000, "bomb.docx")).rejects.toThrow("“bomb.docx” unpacks to more than 2 GB");
  await expect(read(100, "liar.docx")).rejects.toThrow("“liar.docx” is damaged");
});

/** Bytes of an SVG with this in it, and perhaps something before its root or in it. */
const svgOf = (inner: string, root = "", before = "") =>
  new TextEncoder().encode(
    `${before}<svg xmlns="http://www.w3.org/2000/svg" width="40" viewBox="0 0 40 30"${root}>${inner}</svg>`,
  );
const svg = (...parts: Parameters<typeof svgOf>) => readPicture(svgOf(...parts)).content;

test.each([
  ["<path d='M0 0h9'/><use href='#a'/>", "", ""],
  [
    "<title>a &amp; b</title><g transform='scale(2)'><text x='1'>Réti &#233;</text></g>",
    "",
    '<?xml version="1.0" encoding="UTF-8"?>\n<!-- by hand -->\n',
  ],
  ["<style>.a{fill:url(#g);font:12px serif}</style><rect class='a' style='fill:#fff'/>", "", ""],
  ["<image xlink:href='data:image/png;base64,AAAA'/>", " xmlns:xlink='http://www.w3.org/1999/xlink'", ""],
  [
    "<sodipodi:namedview id='n'/><g inkscape:label='x'/>",
    " xmlns:sodipodi='http://sodipodi.sourceforge.net/DTD/sodipodi-0.dtd' xmlns:inkscape='http://www.inkscape.org/namespaces/inkscape'",
    "",
  ],
])("an SVG that only draws is a picture: %s", (inner, root, before) => {
  expect(svg(inner, root, before)[0]).toMatchObject({
    type: "picture",
    mediaType: "image/svg+xml",
    width: 40,
    height: 30,
  });
});

test.each([
  ...[
    "<script/>",
    "<a onclick='x'/>",
    "<a href='https://a.example/'/>",
    "<image href='https://a.example/x.png'/>",
  ],
  ...[
    "<style>@import 'x'</style>",
    "<foreignObject/>",
    "<rect fill='url(https://a.example/)'/>",
    "<set attributeName='x'/>",
  ],
  ...[
    "<svg:script>1</svg:script>",
    "<x:script xmlns:x='http://www.w3.org/2000/svg'>1</x:script>",
    "<h:img xmlns:h='http://www.w3.org/1999/xhtml'/>",
  ],
  ...[
    "<style>a{b:u\\72l(https://a.example)}</style>",
    "<rect style='fill:u\\72 l(//a.example)'/>",
    "<rect style='x:&#92;75rl(//a)'/>",
  ],
  ...[
    "<rect fill='&#117;rl(//a.example)'/>",
    "<use href='data:image/svg+xml,x#y'/>",
    "<use xlink:href='x.svg#a'/>",
    "<g xml:base='//a.example'/>",
  ],
  ...[
    "<![CDATA[<script>]]>",
    "<?xml-stylesheet href='//a'?>",
    "<rect/><rect",
    "&x;",
    "<g onload=x>",
    "<g ONLOAD='x'/>",
    "<animate/>",
    "<iframe/>",
  ],
])("an SVG with %s is none", (inner) => {
  expect([
    svg(inner),
    svg(inner, " xmlns:svg='http://www.w3.org/2000/svg' xmlns:xlink='http://www.w3.org/1999/xlink'"),
  ]).toEqual([[], []]);
});

test("an SVG in another encoding, with entities of its own, or with something around it is none", () => {
  const plain = "<svg xmlns='http://www.w3.org/2000/svg'/>";
  const utf16 = new Uint8Array(Buffer.from(`\ufeff${plain}`, "utf16le"));
  const declared = (encoding: string) =>
    new TextEncoder().encode(`<?xml version="1.0" encoding="${encoding}"?>${plain}`);
  const entity = new TextEncoder().encode(`<!DOCTYPE svg [<!ENTITY x "<script/>">]>${plain}`);
  const after = new TextEncoder().encode(`${plain}<script/>`);
  const html = new TextEncoder().encode("<svg xmlns='http://www.w3.org/1999/xhtml'/>");
  for (const bytes of [utf16, declared("UTF-7"), declared("ISO-2022-JP"), entity, after, html])
    expect(readPicture(bytes).content).toEqual([]);
  expect(readPicture(declared("utf-8")).content).toHaveLength(1);
});

test("content built by hand carries no unsafe address through a writer", async () => {
  const content: Content = [
    {
      type: "paragraph",
      runs: [{ type: "text", text: "x", marks: { link: "javascript:alert(1)" as Address } }],
    },
  ];
  const office: Uint8Array[] = [];
  for (const format of OFFICE_FORMATS) office.push(await writeOffice({ content }, format));
  const parts = office.flatMap((bytes) => Object.values(unzipSync(bytes)).map((part) => strFromU8(part)));
  expect([writeHtml(content), writeMarkdown(content), ...parts].join("\n")).not.toContain("javascript:");
});
