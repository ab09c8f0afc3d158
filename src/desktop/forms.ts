import { safeLink } from "../content/address.js";
import { decodeAs } from "../content/decode.js";
import { defined } from "../content/defined.js";
import { hashBytes } from "../content/encode.js";
import { decodeText } from "../formats/text/decode.js";
import type { Copied } from "./desktop.js";

/**
 * The form by which programs that hold passwords declare that what they offer is one, so that no history keeps it; its
 * content is `secret`.
 */
export const SECRET_HINT = "x-kde-passwordManagerHint";

/** The form by which Drawer knows what it has offered itself. */
export const OWN = "application/x-drawer-block";

/** The form of cells (BIFF8) that LibreOffice takes into a sheet without a question; its word processor does not take it. */
export const CELLS = 'application/x-openoffice-biff-8;windows_formatname="Biff8"';

/** The forms under which programs offer each flavour, the best first: media types, and the names of old that X11 knows. */
export const FORMS = {
  html: ["text/html"],
  tsv: ["text/tab-separated-values"],
  text: ["UTF8_STRING", "text/plain;charset=utf-8", "text/plain", "STRING"],
  picture: ["image/png", "image/jpeg"],
  address: ["chromium/x-source-url", "text/x-moz-url-priv"],
  /** What stands around the HTML in its page, which Firefox offers apart, in UTF-16. */
  around: ["text/_moz_htmlcontext"],
  secret: [SECRET_HINT],
} as const;

/** The forms under which a word processor offers the same as a document (ODF). */
const DOCUMENTS = ['application/x-openoffice-embed-source-xml;windows_formatname="Star Embed Source (XML)"'];

/** The form of Rich Text Format that Drawer offers, and all under which programs offer it that have no HTML. */
export const RICH_TEXT = "application/rtf";
const RICH_TEXTS = ["text/rtf", RICH_TEXT, "text/richtext"];

/** A picture of HTML that is only named there, by a file on this machine. */
const NAMED_PICTURE = /<img\b[^<>]*?\ssrc\s*=\s*["']?file:/i;

/**
 * The form that is read too when the others have been: the document, where the HTML only names its pictures.
 * @param forms what was read
 */
function documentForm(
  offered: readonly string[],
  forms: ReadonlyMap<string, Uint8Array>,
): string | undefined {
  const html = forms.get(FORMS.html[0]);
  return html && NAMED_PICTURE.test(decodeText(html, "html"))
    ? DOCUMENTS.find((name) => offered.includes(name))
    : undefined;
}

/** The form of each flavour that is read, of those that are offered. */
function formsRead(offered: readonly string[]): string[] {
  return Object.values(FORMS)
    .map((names) => names.find((name) => offered.includes(name)))
    .filter((name) => name !== undefined);
}

/**
 * Reads the forms that Drawer knows, of those that are offered.
 * @param read reads one; nothing when it is refused
 */
export async function readForms(
  offered: readonly string[],
  read: (form: string) => Promise<Uint8Array | undefined>,
): Promise<Map<string, Uint8Array>> {
  const forms = new Map<string, Uint8Array>();
  const take = async (form: string) => {
    const bytes = await read(form);
    if (bytes) forms.set(form, bytes);
  };
  for (const form of formsRead(offered)) await take(form);
  const html = FORMS.html.some((name) => forms.has(name));
  const document = html ? documentForm(offered, forms) : RICH_TEXTS.find((name) => offered.includes(name));
  if (document !== undefined) await take(document);
  return forms;
}

/** What a program has copied, of the forms that were read. */
export function copiedOf(forms: ReadonlyMap<string, Uint8Array>, origin: Copied["origin"]): Copied {
  const read = (names: readonly string[]) => {
    const name = names.find((each) => forms.has(each));
    return name === undefined ? undefined : forms.get(name);
  };
  const [html, tsv, text, picture] = [
    read(FORMS.html),
    read(FORMS.tsv),
    read(FORMS.text),
    read(FORMS.picture),
  ];
  const hint = read(FORMS.secret);
  const secret = hint !== undefined && decodeText(hint).trim() === "secret";
  const document = read(DOCUMENTS);
  const rtf = read(RICH_TEXTS);
  return {
    ...(rtf && { rtf }),
    ...(document && { document }),
    ...(secret && { secret }),
    ...(html && { html: inItsList(decodeText(html, "html"), read(FORMS.around)) }),
    ...(tsv && { tsv: decodeText(tsv) }),
    ...(text && { text: decodeText(text) }),
    ...(picture && { picture }),
    origin: { ...origin, ...defined({ address: addressOf(read(FORMS.address)) }) },
  };
}

/** Items of a list that Firefox has copied without it, in that list. */
function inItsList(html: string, around: Uint8Array | undefined): string {
  if (!around || !/^\s*(<meta\b[^<>]*>\s*)?<li\b/i.test(html)) return html;
  const [, name, attributes] =
    /<([ou]l)\b([^<>]*)><\/\1>/i.exec(new TextDecoder("utf-16le").decode(around)) ?? [];
  return name === undefined ? html : `<${name}${attributes}>${html}</${name}>`;
}

/** The address of the page that something was copied from, as browsers say it: the one in UTF-8, the other in UTF-16. */
function addressOf(bytes: Uint8Array | undefined): string | undefined {
  if (!bytes) return undefined;
  const text = decodeAs(bytes.includes(0) ? "utf-16le" : "utf-8", bytes);
  return safeLink(text.replace(/\0+$/, "").split("\n")[0]!.trim());
}

/** Within this time the same copy is the same act, in milliseconds. */
const SAME_ACT = 1000;

/** Tells a copy that a program has made twice for one act of the user. */
export class Repeats {
  #last: { readonly hash: string; readonly at: number } | undefined;

  /** Whether a copy is the act before it over again. */
  isRepeat({ html = "", tsv = "", text = "", picture }: Copied): boolean {
    const facts = JSON.stringify([html, tsv, text, picture && hashBytes(picture)]);
    const hash = hashBytes(new TextEncoder().encode(facts));
    const isRepeat = this.#last?.hash === hash && performance.now() - this.#last.at < SAME_ACT;
    this.#last = { hash, at: performance.now() };
    return isRepeat;
  }
}
