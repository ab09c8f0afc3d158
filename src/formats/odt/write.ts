import { safeLink } from "../../content/address.js";
import { directionOf } from "../../content/direction.js";
import { usualBullet } from "../../content/marker.js";
import type { Align, Content, Flow, List, Marks, NoteRun, Picture, Run } from "../../content/model.js";
import { withNotesInline } from "../../content/notes.js";
import type { Notice } from "../../content/notice.js";
import { someFlow } from "../../content/traverse.js";
import { content as words } from "../../messages/en/content.js";
import type { WriteInput, WriteResult } from "../format.js";
import { orientationFor, SMALLER_SIZES, type Orientation } from "../office/column-widths.js";
import { pictureLeftOut } from "../office/document.js";
import { odfNumberFormat } from "../office/number-formats.js";
import { AutomaticStyles, element, escapeXml, packOdf, textProperties, textXml } from "../office/odf.js";
import { smallerStyle, type TableHost, tableXml } from "./write-table.js";

/** The widest a picture may stand, in points. */
const PICTURE_WIDTH = 450;

/** Styles by the names that word processors know. */
const STYLES =
  element(
    "style:style",
    { "style:name": "Standard", "style:family": "paragraph" },
    element("style:paragraph-properties", { "fo:margin-bottom": "6pt" }) +
      textProperties({ font: "Liberation Serif", size: 12 }),
  ) +
  [24, 18, 14, 12, 11, 10]
    .map((size, index) =>
      element(
        "style:style",
        {
          "style:name": `Heading_20_${index + 1}`,
          "style:display-name": `Heading ${index + 1}`,
          "style:family": "paragraph",
          "style:parent-style-name": "Standard",
          "style:default-outline-level": index + 1,
        },
        element("style:paragraph-properties", {
          "fo:margin-top": "12pt",
          "fo:margin-bottom": "6pt",
          "fo:keep-with-next": "always",
        }) + textProperties({ bold: true, size }),
      ),
    )
    .join("") +
  named(
    "Quotations",
    element("style:paragraph-properties", { "fo:margin-left": "28pt", "fo:margin-right": "28pt" }),
  ) +
  named(
    "Preformatted_20_Text",
    element("style:paragraph-properties", { "fo:margin-bottom": "0pt" }) +
      element("style:text-properties", { "fo:font-family": "Liberation Mono" }),
  ) +
  named(
    "Horizontal_20_Line",
    element("style:paragraph-properties", { "fo:border-bottom": "0.5pt solid #808080" }),
  ) +
  named("Caption", "") +
  SMALLER_SIZES.map((size) => named(smallerStyle(size), textProperties({ size }))).join("") +
  named(
    "Footnote",
    element("style:paragraph-properties", {
      "fo:margin-left": "17pt",
      "fo:text-indent": "-17pt",
      "fo:margin-bottom": "0pt",
    }) + textProperties({ size: 10 }),
  ) +
  element(
    "style:style",
    { "style:name": "Source_20_Text", "style:family": "text" },
    element("style:text-properties", { "fo:font-family": "Liberation Mono" }),
  );

function named(name: string, inner: string): string {
  return element(
    "style:style",
    { "style:name": name, "style:family": "paragraph", "style:parent-style-name": "Standard" },
    inner,
  );
}

/** Writes content as an odt: real headings, lists, tables with merged cells, links and pictures. */
export function writeOdt(source: WriteInput): WriteResult {
  const writer = new OdtWriter(source);
  const body = writer.flows(source.content, "Standard");
  return {
    data: packOdf("text", {
      body: [body],
      automatic: writer.styles,
      styles: STYLES,
      orientation: writer.orientation,
      title: source.title,
      files: writer.files,
    }),
    notices: writer.notices,
  };
}

/** A part of a list: a list itself, or what stands between two of them. */
interface ListPart {
  readonly isApart: boolean;
  readonly xml: string;
}

class OdtWriter implements TableHost {
  readonly styles = new AutomaticStyles();
  readonly files = new Map<string, { bytes: Uint8Array; type: string }>();
  readonly notices: Notice[] = [];

