import type { Block } from "../../compose/block.js";
import { DrawerError, errorOf, type Refusal } from "../../content/error.js";
import type { Notice } from "../../content/notice.js";
import { offeredBlock } from "../../desktop/offered-block.js";
import { copyBlock } from "../../page/carrying.js";
import type { Desk } from "../../page/desk.js";
import { MESSAGE, pack } from "../../stores/remote/wire.js";
import type { DeskNews } from "../desk.js";
import { remoteErrors } from "../../messages/en/errors/remote.js";

/** The desktop, as the server that the window is served by has it. */
export class DeskLink implements Desk {
  async copy(block: Block, isPrivate: boolean): Promise<readonly Notice[]> {
    try {
      const offered = offeredBlock(block, isPrivate);
      const { notices } = await this.#post<{ notices: Notice[] }>("/desk/copy", pack({ offered, isPrivate }));
      return notices;
    } catch (error) {
      if (!(error instanceof DrawerError) || error.code !== "no-clipboard") throw error;
      // Where the server reaches no desktop, the browser may.
      await copyBlock(block);
      return [];
    }
  }

  deal(drawer: string): Promise<{ readonly tellsPastes: boolean }> {
    return this.#post("/desk/deal", { drawer });
  }

  async endDeal(): Promise<void> {
    await this.#post("/desk/end-deal", {});
  }

  async collectInto(drawer: string, appends: boolean): Promise<void> {
    await this.#post("/desk/into", { drawer, appends });
  }

  /** Fills a drawer with sample data. Returns its name. */
  async fillSample(): Promise<string> {
    return (await this.#post<{ readonly drawer: string }>("/desk/sample", {})).drawer;
  }

  /** Calls `listener` with what is told of the desktop. */
  listen(listener: (news: DeskNews) => void): void {
    const events = new EventSource("/desk/news");
    events.addEventListener("news", ({ data }: MessageEvent<string>) =>
      listener(JSON.parse(data) as DeskNews),
    );
  }

  async #post<Answer>(path: string, body: object): Promise<Answer> {
    const isBytes = body instanceof Uint8Array;
    const response = await fetch(path, {
      method: "POST",
      headers: { "content-type": isBytes ? MESSAGE : "application/json" },
      body: isBytes ? (body as BodyInit) : JSON.stringify(body),
    }).catch((error: unknown) => {
      throw new DrawerError(remoteErrors, "store/away", { reason: String(error) }, { cause: error });
    });
    if (response.ok) return (await response.json()) as Answer;
    if (response.status === 422) throw errorOf((await response.json()) as Refusal);
    throw new DrawerError(remoteErrors, "store/away", { reason: await response.text() });
  }
}
