/**
 * Which SVG pictures may come in. A picture is kept byte for byte, so nothing can be taken out of it: it is parsed, and
 * refused unless everything in it is on a list of what only draws (SVG 1.1 without scripts, events, animation, foreign
 * content and addresses outside).
 */

/** The size of an SVG in pixels, where it says it. */
export interface SvgSize {
  readonly width?: number;
  readonly height?: number;
}

const ELEMENTS = new Set(
  (
    "svg g defs symbol use title desc metadata switch path rect circle ellipse line polyline polygon text tspan textPath " +
    "image linearGradient radialGradient stop pattern clipPath mask marker style filter feBlend feColorMatrix " +
    "feComponentTransfer feComposite feConvolveMatrix feDiffuseLighting feDisplacementMap feDistantLight feDropShadow " +
    "feFlood feFuncA feFuncB feFuncG feFuncR feGaussianBlur feMerge feMergeNode feMorphology feOffset fePointLight " +
    "feSpecularLighting feSpotLight feTile feTurbulence"
  ).split(" "),
);

/** Namespaces of facts that drawing programs write into their files; nothing shows or runs them. */
const INERT_NAMESPACES =
  /^(?:http:\/\/www\.inkscape\.org\/namespaces\/inkscape|http:\/\/sodipodi\.sourceforge\.net\/DTD\/sodipodi-0\.dtd|http:\/\/www\.w3\.org\/1999\/02\/22-rdf-syntax-ns#|https?:\/\/(?:www\.)?creativecommons\.org\/ns#|http:\/\/web\.resource\.org\/cc\/|http:\/\/purl\.org\/dc\/elements\/1\.1\/)$/;
const SVG_NAMESPACE = "http://www.w3.org/2000/svg";
const XLINK_NAMESPACE = "http://www.w3.org/1999/xlink";

/** How deep elements may stand in each other, and how many there may be. */
const MOST = { depth: 64, elements: 100_000 };

const ENTITIES: Readonly<Record<string, string>> = { amp: "&", lt: "<", gt: ">", quot: '"', apos: "'" };

/** The size of an SVG that only draws; nothing for bytes that are none, or that hold anything else. */
export function readSvg(bytes: Uint8Array): SvgSize | undefined {
  const text = decode(bytes);
  if (text === undefined || !/^\s*(?:<\?xml|<!|<svg[\s>])/.test(text)) return undefined;
  try {
    return new SvgParser(text).read();
  } catch (error) {
    if (error instanceof NotInert) return undefined;
    throw error;
  }
}

/** The text of an SVG in UTF-8; nothing for any other encoding, in which signs could mean something else. */
function decode(bytes: Uint8Array): string | undefined {
  if (bytes.length > 8 * 1024 * 1024) return undefined;
  try {
    const text = new TextDecoder("utf-8", { fatal: true }).decode(bytes);
    const declared = /^\s*<\?xml[^>]*encoding\s*=\s*["']([^"']*)["']/.exec(text)?.[1] ?? "utf-8";
    return /^(?:utf-?8|us-ascii)$/i.test(declared) && !/[\u0000-\u0008\u000b\u000c\u000e-\u001f]/.test(text)
      ? text
      : undefined;
  } catch {
    return undefined; // not UTF-8
  }
}

/** That a picture holds something that is not on the list. */
class NotInert extends Error {}

/** A parser that knows no more of XML than a drawing needs, and refuses the rest. */
class SvgParser {
  #at = 0;
  readonly #open: string[] = [];
  readonly #prefixes = new Map<string, string>();
  #elements = 0;
  #size: SvgSize = {};

  constructor(readonly text: string) {}

  read(): SvgSize {
    this.#skip(/\s*(?:<\?xml\s[^?]*\?>)?\s*/y);
    for (let more = true; more;)
      more = this.#comment() || this.#skip(/<!DOCTYPE\s+svg[^<>[\]]*>\s*/iy) || this.#skip(/\s+/y);
    if (!this.#tag() || this.#elements !== 1) throw new NotInert();
    while (this.#open.length > 0) {
      if (this.#text() || this.#comment() || this.#endTag() || this.#tag()) continue;
      throw new NotInert();
    }
    for (let more = true; more;) more = this.#comment() || this.#skip(/\s+/y);
    if (this.#at < this.text.length) throw new NotInert();
    return this.#size;
  }

  #match(pattern: RegExp): RegExpExecArray | undefined {
    pattern.lastIndex = this.#at;
    const match = pattern.exec(this.text);
    if (!match || match[0] === "") return undefined;
    this.#at += match[0].length;
    return match;
  }

  #skip(pattern: RegExp): boolean {
    return this.#match(pattern) !== undefined;
  }

  #comment(): boolean {
    return this.#skip(/<!--(?:(?!--)[\s\S])*-->/y);
  }

  #text(): boolean {
    const text = this.#match(/[^<]+/y)?.[0];
    if (text === undefined) return false;
    const plain = decoded(text);
    if (this.#open.at(-1) === "style" && !isInertCss(plain)) throw new NotInert();
    return true;
  }

  #endTag(): boolean {
    const name = this.#match(/<\/([A-Za-z][\w:.-]*)\s*>/y)?.[1];
    if (name === undefined) return false;
    if (this.#open.pop() !== name) throw new NotInert();
    return true;
  }

  #tag(): boolean {
    const name = this.#match(/<([A-Za-z][\w:.-]*)/y)?.[1];
    if (name === undefined) return false;
    const attributes = new Map<string, string>();
    for (
      let attribute;
      (attribute = this.#match(/\s+([A-Za-z_][\w:.-]*)\s*=\s*(?:"([^"<]*)"|'([^'<]*)')/y));
    ) {
      if (attributes.has(attribute[1]!)) throw new NotInert();
      attributes.set(attribute[1]!, decoded(attribute[2] ?? attribute[3]!));
    }
    const end = this.#match(/\s*(\/?)>/y);
    if (!end || ++this.#elements > MOST.elements) throw new NotInert();
    if (this.#elements === 1) this.#readRoot(name, attributes);
    this.#check(name, attributes);
    if (end[1] === "") this.#open.push(name);
    if (this.#open.length > MOST.depth) throw new NotInert();
    return true;
  }

  #readRoot(name: string, attributes: ReadonlyMap<string, string>): void {
    if (name !== "svg" || (attributes.get("xmlns") ?? SVG_NAMESPACE) !== SVG_NAMESPACE) throw new NotInert();
    for (const [attribute, value] of attributes)
      if (attribute.startsWith("xmlns:")) this.#prefixes.set(attribute.slice(6), value);
    const length = (value: string | undefined) => {
      const number = /^\s*([\d.]{1,8})(?:px)?\s*$/.exec(value ?? "")?.[1];
      return number === undefined ? undefined : Math.round(Number(number));
    };
    const box = /^\s*[-\d.]+[\s,]+[-\d.]+[\s,]+([\d.]+)[\s,]+([\d.]+)\s*$/.exec(
      attributes.get("viewBox") ?? "",
    );
    const width = length(attributes.get("width")) ?? (box ? Math.round(Number(box[1])) : undefined);
    const height = length(attributes.get("height")) ?? (box ? Math.round(Number(box[2])) : undefined);
    this.#size = { ...(width && { width }), ...(height && { height }) };
  }

  #check(name: string, attributes: ReadonlyMap<string, string>): void {
    const prefix = /^([^:]+):/.exec(name)?.[1];
    const isFact = prefix !== undefined && INERT_NAMESPACES.test(this.#prefixes.get(prefix) ?? "");
    if (prefix === undefined ? !ELEMENTS.has(name) : !isFact) throw new NotInert();
    for (const [attribute, value] of attributes) this.#checkAttribute(attribute, value, this.#elements === 1);
  }

  #checkAttribute(name: string, value: string, isRoot: boolean): void {
    if (/^on/i.test(name)) throw new NotInert();
    if (name === "xmlns" || name.startsWith("xmlns:")) {
      // Prefixes are bound once, so that a name means the same throughout.
      if (name === "xmlns" ? value !== SVG_NAMESPACE : !isRoot) throw new NotInert();
      return;
    }
    const [prefix, local] = name.includes(":") ? (name.split(":", 2) as [string, string]) : ["", name];
    const namespace = this.#prefixes.get(prefix) ?? "";
    if (local === "href" || local === "src") {
      const isLink = prefix === "" || namespace === XLINK_NAMESPACE;
      if (!isLink || !/^\s*(?:#|data:image\/(?:png|jpeg|gif|webp);base64,)/.test(value)) throw new NotInert();
      return;
    }
    // Attributes of other namespaces mean nothing to a browser.
    if (local === "base" || !isInertCss(value)) throw new NotInert();
  }
}

/** Text with its references resolved; a document's own entities are refused. */
function decoded(text: string): string {
  return text.replace(/&([^;&\s]{0,12};)?/g, (_, reference: string | undefined) => {
    const name = reference?.slice(0, -1);
    const code = /^#(?:x([0-9a-f]{1,6})|(\d{1,7}))$/i.exec(name ?? "");
    const point = code ? parseInt(code[1] ?? code[2]!, code[1] ? 16 : 10) : undefined;
    if (point !== undefined && point <= 0x10ffff) return String.fromCodePoint(point);
    const entity = ENTITIES[name ?? ""];
    if (entity === undefined) throw new NotInert();
    return entity;
  });
}

/** Whether the words of a style or an attribute can fetch and run nothing: no escapes, no imports, no outer addresses. */
function isInertCss(css: string): boolean {
  return (
    !/[\\@]|javascript:|expression\s*\(|behaviou?r\s*:|-moz-binding|image-set|image\s*\(/i.test(css) &&
    !/url\s*\(\s*(?!["']?\s*#)/i.test(css)
  );
}
