import { readFileSync } from "node:fs";
import { createServer, type Server } from "node:http";
import { join } from "node:path";
import { build } from "esbuild";
import MarkdownIt from "markdown-it";
import { marked } from "marked";
import { chromium, type Browser, type Page } from "playwright-core";
import { CHROMIUM_FLAGS, findHeadless } from "../../scripts/chromium.mjs";
import { payload, payloads } from "../support/demo";
import { hostileHtml, hostileMarkdown } from "../support/hostile";
import {
  type Address,
  readFlavours,
  readHtml,
  readMarkdown,
  writeHtml,
  writeMarkdown,
  type Content,
  type Run,
} from "drawer";
import { readSource } from "drawer/files";

const executablePath = findHeadless();
const onPages = executablePath || process.env["CI"] ? describe : describe.skip;

/** What the page has of it. */
interface OnPage {
  readonly drawer: typeof import("drawer") & typeof import("drawer/page") & typeof import("drawer/files");
}

/** The library, bundled for a page that has nothing else on it. */
const PAGE = `
  import { Block, readFlavours, readHtml, readMarkdown, writeHtml, writeText } from "./dist/index.js";
  import { readSource } from "./dist/files/index.js";
  import { domAdapter, placeOf } from "./dist/page/index.js";
  window.drawer = { readSource, Block, domAdapter, placeOf, readFlavours, readHtml, readMarkdown, writeHtml, writeText };
`;

