import { getFormatFromId } from "numfmt";
import { isDateFormat } from "../../content/serial.js";
import type { EditedPackage } from "../office/edited-package.js";
import { escapeXml } from "../office/odf.js";
import { childPlaces, plainText, xmlPlaces } from "../office/xml-text.js";

/** The first number that formats of a workbook's own have (ECMA-376 part 1, 18.8.30). */
const FIRST_OWN = 164;

/** The looks of the cells of a workbook, to which those with another number format are added. */
export class HostFormats {
  /** The elements of its looks, in their order. */
  readonly #looks: string[];
  readonly #codes = new Map<string, string>();
  readonly #known = new Map<string, number>();

  constructor(
    readonly edited: EditedPackage,
    readonly part: string,
  ) {
    const xml = edited.text(part) ?? "";
    const looks = [...xmlPlaces(xml)].find(({ name }) => name === "cellXfs");
    this.#looks = looks ? childPlaces(xml, looks).map(({ start, end }) => xml.slice(start, end)) : [];
    for (const [tag] of xml.matchAll(/<(?:\w+:)?numFmt\b[^>]*>/g))
      this.#codes.set(
        /\snumFmtId="(\d+)"/.exec(tag)?.[1] ?? "",
        plainText(/\sformatCode="([^"]*)"/.exec(tag)?.[1] ?? ""),
      );
  }

  /**
   * The look of a cell that takes a value: the one that it has, where that shows such a value; with the number format that the value
   * brings, where the cell has none of its own.
   *
   * @param look the look that it has
   */
  lookFor(look: number, isDate: boolean, format: string | undefined): number {
    const xf = this.#looks[look];
    if (xf === undefined) return look;
    const id = /\snumFmtId="(\d+)"/.exec(xf)?.[1] ?? "0";
    const code = this.#codes.get(id) ?? getFormatFromId(Number(id)) ?? "General";
    const isGeneral = /^general$/i.test(code);
    const fits = isDate ? isDateFormat(code) : !isGeneral || format === undefined;
    const wanted = format ?? "yyyy-mm-dd";
    // A date in a cell of figures would be shown as a number of days.
    if (fits || (!isGeneral && !isDate)) return look;
    const key = `${look} ${wanted}`;
    const known = this.#known.get(key) ?? this.#add(xf, wanted);
    this.#known.set(key, known);
    return known;
  }

  #add(xf: string, code: string): number {
    const id = this.#idOf(code);
    const without = xf.replace(/\s(numFmtId|applyNumberFormat)="[^"]*"/g, "");
    const made = without.replace(/^<[\w:]+/, (tag) => `${tag} numFmtId="${id}" applyNumberFormat="1"`);
    const same = this.#looks.indexOf(made);
    if (same >= 0) return same;
    const xml = this.edited.text(this.part)!;
    const end = /<\/(?:\w+:)?cellXfs>/.exec(xml)!.index;
    const added = xml.slice(0, end) + made + xml.slice(end);
    const count = this.#looks.push(made);
    this.edited.set(this.part, added.replace(/(<(?:\w+:)?cellXfs\b[^>]*?\scount=")\d+"/, `$1${count}"`));
    return count - 1;
  }

  #idOf(code: string): number {
    for (const [id, known] of this.#codes) if (known === code) return Number(id);
    for (let id = 1; id < 50; id++) if (getFormatFromId(id) === code) return id;
    const id = Math.max(FIRST_OWN - 1, ...[...this.#codes.keys()].map(Number)) + 1;
    this.#codes.set(String(id), code);
    const xml = this.edited.text(this.part)!;
    const prefix = /<(\w+:)?styleSheet\b/.exec(xml)?.[1] ?? "";
    const element = `<${prefix}numFmt numFmtId="${id}" formatCode="${escapeXml(code)}"/>`;
    const list = new RegExp(`</${prefix}numFmts>`).exec(xml);
    const made = list
      ? (xml.slice(0, list.index) + element + xml.slice(list.index)).replace(
          new RegExp(`(<${prefix}numFmts\\b[^>]*?\\scount=")\\d+"`),
          `$1${xml.match(new RegExp(`<${prefix}numFmt\\b`, "g"))!.length + 1}"`,
        )
      : // They come before all else (18.8.39).
        xml.replace(
          new RegExp(`<${prefix}styleSheet\\b[^>]*>`),
          (root) => `${root}<${prefix}numFmts count="1">${element}</${prefix}numFmts>`,
        );
    this.edited.set(this.part, made);
    return id;
  }
}
