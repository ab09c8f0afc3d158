/** What is used of word-extractor 1.0.4, which has no types of its own. */
declare module "word-extractor" {
  /** `filterUnicode: false` leaves quotation marks and dashes as they are. */
  interface TextOptions {
    readonly filterUnicode?: boolean;
  }
  interface WordDocument {
    getBody(options: TextOptions): string;
    getFootnotes(options: TextOptions): string;
    getEndnotes(options: TextOptions): string;
    getAnnotations(options: TextOptions): string;
    getHeaders(options: TextOptions & { readonly includeFooters?: boolean }): string;
    getTextboxes(options: TextOptions & { readonly includeHeadersAndFooters?: boolean }): string;
  }
  export default class WordExtractor {
    extract(file: Buffer): Promise<WordDocument>;
  }
}
