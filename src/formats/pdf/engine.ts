import type { PDFDocumentProxy } from "pdfjs-dist/legacy/build/pdf.mjs";
import { boxOf, drawnOn } from "./drawn.js";
import type { OutlineTitle, PageFacts, PieceFacts, StructureNode } from "./page-facts.js";

/** A document that is open in the thread that reads it. */
export interface OpenPdf {
  readonly count: number;
  readonly title?: string;
  readonly outline: readonly OutlineTitle[];
  page(number: number): Promise<PageFacts>;
  close(): Promise<void>;
}

/** How a document is opened. */
export interface PdfOptions {
  readonly password?: string;
  /** Where the tables of characters and the fonts of the library are: a folder or an address with a slash at its end. */
  readonly data?: string;
}

/** A file that says it has more pages is damaged, or made to be slow. */
const MOST_PAGES = 100_000;

class TooManyPages extends Error {
  override readonly name = "TooManyPages";
}

/** Titles of outlines that stand deeper than this are left out. */
const OUTLINE_DEPTH = 6;

/**
 * Opens a PDF (ISO 32000) by pdf.js, which runs nothing that the file brings and fetches nothing.
 * @throws what pdf.js throws, by its names: `PasswordException`, `InvalidPDFException`
 */
export async function openPdf(bytes: Uint8Array, { password, data }: PdfOptions): Promise<OpenPdf> {
  const pdfjs = await import("pdfjs-dist/legacy/build/pdf.mjs");
  const task = pdfjs.getDocument({
    // It takes the bytes for itself.
    data: bytes.slice(),
    ...(password !== undefined && { password }),
    ...{ isEvalSupported: false, enableXfa: false, stopAtErrors: false, disableFontFace: true },
    ...{ useSystemFonts: false, isOffscreenCanvasSupported: false, isImageDecoderSupported: false },
    ...{ useWorkerFetch: false, disableAutoFetch: true, verbosity: 0, maxImageSize: 50_000_000 },
    ...(data !== undefined && {
      ...{ cMapUrl: `${data}cmaps/`, cMapPacked: true, standardFontDataUrl: `${data}standard_fonts/` },
      wasmUrl: `${data}wasm/`,
    }),
  });
  const document = await task.promise;
  if (document.numPages > MOST_PAGES) throw new TooManyPages();
  if (document.numPages < 1) throw new Error("It has no pages");
  const { info } = await document.getMetadata();
  const title = (info as { Title?: unknown }).Title;
  return {
    count: document.numPages,
    ...(typeof title === "string" && title.trim() !== "" && { title: title.trim() }),
    outline: await outlineOf(document),
    page: (number) => readPage(pdfjs, document, number),
    close: () => task.destroy(),
  };
}

interface OutlineNode {
  readonly title: string;
  readonly items: readonly OutlineNode[];
}

async function outlineOf(document: PDFDocumentProxy): Promise<OutlineTitle[]> {
  const titles: OutlineTitle[] = [];
  const add = (nodes: readonly OutlineNode[], level: number) => {
    for (const { title, items } of nodes) {
      titles.push({ title, level });
      if (level < OUTLINE_DEPTH) add(items, level + 1);
    }
  };
  // An outline that is damaged is none.
  add(((await document.getOutline().catch(() => undefined)) ?? []) as OutlineNode[], 1);
  return titles;
}

interface FontFacts {
  readonly name?: string;
  readonly bold?: boolean;
  readonly black?: boolean;
  readonly italic?: boolean;
  readonly isMonospace?: boolean;
}

async function readPage(
  pdfjs: typeof import("pdfjs-dist/legacy/build/pdf.mjs"),
  document: PDFDocumentProxy,
  number: number,
): Promise<PageFacts> {
  const page = await document.getPage(number);
  const { width, height, transform } = page.getViewport({ scale: 1 });
  const drawn = await drawnOn(pdfjs, page, transform as number[]);
  const { items, styles } = await page.getTextContent({ includeMarkedContent: true });
  const fonts = new Map<string, FontFacts>();
  const fontOf = (name: string): FontFacts => {
    let font = fonts.get(name);
    if (!font) {
      font = page.commonObjs.has(name) ? (page.commonObjs.get(name) as FontFacts) : {};
      fonts.set(name, font);
    }
    return font;
  };
  const pieces: PieceFacts[] = [];
  const marks: { id?: string | undefined; isArtifact: boolean }[] = [];
  for (const item of items) {
    if ("type" in item) {
      const { type, tag, id } = item as { type: string; tag?: string; id?: string | null };
      if (type === "endMarkedContent") marks.pop();
      else
        marks.push({
          id: id ?? marks.at(-1)?.id,
          isArtifact: tag === "Artifact" || marks.at(-1)?.isArtifact === true,
        });
      continue;
    }
    if (item.str === "") continue;
    const [a, b, c, d, x, y] = pdfjs.Util.transform(transform as number[], item.transform) as number[];
    const style = styles[item.fontName];
    const isVertical = style?.vertical === true;
    const font = fontOf(item.fontName);
    const size = Math.hypot(c!, d!) || Math.hypot(a!, b!);
    const name = font.name ?? "";
    const around = marks.at(-1);
    pieces.push({
      ...{ text: item.str, x: x!, y: y!, size, isVertical },
      width: isVertical ? item.height : item.width,
      turns: (Math.round(Math.atan2(b!, a!) / (Math.PI / 2)) & 3) as PieceFacts["turns"],
      isRightToLeft: item.dir === "rtl",
      isBold: font.bold === true || font.black === true || BOLD.test(name),
      isItalic: font.italic === true || ITALIC.test(name),
      isMonospace: font.isMonospace === true || MONOSPACE.test(name),
      isArtifact: around?.isArtifact === true,
      ...(around?.id !== undefined && { mark: around.id }),
    });
  }
  const annotations = (await page.getAnnotations()) as { subtype: string; url?: string; rect: number[] }[];
  const links = annotations.flatMap(({ subtype, url, rect }) =>
    subtype === "Link" && url !== undefined
      ? [{ ...boxOf(transform as number[], rect as [number, number, number, number]), address: url }]
      : [],
  );
  const structure = (await page.getStructTree().catch(() => null)) as StructureNode | null;
  page.cleanup();
  return { width, height, pieces, links, ...drawn, ...(structure && { structure }) };
}

/** What names of fonts say of how they look, those of TeX among them. */
const BOLD = /bold|black|heavy|demi|[-,]Medi\b|(?:^|\+)(?:CMBX|CMB\d|SFBX|ECBX)/i;
const ITALIC = /italic|oblique|[-,](?:Regu|Medi)Ital|(?:^|\+)(?:CMTI|CMSL|CMMI|SFTI|SFSL|ECTI)/i;
const MONOSPACE = /mono|courier|consol|typewriter|(?:^|\+)(?:CMTT|SFTT|ECTT)/i;
