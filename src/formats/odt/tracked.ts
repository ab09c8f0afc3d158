import type { TextEdit, XmlPlace } from "../office/xml-text.js";

/** Where a paragraph ends just before a place, whatever lists end after it. */
const PARAGRAPH_BEFORE = /<\/text:(?:p|h)>((?:\s|<\/text:(?:list|list-item|list-header)>)*)$/;
/** Where one begins just after a place. */
const PARAGRAPH_AFTER =
  /^(?:\s|<text:(?:list|list-item|list-header)\b[^>]*(?<!\/)>)*<text:(?:p|h)\b[^>]*(?<!\/)>/;
/** The beginning of a paragraph that stands at the beginning of some text. */
const FIRST = /^(?:<text:(?:list|list-item|list-header)\b[^>]*>)*<text:(?:p|h)\b[^>]*(?<!\/)>/;
/** How far is looked for either, in characters. */
const NEAR = 2000;

/** Changes that are marked in the text of an odt, for somebody to accept or not (ODF 1.3 part 3, 5.5). */
export class TrackedChanges {
  #regions = "";
  #last: number;
  readonly #info: string;

  /**
   * @param text the document's content
   * @param at when the changes are made
   */
  constructor(
    readonly text: string,
    at: Date,
  ) {
    const ids = [...text.matchAll(/ text:change-id="drawer-change-(\d+)"/g)].map(([, id]) => Number(id));
    this.#last = Math.max(0, ...ids);
    const date = at.toISOString().replace(/Z$/, "");
    this.#info =
      `<office:change-info><dc:creator xmlns:dc="http://purl.org/dc/elements/1.1/">Drawer</dc:creator>` +
      `<dc:date xmlns:dc="http://purl.org/dc/elements/1.1/">${date}</dc:date></office:change-info>`;
  }

  /** Blocks that are put in at a place; nothing where no paragraph beside them can tell where they begin and end. */
  insertion(at: number, xml: string): TextEdit[] | undefined {
    const before = PARAGRAPH_BEFORE.exec(this.text.slice(Math.max(0, at - NEAR), at));
    const ends = PARAGRAPH_BEFORE.exec(xml);
    if (before && ends) {
      const id = this.#region(`<text:insertion>${this.#info}</text:insertion>`);
      const end = xml.length - ends[0].length;
      const marked = `${xml.slice(0, end)}<text:change-end text:change-id="${id}"/>${xml.slice(end)}`;
      const from = at - before[0].length;
      return [
        { from, to: from, text: `<text:change-start text:change-id="${id}"/>` },
        { from: at, to: at, text: marked },
      ];
    }
    const after = PARAGRAPH_AFTER.exec(this.text.slice(at, at + NEAR));
    const begins = FIRST.exec(xml);
    if (!after || !begins) return undefined;
    const id = this.#region(`<text:insertion>${this.#info}</text:insertion>`);
    const start = begins[0].length;
    const to = at + after[0].length;
    return [
      {
        from: at,
        to: at,
        text: `${xml.slice(0, start)}<text:change-start text:change-id="${id}"/>${xml.slice(start)}`,
      },
      { from: to, to, text: `<text:change-end text:change-id="${id}"/>` },
    ];
  }

  /**
   * Blocks that are taken out, which stay in the document's list of changes; nothing where no paragraph stands before them. (Beside one
   * after them office programs would bring back the first without its style.)
   */
  deletion({ start, end }: Pick<XmlPlace, "start" | "end">): TextEdit[] | undefined {
    const before = PARAGRAPH_BEFORE.exec(this.text.slice(Math.max(0, start - NEAR), start));
    if (before?.[1] !== "") return undefined;
    const gone = this.text.slice(start, end);
    const id = this.#region(`<text:deletion>${this.#info}<text:p/>${gone}</text:deletion>`);
    const from = start - before[0].length;
    return [
      { from, to: from, text: `<text:change text:change-id="${id}"/>` },
      { from: start, to: end, text: "" },
    ];
  }

  /** Takes back what was marked. */
  clear(): void {
    this.#regions = "";
  }

  #region(change: string): string {
    const id = `drawer-change-${++this.#last}`;
    this.#regions += `<text:changed-region xml:id="${id}" text:id="${id}">${change}</text:changed-region>`;
    return id;
  }

  /** What adds the changes to the document's list of them, which is made where it has none; nothing when none was made. */
  get list(): TextEdit[] {
    if (this.#regions === "") return [];
    const list = /<text:tracked-changes\b[^>]*>/.exec(this.text);
    if (list && !list[0].endsWith("/>"))
      return [{ from: list.index + list[0].length, to: list.index + list[0].length, text: this.#regions }];
    if (list) {
      const opened = `${list[0].slice(0, -2)}>${this.#regions}</text:tracked-changes>`;
      return [{ from: list.index, to: list.index + list[0].length, text: opened }];
    }
    // What the user does next is marked where they say so.
    const body = /<office:text\b[^>]*>(?:\s*<office:forms\b(?:[^>]*\/>|[\s\S]*?<\/office:forms>))?/.exec(
      this.text,
    )!;
    const at = body.index + body[0].length;
    return [
      {
        from: at,
        to: at,
        text: `<text:tracked-changes text:track-changes="false">${this.#regions}</text:tracked-changes>`,
      },
    ];
  }
}
