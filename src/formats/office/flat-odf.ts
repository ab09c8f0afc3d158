import { SaxesParser } from "saxes";
import { fromBase64 } from "../../content/base64.js";
import { DrawerError } from "../../content/error.js";
import { formatErrors } from "../../messages/en/formats.js";
import { flatOdfType } from "../heads.js";
import { ZipWriter } from "./zip-writer.js";

/** In which part of a package each child of the outermost element stands (ODF 1.3 part 2, 3.1). */
const PARTS: Readonly<Record<string, readonly ("content" | "styles" | "meta")[]>> = {
  meta: ["meta"],
  "font-face-decls": ["content", "styles"],
  styles: ["styles"],
  "automatic-styles": ["content", "styles"],
  "master-styles": ["styles"],
  body: ["content"],
};

/** A stretch of the text that is another in the package. */
interface Change {
  readonly from: number;
  readonly to: number;
  readonly text: string;
}

/**
 * Makes the package of an OpenDocument that is one XML file: its parts, with its pictures and what is embedded as files of their own.
 * @throws DrawerError `unreadable` when it is not well-formed
 */
export function packFlatOdf(bytes: Uint8Array, file: string): Uint8Array {
  const text = new TextDecoder().decode(bytes).replace(/^\uFEFF/, "");
  const zip = new ZipWriter();
  zip.store("mimetype", new TextEncoder().encode(`application/vnd.oasis.opendocument.${flatOdfType(bytes)}`));
  const { root, namespaces, children, changes, files } = scan(text, file);
  const prefix = root.slice(0, -"document".length);
  for (const part of ["content", "styles", "meta"] as const) {
    const inside = children
      .filter(({ name }) => PARTS[name]?.includes(part))
      .map(({ from, to }) => changed(text, from, to, changes));
    const element = `${prefix}document-${part}`;
    zip.add(`${part}.xml`, `<${element} ${namespaces}>${inside.join("")}</${element}>`);
  }
  for (const [name, content] of files) zip.add(name, content);
  return zip.bytes();
}

/** Finds what stands where. Offsets count UTF-16 units, as the text does. */
function scan(text: string, file: string) {
  const parser = new SaxesParser();
  const children: { readonly name: string; readonly from: number; to: number }[] = [];
  const changes: Change[] = [];
  const files = new Map<string, string | Uint8Array>();
  /** The elements that are open: where each begins, and where its content does. */
  const open: { readonly name: string; readonly from: number; readonly inside: number }[] = [];
  let root = "";
  let namespaces = "";
  let from = 0;
  const local = (name: string) => name.slice(name.indexOf(":") + 1);
  const linked = (element: { readonly inside: number }, target: string) =>
    changes.push({ from: element.inside - 1, to: element.inside - 1, text: ` xlink:href="${target}"` });
  parser.on("opentagstart", () => (from = text.lastIndexOf("<", parser.position - 1)));
  parser.on("opentag", ({ name, attributes }) => {
    if (open.length === 0) {
      root = name;
      namespaces = Object.entries(attributes)
        .filter(([attribute]) => /^xmlns/.test(attribute))
        .map(
          ([attribute, value]) =>
            `${attribute}="${value.replaceAll("&", "&amp;").replaceAll('"', "&quot;")}"`,
        )
        .join(" ");
    } else if (open.length === 1) children.push({ name: local(name), from, to: from });
    open.push({ name: local(name), from, inside: parser.position });
  });
  parser.on("closetag", ({ name }) => {
    const element = open.pop()!;
    const to = parser.position;
    if (open.length === 1) children.at(-1)!.to = to;
    const around = open.at(-1);
    if (!around) return;
    if (local(name) === "binary-data") {
      const data = fromBase64(text.slice(element.inside, text.lastIndexOf("<", to - 1)));
      changes.push({ from: element.from, to, text: "" });
      if (!data) return;
      const target = `Pictures/${files.size + 1}`;
      files.set(target, data);
      linked(around, target);
    } else if (around.name === "object") {
      const target = `Object ${files.size + 1}`;
      files.set(`${target}/content.xml`, embedded(text.slice(element.from, to), name, namespaces));
      changes.push({ from: element.from, to, text: "" });
      linked(around, `./${target}`);
    }
  });
  try {
    parser.write(text).close();
  } catch (error) {
    throw new DrawerError(formatErrors, "unreadable/part", { file }, { cause: error });
  }
  return { root, namespaces, children, changes, files };
}

/** An embedded document as the content of a package of its own; a formula, which is an element of MathML, as it is. */
function embedded(text: string, name: string, namespaces: string): string {
  const own = /^<[^\s>]+([^>]*?)\/?>/.exec(text)?.[1] ?? "";
  const said = new Set([...own.matchAll(/xmlns(?::[\w-]+)?(?==)/g)].map(([attribute]) => attribute));
  const others = [...namespaces.matchAll(/(xmlns(?::[\w-]+)?)="[^"]*"/g)].filter(
    ([, attribute]) => !said.has(attribute!),
  );
  const element = name.endsWith("document") ? `${name}-content` : name;
  const inside = text.slice(text.indexOf(">") + 1, Math.max(text.indexOf(">") + 1, text.lastIndexOf("</")));
  return `<${element}${own} ${others.map(([each]) => each).join(" ")}>${inside}</${element}>`;
}

/** A stretch of the text with the changes in it; of changes within changes the outer one counts. */
function changed(text: string, from: number, to: number, changes: readonly Change[]): string {
  let at = from;
  const made: string[] = [];
  const inside = changes.filter((change) => change.from >= from && change.to <= to);
  for (const change of inside.sort((a, b) => a.from - b.from || b.to - a.to)) {
    if (change.from < at) continue;
    made.push(text.slice(at, change.from), change.text);
    at = change.to;
  }
  return made.join("") + text.slice(at, to);
}
