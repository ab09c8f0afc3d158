import { notice, type Notice } from "../content/notice.js";
import { actNotices } from "../messages/en/acts.js";
import type { Drawer } from "./drawer.js";
import type { Dealt, DealStatus } from "./operations/deal.js";

/** Which snippet of a deal is handed out: the next, or the one before again; or that the next is passed over. */
export type DealStep = "next" | "back" | "skip";

/** Where the snippets of a deal go. */
export interface DealTarget {
  /** Hands one over. When that fails, it has not been handed out. Returns what there is to tell. */
  handOver(dealt: Dealt): Promise<readonly Notice[]>;
  /** Offers what is next of a deal that goes to the clipboard of the desktop, where each paste brings the one after it. */
  offer(drawer: string): Promise<unknown>;
}

/** What a step has come to. */
export interface DealStepResult extends DealStatus {
  /** What was handed out, or is on the clipboard now; undefined when nothing is left. */
  readonly dealt: Dealt | undefined;
  readonly notices: readonly Notice[];
}

/**
 * Goes one step on, or back, in the deal of a drawer, wherever it goes: a snippet is handed over, or, where it is dealt
 * on the clipboard, what stands there is another one.
 * @throws DrawerError `nothing` when no deal has been begun, `conflict`; and as the target does
 */
export async function stepDeal(drawer: Drawer, step: DealStep, target: DealTarget): Promise<DealStepResult> {
  const { to } = await drawer.dealStatus();
  if (to === "clipboard") {
    await (step === "back" ? drawer.dealReturn() : drawer.dealSkip());
    await target.offer(drawer.name);
    return offeredOf(drawer);
  }
  if (step === "skip") {
    const status = await drawer.dealSkip();
    const { left, of } = status;
    const notices = [notice(actNotices, "dealing/skipped", { number: of - left, of })];
    return { ...status, dealt: undefined, notices };
  }
  const notices: Notice[] = [];
  const handOver = async (dealt: Dealt) => void notices.push(...(await target.handOver(dealt)));
  const dealt = await (step === "next" ? drawer.dealNext(handOver) : drawer.dealBack(handOver));
  const passedOver = dealt?.notices ?? [notice(actNotices, "done", {})];
  return { ...(await drawer.dealStatus()), dealt, notices: [...passedOver, ...notices] };
}

/**
 * What a deal has put on the clipboard.
 * @throws DrawerError `nothing` when no deal has been begun
 */
export async function offeredOf(drawer: Drawer): Promise<DealStepResult> {
  const [dealt, status] = [await drawer.dealPeek(), await drawer.dealStatus()];
  if (!dealt) return { ...status, dealt, notices: [notice(actNotices, "done", {})] };
  const { number, of, snippet } = dealt;
  const offered = notice(actNotices, "dealing/offered", { number, of, snippet: snippet.entry });
  return { ...status, dealt, notices: [...dealt.notices, offered] };
}