onPages("content in a real browser", () => {
  let server: Server;
  let browser: Browser;
  let page: Page;
  const asked: string[] = [];

  beforeAll(async () => {
    const bundled = await build({
      stdin: { contents: PAGE, resolveDir: "." },
      bundle: true,
      format: "iife",
      write: false,
      logLevel: "error",
    });
    server = createServer((request, response) => {
      if (request.url === "/page.js")
        response.setHeader("content-type", "text/javascript").end(bundled.outputFiles[0]!.text);
      else
        response
          .setHeader("content-type", "text/html")
          .end(
            "<!doctype html><body><script src=/page.js></script><div id=here contenteditable></div><div id=shown></div>",
          );
    });
    await new Promise<void>((ready) => server.listen(0, "127.0.0.1", ready));
    browser = await chromium.launch({ executablePath: executablePath!, args: CHROMIUM_FLAGS });
    page = await browser.newPage();
    const address = `http://127.0.0.1:${(server.address() as { port: number }).port}/`;
    await page.route("**", (route) => {
      const url = route.request().url();
      if (url.startsWith(address)) return route.continue();
      asked.push(url);
      return route.abort();
    });
    await page.goto(address);
  }, 60_000);
  afterAll(async () => {
    await browser?.close();
    server?.close();
  });

  test.each(payloads)("the page's own parser reads %s as Node's does", async (name) => {
    const flavours = payload(name);
    const inPage = await page.evaluate(async (given) => {
      const { readFlavours: read, domAdapter } = (window as unknown as OnPage).drawer;
      return (await read(given, { adapter: domAdapter })).content;
    }, flavours);
    expect(inPage).toEqual((await readFlavours(flavours)).content);
  });

  test("the page's own parser reads office programs' lists and formats as Node's does", async () => {
    const html = readFileSync("test/support/office-list.html", "utf8");
    const inPage = await page.evaluate(async (given) => {
      const { readHtml: read, domAdapter } = (window as unknown as OnPage).drawer;
      return (await read(given, { adapter: domAdapter })).content;
    }, html);
    const { content } = await readHtml(html);
    expect(inPage).toEqual(content);
    expect(
      content.map((flow) =>
        flow.type === "list" ? `${flow.ordered} ${flow.start ?? 1} ${flow.items.length}` : flow.type,
      ),
    ).toEqual(["paragraph", "false 1 2", "true 3 2", "table"]);
  });

  test("files read in a page as they do in Node, those in bytes of a code page of old as well", async () => {
    // The bytes from 80 to 9F are signs in one code page, and nothing in another that browsers take for it.
    const signs = "\u0093Dé\u0094 costs 5 \u0080 \u0096 at Dünnweiler’s".replace("’", "\u0092");
    const mail = [
      ...["From: Ada <ada@merrow-spit.example>", "Subject: Rings", "MIME-Version: 1.0"],
      ...["Content-Type: text/plain; charset=windows-1252", "Content-Transfer-Encoding: 8bit", "", signs, ""],
    ].join("\r\n");
    const card = `BEGIN:VCARD\r\nVERSION:2.1\r\nN;CHARSET=windows-1252:${signs};D\r\nEND:VCARD\r\n`;
    const saved = [
      ...["From: <Saved>", "MIME-Version: 1.0", 'Content-Type: multipart/related; boundary="b"', "", "--b"],
      ...["Content-Type: text/html; charset=windows-1252", "Content-Transfer-Encoding: binary"],
      ...["Content-Location: https://merrow-spit.example/", "", `<p>${signs}</p>`, "--b--", ""],
    ].join("\r\n");
    const made: Readonly<Record<string, string>> = {
      ...{
        "a.eml": mail,
        "a.mbox": `From ada Tue Apr  8 05:50:00 2031\r\n${mail}`,
        "a.vcf": card,
        "a.mhtml": saved,
      },
      "a.rtf": `{\\rtf1\\ansi\\ansicpg1252 ${signs}\\par}`,
      "a.ics":
        "BEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\nSUMMARY:Nets\r\nDTSTART:20310408T055000\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n",
    };
    const files = [
      ...Object.entries(made).map(([name, text]) => [name, Buffer.from(text, "latin1")] as const),
      ...[
        "diary.docx",
        "diary.odt",
        "ringing.xlsx",
        "ringing.ods",
        "costs.csv",
        "letter.html",
        "notes.md",
      ].map((name) => [name, readFileSync(join("demo", name))] as const),
    ];
    for (const [name, bytes] of files) {
      const inPage = await page.evaluate(
        async ([letters, named]) => {
          const { readSource: read, writeHtml } = (window as unknown as OnPage).drawer;
          const bytes = Uint8Array.from(atob(letters), (letter) => letter.charCodeAt(0));
          const source = await read(bytes, named);
          const spot = named.endsWith(".mbox") ? "a1" : undefined;
          if (spot) await source.open(spot);
          const { content, notices = [] } = source.at(spot);
          return { html: writeHtml(content), notices: notices.map(({ message }) => message) };
        },
        [bytes.toString("base64"), name] as const,
      );
      const source = await readSource(bytes, name);
      const spot = name.endsWith(".mbox") ? "a1" : undefined;
      if (spot) await source.open(spot);
      const { content, notices = [] } = source.at(spot);
      expect([name, inPage]).toEqual([
        name,
        { html: writeHtml(content), notices: notices.map(({ message }) => message) },
      ]);
      if (/^a\.(eml|mbox|vcf|mhtml|rtf)$/.test(name))
        expect([name, inPage.html]).toEqual([name, expect.stringContaining("“Dé” costs 5 € – at D")]);
    }
  });

  test("white space reads as the browser shows it", async () => {
    const samples = [
      "<p> a  b\n c </p>",
      "a <b> b </b> c",
      "<p>a<br> b</p>",
      "<p>a&nbsp; b</p>",
      "<div>a<div> b </div>c</div>",
      "<p>a<span> </span>b</p>",
      "<p><b>a</b> <i>b</i></p>",
      "<p>a\t\tb</p>",
      "<div style='white-space:pre'>a  b\n c</div>",
      "<div style='white-space:pre-line'>a  b\n c</div>",
      "<p>a <br>b",
      "<p>x<!-- c --> y",
      "<ul><li> a </li></ul>",
    ];
    for (const sample of samples) {
      const [shown, read] = await page.evaluate(async (html) => {
        const { readHtml: parse, writeText, domAdapter } = (window as unknown as OnPage).drawer;
        const here = document.querySelector<HTMLElement>("#shown")!;
        here.innerHTML = html;
        return [
          here.innerText.replace(/\n+/g, "\n").trim(),
          writeText((await parse(html, { adapter: domAdapter })).content)
            .replace(/^- /, "")
            .trim(),
        ];
      }, sample);
      expect([sample, read]).toEqual([sample, shown]);
    }
  });

  test(`nothing runs and nothing is asked for, of ${hostileHtml.length + hostileMarkdown.length} hostile inputs, read by either parser and placed`, async () => {
    expect(hostileHtml.length + hostileMarkdown.length).toBeGreaterThanOrEqual(150);
    const inputs = [
      ...hostileHtml.map((html) => ({ html })),
      ...hostileMarkdown.map((markdown) => ({ markdown })),
    ];
    for (const input of inputs) {
      const { content } = "html" in input ? await readHtml(input.html) : await readMarkdown(input.markdown);
      const fromNode = writeHtml(content);
      const fromPage = await page.evaluate(
        async ({ html, markdown, written }) => {
          const {
            Block,
            readHtml: parse,
            readMarkdown: parseMarkdown,
            domAdapter,
            placeOf,
            writeHtml: write,
          } = (window as unknown as OnPage).drawer;
          const { content: read } =
            html === undefined
              ? await parseMarkdown(markdown!, { adapter: domAdapter })
              : await parse(html, { adapter: domAdapter });
          const here = document.querySelector<HTMLElement>("#here")!;
          const block = new Block(read, []);
          if (block.text.trim() !== "") await placeOf(here)!.put(block);
          document.querySelector("#shown")!.innerHTML = written + write(read);
          for (const element of document.querySelectorAll<HTMLElement>("#shown *, #here *")) {
            element.dispatchEvent(new MouseEvent("mouseover", { bubbles: true }));
            if (element.localName !== "a") element.click();
            else if (!/^(https?|mailto|tel):$/.test((element as HTMLAnchorElement).protocol))
              throw new Error(`a link to ${(element as HTMLAnchorElement).href}`);
          }
          return write(read);
        },
        {
          html: "html" in input ? input.html : undefined,
          markdown: "markdown" in input ? input.markdown : undefined,
          written: fromNode,
        },
      );
      for (const written of [fromNode, fromPage]) expect(unsafe(written)).toBeUndefined();
    }
    await page.waitForTimeout(300);
    expect(await page.evaluate(() => (window as unknown as { hit?: number }).hit)).toBeUndefined();
    expect(asked).toEqual([]);
  }, 120_000);

  /** Renderers of other people, with HTML allowed, as those who publish Markdown have them. */
  const renderers: Record<string, (markdown: string) => string> = {
    marked: (markdown) => marked.parse(markdown, { async: false }),
    "markdown-it": (markdown) => new MarkdownIt({ html: true, linkify: true }).render(markdown),
  };

  /** A text as runs of a letter each, which look different to the eye and the same in Markdown. */
  const letters = (text: string): Run[] =>
    [...text].map((letter, at) => ({
      type: "text",
      text: letter,
      marks: [{ color: "#b03020" }, {}, { size: 9 }, { font: "Georgia" }][at % 4]!,
    }));
  /** A text in every place where text stands. */
  const placed = (text: string): Content => [
    { type: "paragraph", runs: letters(text) },
    { type: "paragraph", runs: [{ type: "text", text }] },
    { type: "paragraph", runs: [{ type: "text", text, marks: { code: true } }] },
    {
      type: "paragraph",
      runs: letters(text).map((run, at) => (at % 3 ? run : { ...run, marks: { bold: true } }) as Run),
    },
    { type: "heading", level: 2, runs: letters(text) },
    { type: "list", ordered: false, items: [{ flows: [{ type: "paragraph", runs: letters(text) }] }] },
    { type: "quote", flows: [{ type: "paragraph", runs: letters(text) }] },
    { type: "code", text },
    {
      type: "table",
      headerRows: 1,
      caption: letters(text),
      rows: [
        [{ flows: [{ type: "paragraph", runs: letters(text) }] }],
        [{ flows: [{ type: "code", text }] }],
      ],
    },
    {
      type: "paragraph",
      runs: [{ type: "text", text, marks: { link: "https://merrow-spit.example/" as Address } }],
    },
  ];

  test.each(Object.entries(renderers))(
    "text that was inert stays inert in Markdown that %s makes a page of",
    async (_, render) => {
      for (const text of [
        ...hostileHtml,
        ...hostileMarkdown,
        "<img src=x onerror=window.hit=1>",
        "`\n\n<img src=x onerror=window.hit=1>",
      ]) {
        const { content } = await readHtml(text);
        for (const written of [writeMarkdown(placed(text)), writeMarkdown(content)]) {
          const found = await page.evaluate((html) => {
            const shown = document.querySelector<HTMLElement>("#shown")!;
            shown.innerHTML = html;
            const bad = [...shown.querySelectorAll<HTMLElement>("*")].find(
              (element) =>
                !/^(p|h[1-6]|ul|ol|li|table|caption|thead|tbody|tr|th|td|blockquote|pre|code|hr|br|strong|em|u|s|del|sub|sup|a)$/.test(
                  element.localName,
                ) ||
                [...element.attributes].some(
                  ({ name, value }) =>
                    !/^(href|class|align|style|start)$/.test(name) ||
                    (name === "href" && !/^(https?|mailto|tel):/i.test(value)),
                ),
            );
            for (const element of shown.querySelectorAll<HTMLElement>("*"))
              if (!element.closest("a")) element.click();
            return bad?.outerHTML;
          }, render(written));
          expect([text, found]).toEqual([text, undefined]);
        }
      }
      await page.waitForTimeout(200);
      expect(await page.evaluate(() => (window as unknown as { hit?: number }).hit)).toBeUndefined();
      expect(asked).toEqual([]);
    },
    120_000,
  );
});

/** Elements and attributes that written HTML may hold; the first thing in it that is anything else. */
function unsafe(html: string): string | undefined {
  const tags = html.match(/<[^>]*>/g) ?? [];
  return tags.find(
    (tag) =>
      !/^<\/?(p|h[1-6]|ul|ol|li|table|caption|thead|tbody|tr|th|td|blockquote|pre|code|hr|br|span|strong|em|u|s|sub|sup|a|img)( (href="(https?:|mailto:|tel:)[^"<>]*"|src="data:image\/(png|jpeg|gif|webp|svg\+xml);base64,[\w+/=]*"|alt="[^"<>]*"|(width|height|colspan|rowspan|start)="\d+"|dir="(ltr|rtl)"|class="language-[\w+#.-]+"|sdval="[\d.e+-]+"|sdnum="[^"<>]*"|style="[^"<>]*"))*>$/i.test(
        tag,
      ) || /url\(|expression|import|javascript/i.test(/style="([^"]*)"/.exec(tag)?.[1] ?? ""),
  );
}
