import { DrawerError } from "../content/error.js";
import { paragraph } from "../content/model.js";
import { notice } from "../content/notice.js";
import type { Incoming } from "../drawer/incoming.js";
import { plainName, type NamedPlace } from "../formats/fill.js";
import { filesErrors } from "../messages/en/files.js";
import { formatNotices } from "../messages/en/formats.js";
import type { Part } from "./parts.js";
import type { Source } from "./source-type.js";
import type { Unit, Units } from "./units.js";

/** `name:Wind`. */
const SPOT = /^name:\s*(.+)$/is;

/** Finds the named places of a file. */
type Find = () => Promise<readonly NamedPlace[]>;

/** A source whose named places are spots too: a place in its document, or the cells of a sheet that have a name. */
export function withNamed(main: Source, find: Find): Source {
  return new NamedSource(main, find);
}

class NamedSource implements Source {
  #places: readonly NamedPlace[] | undefined;

  constructor(
    readonly main: Source,
    readonly find: Find,
  ) {
    const { title, sheets } = main;
    if (title !== undefined) this.title = title;
    if (sheets) this.sheets = sheets;
  }

  readonly title?: string;
  readonly sheets?: NonNullable<Source["sheets"]>;

  get name() {
    return this.main.name;
  }

  get format() {
    return this.main.format;
  }

  get notices() {
    return this.main.notices;
  }

  async open(spot: string): Promise<void> {
    if (SPOT.test(spot.trim())) this.#places = await this.find();
    else await this.main.open(spot);
  }

  parts(): Part[] {
    return this.main.parts();
  }

  at(spot?: string): Incoming {
    const place = spot === undefined ? undefined : this.#placeAt(spot);
    if (!place) return this.main.at(spot);
    if (place.spot !== undefined) {
      const piece = this.main.at(place.spot);
      return { ...piece, origin: { ...piece.origin, ...(spot !== undefined && { at: spot }) } };
    }
    const { title } = this;
    return {
      content: place.text.split("\n").map((line) => paragraph(line)),
      pictures: new Map(),
      notices: [notice(formatNotices, "as-text/place", { file: this.name, name: place.name })],
      origin: {
        document: this.name,
        ...(spot !== undefined && { at: spot }),
        ...(title !== undefined && { title }),
      },
    };
  }

  spots(written: string): string[] {
    const [, name] = SPOT.exec(written.trim()) ?? [];
    return name === undefined ? this.main.spots(written) : [`name:${name.trim()}`];
  }

  each(unit: Unit, spot?: string): Units {
    const place = spot === undefined ? undefined : this.#placeAt(spot);
    if (!place) return this.main.each(unit, spot);
    if (place.spot !== undefined) return this.main.each(unit, place.spot);
    throw new DrawerError(filesErrors, "bad-spot", { spot: spot! });
  }

  /**
   * The place that a spot names; nothing for a spot of another kind.
   * @throws DrawerError `no-spot` when there is none of this name
   */
  #placeAt(spot: string): NamedPlace | undefined {
    const [, name] = SPOT.exec(spot.trim()) ?? [];
    if (name === undefined) return undefined;
    if (!this.#places) throw new DrawerError(filesErrors, "no-spot/unsought", { file: this.name, spot });
    const found = this.#places.find((place) => plainName(place.name) === plainName(name));
    if (found) return found;
    const names = [...new Set(this.#places.map((place) => place.name))];
    throw new DrawerError(filesErrors, "no-spot/name", { file: this.name, name, names });
  }
}
