import { defined } from "../content/defined.js";
import { DrawerError } from "../content/error.js";
import { notice, type Notice } from "../content/notice.js";
import type { Incoming } from "../drawer/incoming.js";
import { tellFormat } from "../formats/detect.js";
import type { AttachedFile } from "../formats/format.js";
import { findReadFormat, namedFormat, type FormatName } from "../formats/registry.js";
import { parts as words } from "../messages/en/content.js";
import { filesErrors } from "../messages/en/files.js";
import { formatNotices } from "../messages/en/formats.js";
import type { Part } from "./parts.js";
import type { Source } from "./source-type.js";
import type { Unit, Units } from "./units.js";

/** Reads a file that is attached to another. */
type Read = (bytes: Uint8Array, name: string, options: { readonly format?: FormatName }) => Promise<Source>;

/** `a2`, or a spot in it: `a2!p3`, `a1!Costs!A1:C4`. */
const SPOT = /^a([1-9]\d{0,6})(?:!(.+))?$/is;

/** So many of them are named when the file is taken without them. */
const NAMED = 10;

/** A source with the files that are attached to it: each is a spot, and what stands in it is one behind that. */
export function withAttached(main: Source, attached: readonly AttachedFile[], read: Read): Source {
  return attached.length === 0 ? main : new AttachedSource(main, attached, read);
}

/** What a file is, as far as that is said, or its bytes tell; nothing for one that is not read. */
function formatOf({ name, type, bytes }: AttachedFile): FormatName | undefined {
  const said = namedFormat(name) ?? (type === undefined ? undefined : findReadFormat(type));
  if (said !== undefined) return said;
  try {
    return tellFormat(bytes, name);
  } catch (error) {
    if (error instanceof DrawerError) return undefined;
    throw error;
  }
}

class AttachedSource implements Source {
  readonly #opened = new Map<number, Source>();

  constructor(
    readonly main: Source,
    readonly attached: readonly AttachedFile[],
    readonly read: Read,
  ) {
    if (main.title !== undefined) this.title = main.title;
  }

  readonly title?: string;

  get name() {
    return this.main.name;
  }

  get format() {
    return this.main.format;
  }

  get notices(): readonly Notice[] {
    return this.main.notices;
  }

  async open(spot: string): Promise<void> {
    const named = this.#named(spot);
    if (!named) return;
    const { number, file, rest } = named;
    let source = this.#opened.get(number);
    if (!source) {
      // Where its name says what it is, its bytes may say it better.
      const format = namedFormat(file.name) === undefined ? formatOf(file) : undefined;
      source = await this.read(file.bytes, file.name, defined({ format }));
      this.#opened.set(number, source);
    }
    if (rest !== undefined) await source.open(rest);
  }

  parts(): Part[] {
    return [
      ...this.main.parts(),
      ...this.attached.flatMap((file, at): Part[] => {
        const spot = `a${at + 1}`;
        const format = formatOf(file);
        const inside = this.#opened.get(at + 1)?.parts() ?? [];
        return [
          { spot, type: "attachment", what: words.attachment({ ...defined({ format }) }), text: file.name },
          ...inside.map((part) => ({ ...part, spot: `${spot}!${part.spot}` })),
        ];
      }),
    ];
  }

  at(spot?: string): Incoming {
    const found = spot === undefined ? undefined : this.#find(spot);
    if (spot === undefined) return this.#whole();
    if (!found) return this.main.at(spot);
    const piece = found.source.at(found.rest);
    // It is found again in the file that it is attached to.
    return { ...piece, origin: { ...piece.origin, document: this.name, at: spot, title: found.file.name } };
  }

  /** All that the file says itself; what is attached is named. */
  #whole(): Incoming {
    const piece = this.main.at();
    const names = this.attached.slice(0, NAMED).map(({ name }, at) => `${name} (a${at + 1})`);
    const left = notice(formatNotices, "left-out/attachments", {
      ...{ file: this.name, names },
      more: this.attached.length - names.length,
    });
    return { ...piece, notices: [...(piece.notices ?? []), left] };
  }

  spots(written: string): string[] {
    const found = this.#find(written.trim());
    if (!found) return this.main.spots(written);
    if (found.rest === undefined) return [`a${found.number}`];
    return found.source.spots(found.rest).map((spot) => `a${found.number}!${spot}`);
  }

  each(unit: Unit, spot?: string): Units {
    const found = spot === undefined ? undefined : this.#find(spot);
    if (!found) return this.main.each(unit, spot);
    const { spots, notices } = found.source.each(unit, found.rest);
    return { spots: spots.map((each) => `a${found.number}!${each}`), notices };
  }

  /**
   * The attached file that a spot names, and the spot in it; nothing for a spot of the file itself.
   * @throws DrawerError `no-spot` when there is none of this number
   */
  #named(spot: string): { number: number; file: AttachedFile; rest: string | undefined } | undefined {
    const [, digits, rest] = SPOT.exec(spot.trim()) ?? [];
    if (digits === undefined) return undefined;
    const number = Number(digits);
    const file = this.attached[number - 1];
    if (file) return { number, file, rest };
    throw new DrawerError(filesErrors, "no-spot", {
      ...{ file: this.name, spot },
      has: { count: this.attached.length, letter: "a", what: "attachment" },
    });
  }

  /**
   * The same, where it is open.
   * @throws DrawerError `no-spot`
   */
  #find(spot: string) {
    const named = this.#named(spot);
    if (!named) return undefined;
    const source = this.#opened.get(named.number);
    if (source) return { ...named, source };
    throw new DrawerError(filesErrors, "no-spot/closed", { file: this.name, spot, name: named.file.name });
  }
}