  #notes = 0;
  #tables = 0;
  isInCell = false;

  readonly orientation: Orientation;

  constructor(readonly source: WriteInput) {
    this.orientation = orientationFor(source.content);
  }

  flows(content: Content, style: string, align?: Align): string {
    return content.map((flow) => this.#flow(flow, style, align)).join("");
  }

  inCells<Result>(write: () => Result): Result {
    const before = this.isInCell;
    this.isInCell = true;
    const result = write();
    this.isInCell = before;
    return result;
  }

  nextTable(): string {
    return `Table${++this.#tables}`;
  }

  #flow(flow: Flow, style: string, align: Align | undefined): string {
    switch (flow.type) {
      case "paragraph":
        return element(
          "text:p",
          { "text:style-name": this.#paragraphStyle(style, flow.align ?? align, directionOf(flow)) },
          this.runs(flow.runs),
        );
      case "heading": {
        const own = this.#paragraphStyle(`Heading_20_${flow.level}`, flow.align ?? align, directionOf(flow));
        return element(
          "text:h",
          { "text:style-name": own, "text:outline-level": flow.level },
          this.runs(flow.runs),
        );
      }
      case "list":
        return this.#list(flow);
      case "table":
        return tableXml(this, flow);
      case "quote":
        return this.flows(flow.flows, "Quotations");
      case "code":
        return flow.text
          .split("\n")
          .map((line) =>
            element("text:p", { "text:style-name": "Preformatted_20_Text" }, textXml(line, true)),
          )
          .join("");
      case "picture":
        return element("text:p", { "text:style-name": style }, this.#picture(flow));
      case "divider":
        return element("text:p", { "text:style-name": "Horizontal_20_Line" });
    }
  }

  #paragraphStyle(parent: string, align: Align | undefined, direction: "ltr" | "rtl" | undefined): string {
    const properties = element("style:paragraph-properties", {
      "fo:text-align": align,
      "style:writing-mode": direction === undefined ? undefined : direction === "rtl" ? "rl-tb" : "lr-tb",
    });
    if (align === undefined && direction === undefined) return parent;
    return this.styles.name("paragraph", properties, { "style:parent-style-name": parent })!;
  }

  runs(runs: readonly Run[]): string {
    let atStart = true;
    return runs
      .map((run) => {
        const xml = this.#run(run, atStart);
        atStart = run.type === "break" || (run.type === "text" && run.text.endsWith(" "));
        return xml;
      })
      .join("");
  }

  #run(run: Run, atStart: boolean): string {
    switch (run.type) {
      case "text":
        return this.#text(run.text, run.marks ?? {}, atStart);
      case "break":
        return "<text:line-break/>";
      case "picture":
        return this.#picture(run);
      case "note":
        return this.#note(run);
    }
  }

