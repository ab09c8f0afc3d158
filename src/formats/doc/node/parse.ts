/** The words of a document, in lines. */
export interface DocText {
  readonly body: string;
  readonly notes: string;
  readonly boxes: string;
  readonly comments: string;
  /** What stands at the edges of pages. */
  readonly edges: string;
}

/**
 * Takes the words out of a document of before 2007.
 * @throws what the library throws about a file that is none
 */
export async function parseDoc(bytes: Uint8Array): Promise<DocText> {
  const { default: WordExtractor } = await import("word-extractor");
  const document = await new WordExtractor().extract(Buffer.from(bytes));
  // Its signs stay what they are.
  const own = { filterUnicode: false };
  const lines = (texts: readonly string[]) => texts.filter((text) => text.trim() !== "").join("\n");
  return {
    body: document.getBody(own),
    notes: lines([document.getFootnotes(own), document.getEndnotes(own)]),
    boxes: document.getTextboxes({ ...own, includeHeadersAndFooters: false }),
    comments: document.getAnnotations(own),
    edges: document.getHeaders({ ...own, includeFooters: true }),
  };
}
