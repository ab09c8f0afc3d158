import { html, nothing } from "lit";
import { defined } from "../../../content/defined.js";
import { hashBytes } from "../../../content/encode.js";
import { notice, type Notice } from "../../../content/notice.js";
import type { SourceSheet } from "../../../files/source.js";
import type { Put } from "../../../formats/edit.js";
import { formatOf } from "../../../formats/registry.js";
import { partsPanel as words } from "../../../messages/core/panel-sentences.js";
import { pageNotices } from "../../../messages/en/page.js";
import type { FileActed } from "../../binding/host-files.js";
import { composed, fileEditors } from "../../binding/lazy.js";
import type { ReadFile } from "../../capture/read-files.js";
import { actMenu } from "../act-menu.js";
import type { DrawerHost } from "../drawer-host.js";
import { saveFile } from "../save-file.js";

/** A file as it is now. */
export interface OpenFile extends Omit<ReadFile, "path"> {
  /** Where it is on this computer; nothing where that is not known: then a changed copy of it is saved. */
  readonly path: string | undefined;
  /** Whether it is still being looked for. */
  readonly isSought: boolean;
}

/** Where a block goes in a file, as people say it, and how it is put there. */
const PUT_OF = {
  ...{ after: "after", before: "before", instead: "instead" },
  ...{ cells: undefined, over: "instead", below: "after", end: "after" },
} as const satisfies Record<keyof typeof words.puts, Put | undefined>;
type Where = keyof typeof PUT_OF;

/** Where a block may go, with the spot of each: by what is marked, where that is one place; in a sheet also at its end. */
function placesOf([spot, ...others]: readonly string[], sheet: SourceSheet | undefined): [Where, string][] {
  const isOne = spot !== undefined && others.length === 0;
  const marked = (...wheres: Where[]) => (isOne ? wheres.map((where): [Where, string] => [where, spot]) : []);
  if (!sheet) return marked("after", "before", "instead");
  const isRange = spot?.includes(":") ?? false;
  const isEnd = sheet.used !== undefined && !(isOne && isRange);
  return [
    ...marked("cells", "over"),
    ...(isRange ? marked("below") : []),
    ...(isEnd ? [["end", spotOf(sheet)] as [Where, string]] : []),
  ];
}

/** The spot of a sheet as a whole. */
function spotOf(sheet: SourceSheet): string {
  const spot = sheet.spot({ top: 0, left: 0, bottom: 0, right: 0 });
  const at = spot.lastIndexOf("!");
  return at < 0 ? sheet.name : spot.slice(0, at);
}

function whatBecomesOf({ path, isSought }: OpenFile): string {
  if (isSought) return words.sought;
  return path === undefined ? words.inCopy : words.inPlace(path);
}

/** What changes the files that are looked into: in place where it is known where they are, and else by a changed copy. */
export class FileActs {
  /** @param changed is called with what a file is by then */
  constructor(
    readonly host: DrawerHost,
    readonly changed: (file: OpenFile, bytes: Uint8Array) => Promise<void>,
  ) {}

  get #files() {
    return this.host.binding?.options.desktop?.files;
  }

  /** Whether it can be known where files are. */
  get knowsPlaces(): boolean {
    return this.#files !== undefined;
  }

  /** Where a file is on this computer. */
  async pathOf({ source, bytes }: ReadFile): Promise<string | undefined> {
    return this.#files?.find(source.name, hashBytes(bytes));
  }

  /** Looks whether a file was changed elsewhere, or was put back. */
  async look(file: OpenFile): Promise<void> {
    const { path, bytes } = file;
    if (path === undefined) return;
    const now = await this.#files?.reread({ path, hash: hashBytes(bytes) });
    if (now) await this.changed(file, now);
  }

  /**
   * What can be done with what is marked of a file.
   * @param sheet the sheet that is shown
   */
  view(file: OpenFile, spots: readonly string[], sheet: SourceSheet | undefined) {
    if (formatOf(file.source.format).edit === undefined) return nothing;
    const { chosenCount } = this.host;
    const places = placesOf(spots, sheet);
    const isPut = places.length > 0 && chosenCount > 0 && !file.isSought;
    const why = isPut ? "" : chosenCount === 0 ? words.putNothing : words.putWhere;
    const menu = actMenu(
      words.put(chosenCount),
      places.map(([where], at) => [String(at), words.puts[where]] as const),
      (at) => this.#put(file, ...places[Number(at)]!),
      { isOff: !isPut },
    );
    return html`
      <p class="note changes">
        <button ?disabled=${spots.length === 0 || file.isSought} @click=${() => this.#lift(file, spots)}>
          ${words.takeOut(spots.length)}
        </button>
        <span title=${why}>${menu}</span>
        <span>${whatBecomesOf(file)}</span>
      </p>
    `;
  }

  /** Puts what the sentence says into a file. */
  #put(file: OpenFile, where: Where, spot: string): void {
    const { source, bytes, path } = file;
    const put = defined({ put: PUT_OF[where] });
    this.host.act(async (drawer) => {
      const { recipe } = this.host;
      const pick = await this.host.chosenPick();
      if (path !== undefined) {
        const what = { drawer: drawer.name, pick, recipe };
        const done = await this.#files!.put({ path, hash: hashBytes(bytes) }, { spot, ...put }, what);
        // What was done is told first there, and here last, as of other acts.
        const [first, ...others] = await this.#done(file, done);
        return [...others, first!];
      }
      const { snippets, notices } = await drawer.snippetsToGiveOut(pick);
      const block = await composed(snippets, recipe);
      const { putInto } = await fileEditors();
      const style = recipe.style ?? "own";
      const edited = await putInto(bytes, source.name, spot, block, { ...put, style });
      await this.#saved(file, edited.data);
      const told = notice(pageNotices, "file/copy", { file: source.name });
      return [...notices, ...block.notices, ...edited.notices, told];
    });
  }

  /** Collects what is marked, and takes it out of its file. */
  #lift(file: OpenFile, spots: readonly string[]): void {
    const { source, bytes, path } = file;
    this.host.act(async (drawer): Promise<readonly Notice[]> => {
      if (path !== undefined) {
        const done = await this.#files!.lift({ path, hash: hashBytes(bytes) }, spots, drawer.name);
        return this.#done(file, done);
      }
      const { takeOut } = await fileEditors();
      const edited = await takeOut(bytes, source.name, spots);
      const pieces = spots.map((spot) => ({ ...source.at(spot), stays: true }));
      const { notices } = await drawer.collect(pieces);
      await this.#saved(file, edited.data);
      return [...notices, ...edited.notices, notice(pageNotices, "file/copy", { file: source.name })];
    });
  }

  async #done(file: OpenFile, { notices, bytes }: FileActed): Promise<readonly Notice[]> {
    await this.changed(file, bytes);
    await this.host.standings.read();
    return notices;
  }

  async #saved(file: OpenFile, data: Uint8Array): Promise<void> {
    const { name, format } = file.source;
    saveFile(data, { name, type: formatOf(format).mediaType });
    await this.changed(file, data);
  }
}
