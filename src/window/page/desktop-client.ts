import { EventSource } from "eventsource";
import { DrawerError, errorOf, type Refusal } from "../../content/error.js";
import type { Notice } from "../../content/notice.js";
import { offeredBlock } from "../../desktop/offered-block.js";
import { remoteErrors } from "../../messages/en/stores.js";
import type {
  CaretPlace,
  ComputerSettings,
  DesktopBlock,
  DesktopTarget,
  HostDesktop,
} from "../../page/binding/host-desktop.js";
import type { HostFiles } from "../../page/binding/host-files.js";
import { copyBlock } from "../../page/places/carrying.js";
import { MESSAGE, pack } from "../../stores/remote/wire.js";
import type { WindowNews } from "../window-desktop.js";
import { filesClient } from "./files-client.js";

/** The desktop, as the server that the window is served by has it. */
export class DesktopClient implements HostDesktop {
  target: DesktopTarget | undefined;
  reachesCarets = false;
  readonly settings: ComputerSettings = {
    read: () => this.#ask("/desktop/settings"),
    setKey: (key) => this.#post("/desktop/key", key),
    setStart: (place, isThere) => this.#post("/desktop/start", { place, isThere }),
    invite: (hub) => this.#post("/desktop/invite", { hub }),
    join: (invitation) => this.#post("/desktop/join", { invitation }),
  };

  readonly files: HostFiles;

  /** @param ask asks the server, with what authorises it */
  constructor(readonly ask: typeof fetch) {
    this.files = filesClient(ask);
  }

  placeAtCaret(blocks: readonly DesktopBlock[], place: CaretPlace): ReturnType<HostDesktop["placeAtCaret"]> {
    const offered = blocks.map(({ block, isPrivate }) => offeredBlock(block, isPrivate));
    return this.#post("/desktop/place", pack({ ...place, offered }));
  }

  async takeBack(place: Pick<CaretPlace, "target" | "returns">): Promise<void> {
    await this.#post("/desktop/take-back", place);
  }

  /** Says that a page of the window with this title has got the focus. */
  async noteOwn(title: string): Promise<void> {
    await this.#post("/desktop/own", { title });
  }

  async copy({ block, isPrivate }: DesktopBlock): Promise<readonly Notice[]> {
    try {
      const offered = offeredBlock(block, isPrivate);
      const { notices } = await this.#post<{ notices: Notice[] }>(
        "/desktop/copy",
        pack({ offered, isPrivate }),
      );
      return notices;
    } catch (error) {
      if (!(error instanceof DrawerError) || error.code !== "no-clipboard") throw error;
      // Where the server reaches no desktop, the browser may.
      await copyBlock(block);
      return [];
    }
  }

  deal(drawer: string): Promise<{ readonly tellsPastes: boolean }> {
    return this.#post("/desktop/deal", { drawer });
  }

  async endDeal(): Promise<void> {
    await this.#post("/desktop/end-deal", {});
  }

  async collectInto(drawer: string, appends: boolean): Promise<void> {
    await this.#post("/desktop/into", { drawer, appends });
  }

  /** Fills a drawer with sample data. Returns its name. */
  async fillSample(): Promise<string> {
    return (await this.#post<{ readonly drawer: string }>("/desktop/sample", {})).drawer;
  }

  /** Calls `listener` with what is told of the desktop. */
  listen(listener: (news: WindowNews) => void): void {
    const events = new EventSource(new URL("/desktop/news", location.href), { fetch: this.ask });
    events.addEventListener("news", ({ data }: MessageEvent<string>) => {
      const news = JSON.parse(data) as WindowNews;
      if (news.caret) {
        this.reachesCarets = true;
        this.target = news.caret.target;
      }
      listener(news);
    });
  }

  #post<Answer>(path: string, body: object): Promise<Answer> {
    const isBytes = body instanceof Uint8Array;
    return this.#ask(path, {
      method: "POST",
      headers: { "content-type": isBytes ? MESSAGE : "application/json" },
      body: isBytes ? (body as BodyInit) : JSON.stringify(body),
    });
  }

  async #ask<Answer>(path: string, init?: RequestInit): Promise<Answer> {
    const response = await this.ask(path, init).catch((error: unknown) => {
      throw new DrawerError(remoteErrors, "store/away", { reason: String(error) }, { cause: error });
    });
    if (response.ok) return (await response.json()) as Answer;
    if (response.status === 422) throw errorOf((await response.json()) as Refusal);
    throw new DrawerError(remoteErrors, "store/away", { reason: await response.text() });
  }
}
