import { toBase64 } from "../../content/base64.js";

/** Something that a page names by an address, and that stands in the same file. */
export interface LinkedPart {
  readonly bytes: Uint8Array;
  readonly mediaType: string;
}

/** How many letters of an element are looked at before the address that it names. */
const BEFORE = 2000;
const SHEET = /<link\b[^<>]{0,4000}>/gi;
const PICTURE = new RegExp(
  `(<(?:img|image)\\b[^<>]{0,${BEFORE}}?\\s(?:src|xlink:href|href)\\s*=\\s*)("[^"]*"|'[^']*')`,
  "gi",
);

/**
 * A page with the style sheets and pictures in it that it names by addresses.
 * @param find what stands under an address; nothing when it does not stand in the same file
 */
export function withLinkedParts(html: string, find: (address: string) => LinkedPart | undefined): string {
  return html
    .replace(SHEET, (link) => {
      if (!/\brel\s*=\s*["']?\s*stylesheet\b/i.test(link)) return link;
      const address = /\bhref\s*=\s*("[^"]*"|'[^']*')/i.exec(link)?.[1];
      const sheet = address === undefined ? undefined : find(plain(address));
      if (!sheet) return link;
      const css = new TextDecoder().decode(sheet.bytes).replace(/<\/style/gi, "");
      return `<style>${css}</style>`;
    })
    .replace(PICTURE, (written, before: string, address: string) => {
      const picture = find(plain(address));
      return picture && /^image\//i.test(picture.mediaType)
        ? `${before}"data:${picture.mediaType};base64,${toBase64(picture.bytes)}"`
        : written;
    });
}

/** An address without its quotation marks, and with signs for their names. */
function plain(quoted: string): string {
  return quoted.slice(1, -1).replace(/&amp;/g, "&").trim();
}
