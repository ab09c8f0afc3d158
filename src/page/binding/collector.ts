import { DrawerError } from "../../content/error.js";
import { LIMITS } from "../../content/limits.js";
import { notice } from "../../content/notice.js";
import type { CollectingSession } from "../../drawer/collecting-session.js";
import type { Drawer } from "../../drawer/drawer.js";
import type { Incoming } from "../../drawer/incoming.js";
import type { Origin } from "../../drawer/model/entry.js";
import type { Positioned } from "../../drawer/store.js";
import type { Flavours } from "../../formats/flavours.js";
import { pageErrors, pageNotices } from "../../messages/en/page.js";
import type { CopiedOnPage } from "../capture/copies.js";
import type { MarkedPart } from "../capture/read-files.js";
import type { PageScope } from "../capture/scope.js";
import type { Actions } from "./actions.js";
import type { BindingEventMap, CollectDetail } from "./events.js";
import { fileReaders, readers } from "./lazy.js";
import type { HeardCopy, LeftCopies } from "./left-copies.js";
import { copiedBefore } from "./page-drawer.js";

/** How a page is collected from. */
export interface CollectOptions {
  /** Tells where something came from, by the element in which it was copied; without it, the page's own title and address. */
  readonly origin?: (element: Element) => Origin;
  /** How long a piece may be that is collected from the page, in characters of its HTML and text; 64 million without it. */
  readonly maxLength?: number;
}

/** What a collector needs of the binding that it belongs to. */
export interface CollectorHost {
  readonly act: Actions["act"];
  readonly drawer: Drawer;
  readonly session: CollectingSession;
  /** Whether what is collected is added to the latest snippet. */
  readonly appends: boolean;
  /** Tells of what is about to be collected, which may be prevented, and of what was. */
  emit(name: "collecting", detail: CollectDetail): boolean;
  emit(name: "collected", detail: BindingEventMap["collected"]): boolean;
  /** The copies that are lost when the page is left now; nothing where they cannot be kept. */
  readonly leftCopies: LeftCopies | undefined;
}

/** Collects from a page: copies, selections, files. The page may prevent each. All return what was collected. */
export class Collector {
  constructor(
    readonly host: CollectorHost,
    readonly scope: PageScope,
    readonly options: CollectOptions,
  ) {}

  /**
   * Collects flavours from anywhere.
   * @param element where on the page they come from
   */
  flavours(flavours: Flavours, origin: Origin, element?: Element): Promise<readonly Positioned[]> {
    return this.#collect(element, () => this.#read(flavours, origin));
  }

  /** Collects what was copied on the page, or is selected there. */
  copied({ flavours, element, isCut }: CopiedOnPage, appends?: boolean): Promise<readonly Positioned[]> {
    const origin = this.options.origin?.(element) ?? { title: document.title, address: location.href };
    return this.#heard({ flavours, origin, isCut: isCut ?? false }, element, appends);
  }

  /**
   * Collects what was copied before the page was bound: what the page before heard and could not collect any more, then what
   * this page heard while the drawer was being opened.
   */
  async earlier(): Promise<void> {
    const { host, scope } = this;
    const { copies: left, lost } = host.leftCopies?.take() ?? { copies: [], lost: 0 };
    const early = copiedBefore(host.drawer).filter(({ element }) => scope.has(element));
    if (left.length + early.length + lost === 0 || !(await host.drawer.rules()).collecting) return;
    if (lost > 0)
      await host.act(() => Promise.resolve([notice(pageNotices, "collected/left", { count: lost })]));
    for (const copy of left) await this.#heard(copy);
    for (const copy of early) await this.copied(copy);
  }

  /** Collects a copy; until that is done it is noted, so that the next page can collect it if this one is left. */
  async #heard(copy: HeardCopy, element?: Element, appends?: boolean): Promise<readonly Positioned[]> {
    const { flavours, origin, isCut } = copy;
    const done = this.host.leftCopies?.hear(copy);
    const read = async () => {
      const pieces = await this.#read(flavours, origin);
      // What was cut is nowhere else.
      return isCut ? pieces.map((piece) => ({ ...piece, stays: true })) : pieces;
    };
    try {
      return await this.#collect(element, read, appends);
    } finally {
      done?.();
    }
  }

  /** Collects what is selected; where nothing is, that is told. */
  async selection(appends?: boolean): Promise<readonly Positioned[]> {
    const selected = this.scope.selected();
    if (selected) return this.copied(selected, appends);
    await this.host.act(() => Promise.reject(new DrawerError(pageErrors, "nothing/selected-here", {})));
    return [];
  }

  /** Collects files, each as a snippet. */
  files(files: readonly File[]): Promise<readonly Positioned[]> {
    return this.#collect(undefined, async () => {
      const { readFiles } = await fileReaders();
      return (await readFiles(files)).map(({ source }) => source.at());
    });
  }

  /** Collects parts of files that were looked into, in this order. */
  parts(parts: readonly MarkedPart[]): Promise<readonly Positioned[]> {
    return this.#collect(undefined, async () => {
      const { takePart } = await fileReaders();
      return Promise.all(parts.map(takePart));
    });
  }

  async #read(flavours: Flavours, origin: Origin): Promise<readonly Incoming[]> {
    const { readCopied } = await readers();
    return [await readCopied(flavours, origin, this.options.maxLength ?? LIMITS.bytes / 4)];
  }

  async #collect(
    element: Element | undefined,
    read: () => Promise<readonly Incoming[]>,
    appends = this.host.appends,
  ): Promise<readonly Positioned[]> {
    const { host } = this;
    if (!host.emit("collecting", { element })) return [];
    let collected: readonly Positioned[] = [];
    await host.act(async () => {
      const done = await host.session.collect(await read(), appends ? {} : undefined);
      ({ collected } = done);
      return done.notices;
    });
    if (collected.length > 0)
      host.emit("collected", { ids: collected.map(({ entry }) => entry.id), element });
    return collected;
  }
}
