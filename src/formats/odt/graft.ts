import type { EditedPackage } from "../office/edited-package.js";
import { withLast } from "../office/ooxml-package.js";
import { childPlaces, xmlPlaces } from "../office/xml-text.js";
import { Parts } from "../office/zip.js";

const CONTENT = "content.xml";
const MANIFEST = "META-INF/manifest.xml";

/** A block of a document as it stands in another: its text, and the name of its element. */
export interface GraftedBlock {
  readonly xml: string;
  readonly name: string;
}

/**
 * Makes the blocks of one odt blocks of another: its named styles are those of the other, and added where it has none; its automatic
 * styles, pictures, notes and tables are added under names of their own.
 *
 * @param host the document that they come into, which is changed but for its text
 * @param written an odt as our writer makes it
 * @param plain the style of plain paragraphs in the host
 * @param added the automatic styles that the text has got since, which are not in it yet
 * @returns the blocks, and the automatic styles that the text needs
 */
export function graft(
  host: EditedPackage,
  written: Uint8Array,
  plain: string,
  added = "",
): { blocks: GraftedBlock[]; styles: string } {
  const guest = new Parts(written, host.parts.file);
  const text = host.text(CONTENT)!;
  const xml = guest.needed(CONTENT);
  const places = [...xmlPlaces(xml)];
  const automatic = places.find(({ name }) => name === "automatic-styles")!;
  const body = places.find((place) => place.name === "text" && place.parent?.name === "body")!;
  const prefix = freePrefix(text + added);
  const own = new Set(
    [...xml.slice(automatic.inner, automatic.innerEnd).matchAll(/ style:name="([^"]*)"/g)].map(
      ([, name]) => name!,
    ),
  );
  let tables = Number(/^drawer(\d+)/.exec(prefix)![1]) * 1000;
  const renamed = (part: string, isBody: boolean) =>
    part
      .replace(
        / ((?:style|text|table|draw):(?:name|style-name|parent-style-name|data-style-name))="([^"]*)"/g,
        (all, attribute: string, name: string) => {
          if (attribute === "table:name") return ` table:name="Table${++tables}"`;
          if (own.has(name)) return ` ${attribute}="${prefix}${name}"`;
          if (attribute === "style:name") return all;
          if (isBody && name === "Standard") return ` ${attribute}="${plain}"`;
          addStyle(host, guest, name);
          return all;
        },
      )
      .replace(/ text:id="ftn(\d+)"/g, ` text:id="${prefix}ftn$1"`);
  const styles = renamed(xml.slice(automatic.inner, automatic.innerEnd), false);
  const blocks = childPlaces(xml, body).map(({ start, end, name }) => ({
    xml: withNamespaces(renamed(xml.slice(start, end), true), text, xml),
    name,
  }));
  for (const name of guest.entries.keys()) if (name.startsWith("Pictures/")) addPicture(host, guest, name);
  return { blocks, styles: withNamespaces(styles, text, xml, true) };
}

/** What the names of styles that are added begin with, which no other name in the text does. */
function freePrefix(text: string): string {
  for (let number = 1; ; number++) if (!text.includes(`"drawer${number}-`)) return `drawer${number}-`;
}

/** Adds a named style of the guest, where the host has none of that name. The letters are those of the host, but for code. */
function addStyle(host: EditedPackage, guest: Parts, name: string): void {
  const xml = host.text("styles.xml");
  if (
    xml === undefined ||
    name === "Standard" ||
    new RegExp(`<style:style\\b[^>]*\\sstyle:name="${name}"`).test(xml)
  )
    return;
  const style = new RegExp(`<style:style style:name="${name}"[^>]*?(?:/>|>[\\s\\S]*?</style:style>)`).exec(
    guest.needed("styles.xml"),
  )?.[0];
  if (style === undefined) return;
  const isCode = /Preformatted|Source/.test(name);
  const made = isCode ? style : style.replace(/ fo:font-family="[^"]*"/g, "");
  const end = xml.indexOf("</office:styles>");
  if (end >= 0) host.set("styles.xml", xml.slice(0, end) + made + xml.slice(end));
}

function addPicture(host: EditedPackage, guest: Parts, name: string): void {
  // Its name is the hash of its bytes.
  if (host.has(name)) return;
  host.set(name, guest.bytes(name)!);
  const listed = new RegExp(`<manifest:file-entry manifest:full-path="${name}"[^>]*/>`).exec(
    guest.needed(MANIFEST),
  )![0];
  const manifest = host.text(MANIFEST);
  if (manifest !== undefined) host.set(MANIFEST, withLast(manifest, "manifest", listed));
}

/** Elements that say which namespaces their prefixes stand for, where the host does not. */
function withNamespaces(part: string, host: string, guest: string, isMany = false): string {
  const root = (xml: string) => /<office:document-content\b[^>]*>/.exec(xml)?.[0] ?? "";
  const missing = [...root(guest).matchAll(/ xmlns:(\w+)="([^"]*)"/g)]
    .filter(([, prefix]) => part.includes(`${prefix}:`))
    .filter(([declaration]) => !root(host).includes(declaration.trim()))
    .map(([declaration]) => declaration)
    .join("");
  if (missing === "") return part;
  return part.replace(isMany ? /(?<=^|>)<(?=\w)[\w:-]+/g : /^<[\w:-]+/, (tag) => tag + missing);
}