  /** A footnote (ODF 1.3 part 3, 6.3.2). Word processors have no place for notes in notes. */
  #note({ flows }: NoteRun): string {
    const number = ++this.#notes;
    const body = this.flows(withNotesInline(flows), "Footnote") || "<text:p/>";
    const facts = { "text:id": `ftn${number}`, "text:note-class": "footnote" };
    return element(
      "text:note",
      facts,
      element("text:note-citation", {}, String(number)) + element("text:note-body", {}, body),
    );
  }

  #text(text: string, { link: given, code, ...marks }: Marks, atStart: boolean): string {
    const link = given && safeLink(given);
    const style = code ? "Source_20_Text" : this.styles.name("text", textProperties(marks));
    const inner = textXml(text, atStart).replace(/ $/, "<text:s/>");
    const span = style === undefined ? inner : element("text:span", { "text:style-name": style }, inner);
    return link === undefined
      ? span
      : element("text:a", { "xlink:type": "simple", "xlink:href": link }, span);
  }

  #picture(picture: Picture): string {
    const bytes = this.source.picture?.(picture.hash);
    if (!bytes) {
      this.notices.push(pictureLeftOut(picture.alt));
      return escapeXml(picture.alt || words.picture);
    }
    const path = `Pictures/${picture.hash}.${picture.mediaType.replace(/^image\/|\+xml$/g, "").replace("jpeg", "jpg")}`;
    this.files.set(path, { bytes, type: picture.mediaType });
    const { width = 300, height = 200 } = picture;
    const scale = Math.min(0.75, PICTURE_WIDTH / width);
    const size = {
      "svg:width": `${(width * scale).toFixed(2)}pt`,
      "svg:height": `${(height * scale).toFixed(2)}pt`,
    };
    const image = element("draw:image", { "xlink:href": path, "xlink:type": "simple" });
    const link = picture.link && safeLink(picture.link);
    const described = picture.alt === "" ? "" : element("svg:desc", {}, escapeXml(picture.alt));
    const frame = element("draw:frame", { "text:anchor-type": "as-char", ...size }, image + described);
    return link === undefined
      ? frame
      : element("draw:a", { "xlink:type": "simple", "xlink:href": link }, frame);
  }

  /** A style with the sort of list that each level has; deeper levels that differ get a style of their own. */
  #listStyle({ ordered, start = 1, marker = {} }: List, level: number): string {
    const { numbers, before, after = ".", bullet = usualBullet(level - 1) } = marker;
    return this.styles.add("list", JSON.stringify([ordered, start, marker, level]), (name) => {
      const place = { "text:level": level };
      const label = element(
        "style:list-level-properties",
        { "text:list-level-position-and-space-mode": "label-alignment" },
        element("style:list-level-label-alignment", {
          "text:label-followed-by": "listtab",
          "fo:text-indent": "-18pt",
          "fo:margin-left": `${24 * level}pt`,
        }),
      );
      const inner = ordered
        ? element(
            "text:list-level-style-number",
            {
              ...place,
              "style:num-prefix": before,
              "style:num-suffix": after === "" ? undefined : after,
              "style:num-format": odfNumberFormat(numbers).sample,
              "style:num-letter-sync": odfNumberFormat(numbers).isRepeated ? "true" : undefined,
              "text:start-value": Math.max(1, start),
            },
            label,
          )
        : element("text:list-level-style-bullet", { ...place, "text:bullet-char": bullet }, label);
      return element("text:list-style", { "style:name": name }, inner);
    });
  }

  /** A list, and the tables in it, which can stand only between its parts (ODF 1.3 part 3, 5.3.3). */
  #list(list: List): string {
    return this.#listParts(list, 1)
      .map(({ xml }) => xml)
      .join("");
  }

  /** A list in the parts that the tables in it make of it. Each part is a list that goes on counting. */
  #listParts(list: List, level: number): ListPart[] {
    const style = this.#listStyle(list, level);
    const parts: ListPart[] = [];
    let items = "";
    let isResumed = false;
    const end = () => {
      if (items !== "")
        parts.push({ isApart: false, xml: element("text:list", { "text:style-name": style }, items) });
      items = "";
      isResumed = true;
    };
    list.items.forEach((item, index) => {
      const inner = this.#itemParts(item.flows, level);
      const number = isResumed && list.ordered ? (list.start ?? 1) + index : undefined;
      isResumed = false;
      const first = inner[0]?.isApart === false ? inner.shift()!.xml : "";
      items += element("text:list-item", { "text:start-value": number }, first || "<text:p/>");
      for (const { isApart, xml } of inner) {
        if (isApart) {
          end();
          parts.push({ isApart, xml });
        } else items += element("text:list-header", {}, xml);
      }
    });
    end();
    return parts;
  }

  /** What stands in an item: lines and lists that follow each other are one part, a table is one. */
  #itemParts(flows: Content, level: number): ListPart[] {
    const parts: ListPart[] = [];
    const add = (part: ListPart) => {
      const last = parts.at(-1);
      if (last && !last.isApart && !part.isApart)
        parts[parts.length - 1] = { isApart: false, xml: last.xml + part.xml };
      else parts.push(part);
    };
    for (const flow of flows) {
      if (flow.type === "list") this.#listParts(flow, level + 1).forEach(add);
      else {
        const isApart = someFlow([flow], ({ type }) => type === "table");
        add({ isApart, xml: this.#flow(flow, "Standard", undefined) });
      }
    }
    return parts;
  }
}
