import type { Command } from "commander";
import { commands } from "../../messages/en/commands.js";
import { notice } from "../../content/notice.js";
import { answers } from "../../messages/en/command-line.js";
import { answer, type CommonOptions } from "../answer.js";
import { begin } from "../command.js";
import { CLIPBOARD, moveOnClipboard, onClipboard, startDealer } from "../deal-to-clipboard.js";
import { withDrawer } from "../home.js";
import { UsageError } from "../refusal.js";
import { cliNotices } from "../../messages/en/notices/cli.js";
import { placingNotices } from "../../messages/en/notices/placing.js";

interface DealOptions extends CommonOptions {
  readonly skip?: boolean;
  readonly to?: string;
}

/** `drawer deal [PICK]`: begins to hand out snippets one at a time, tells how many are left, or passes over the next. */
export function add(program: Command): void {
  const says = commands.deal;
  begin(program, "deal", "[pick...]")
    .option("--skip", says.skip)
    .option("--to <clipboard>", says.to)
    .action(async (pick: readonly string[], options: DealOptions) => {
      if (options.skip && pick.length > 0) throw new UsageError("bad-option/skip", {});
      if (options.to !== undefined) return dealToClipboard(pick, options);
      const { left, of, offered } = await withDrawer(options.drawer, async (drawer) => {
        if (pick.length > 0) return { ...(await drawer.deal(pick.join(" "))), offered: undefined };
        const found = await drawer.dealLeft();
        if (found.to !== CLIPBOARD)
          return { ...(options.skip ? await drawer.dealSkip() : found), offered: undefined };
        const offered = await (options.skip ? moveOnClipboard(drawer, "next") : onClipboard(drawer));
        return { ...(await drawer.dealLeft()), offered: offered.notices };
      });
      if (offered) return answer(options, offered, { left, of });
      const told =
        left === 0
          ? notice(cliNotices, "done/none-left", { of })
          : notice(cliNotices, pick.length > 0 ? "dealing" : "dealing/left", { left, of });
      const next = left === 0 ? "" : ` ${answers.nextDealt({ number: of - left + 1, of })}`;
      answer(options, [{ ...told, message: told.message + next }], { left, of });
    });
}

/** Begins a deal on the clipboard of the desktop. */
async function dealToClipboard(pick: readonly string[], options: DealOptions): Promise<void> {
  if (options.to !== CLIPBOARD || pick.length === 0) throw new UsageError("bad-option/deal-to", {});
  const { openDesktop } = await import("../../desktop/desktop.js");
  const desktop = await openDesktop();
  desktop.close();
  const { left, of } = await withDrawer(options.drawer, (drawer) => drawer.deal(pick.join(" "), CLIPBOARD));
  await startDealer(options.drawer);
  const told = desktop.tellsPastes
    ? notice(placingNotices, "dealing/clipboard", { of })
    : notice(cliNotices, "dealing/by-hand", { of });
  answer(options, [told], { left, of });
}
