import { DrawerError } from "../../content/error.js";
import { notice, type Notice } from "../../content/notice.js";
import type { Drawer } from "../../drawer/drawer.js";
import { pageErrors, pageNotices } from "../../messages/en/page.js";
import type { CaretPlace, DesktopBlock, DesktopTarget, HostDesktop } from "./host-desktop.js";
import { desktopBlock, type PlaceRequest, type Placements } from "./placements.js";

/**
 * Puts blocks at the caret of the window that the user came from. Into a terminal, whose lines would run, and of what is private,
 * they go when they are asked for a second time.
 */
export class CaretPlacer {
  /** What was asked for once, and goes when it is asked for again. */
  #asked: string | undefined;

  constructor(
    readonly drawer: () => Drawer,
    readonly desktop: HostDesktop,
    readonly placements: Placements,
  ) {}

  /**
   * Puts each request at the caret by itself. Returns what is told of it.
   * @param what how they are called together
   * @throws DrawerError `not-placed`
   */
  async put(
    requests: readonly PlaceRequest[],
    what: string,
    target: DesktopTarget,
    how: Omit<CaretPlace, "target">,
  ): Promise<readonly Notice[]> {
    const drawer = this.drawer();
    const blocks: DesktopBlock[] = [];
    for (const request of requests) blocks.push(await desktopBlock(drawer, request));
    const again = this.#askAgain(requests, what, target, blocks);
    if (again) return [again];
    const { id, name } = target;
    const { taken, isUnsure, notices } = await this.desktop.placeAtCaret(blocks, { ...how, target: id });
    const told = blocks.slice(0, taken).flatMap(({ block }) => block.notices);
    const takeBack = async () => {
      // Each was a step of its own there, and so was each key between: only the user sees when all of them are undone.
      if (requests.length > 1) throw new DrawerError(pageErrors, "nothing/one-by-one", { name });
      await this.desktop.takeBack({ target: id, returns: how.returns });
      return true;
    };
    this.placements.add({ what, placing: { takeBack } });
    if (taken < requests.length) return [...told, ...notices];
    return [
      ...told,
      ...notices,
      notice(pageNotices, isUnsure ? "placed/unsure" : "placed/desktop", { what, name }),
    ];
  }

  /** What is told when it has to be asked for again before it goes. */
  #askAgain(
    requests: readonly PlaceRequest[],
    what: string,
    { id, name, isTerminal }: DesktopTarget,
    blocks: readonly DesktopBlock[],
  ): Notice | undefined {
    const isPrivate = blocks.some((block) => block.isPrivate);
    const asked = JSON.stringify([id, requests.map(({ ids }) => ids)]);
    const isAgain = asked === this.#asked;
    this.#asked = isAgain ? undefined : asked;
    if (isAgain || !(isTerminal || isPrivate)) return undefined;
    return notice(pageNotices, isTerminal ? "again/terminal" : "again/private", { what, name });
  }
}
