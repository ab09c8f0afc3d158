import type { Command } from "commander";
import { notice, type Notice } from "../../content/notice.js";
import { offeredOf, stepDeal } from "../../drawer/deal-step.js";
import { actNotices } from "../../messages/en/acts.js";
import { answers } from "../../messages/en/cli-answers.js";
import { commands } from "../../messages/en/cli-help.js";
import { cliNotices } from "../../messages/en/cli.js";
import { answer, type CommonOptions } from "../answer.js";
import { recipeFrom } from "../block-output.js";
import { begin } from "../command.js";
import { CLIPBOARD, dealToClipboard } from "../deal-to-clipboard.js";
import { withDrawer } from "../home.js";
import { addRecipeOptions, recipeOf, type RecipeOptions } from "../recipe-options.js";
import { UsageError } from "../refusal.js";

interface DealOptions extends CommonOptions, RecipeOptions {
  readonly skip?: boolean;
  readonly left?: boolean;
  readonly to?: string;
  readonly recipe?: string;
}

/** `drawer deal [PICK]`: begins to hand out snippets one at a time, tells how many are left, or passes over the next. */
export function add(program: Command): void {
  const says = commands.deal;
  addRecipeOptions(begin(program, "deal"))
    .option("--recipe <name>", commands.place.recipe)
    .option("--left", says.left)
    .option("--skip", says.skip)
    .option("--to <clipboard>", says.to)
    .action(async (words: readonly string[], options: DealOptions) => {
      const pick = words.join(" ");
      if (pick === "" && options.to === undefined) return options.skip ? skip(options) : tellLeft(options);
      if (options.skip) throw new UsageError("bad-option/skip", {});
      if (options.left) throw new UsageError("bad-option/left", {});
      if (options.to !== undefined && (options.to !== CLIPBOARD || pick === ""))
        throw new UsageError("bad-option/deal-to", {});
      return beginDeal(pick, options);
    });
}

/** Begins a deal: for `drawer next`, or on the clipboard of the desktop. */
async function beginDeal(pick: string, options: DealOptions): Promise<void> {
  const typed = recipeOf(options);
  const desktop = options.to === undefined ? undefined : await openedDesktop();
  const {
    left,
    of,
    notices = [],
  } = await withDrawer(options.drawer, async (drawer) => {
    const recipe = await recipeFrom(drawer, typed, options.recipe);
    return drawer.deal(pick, { recipe, ...(desktop && { to: CLIPBOARD }) });
  });
  if (!desktop) return answerLeft(options, { left, of }, "dealing", notices);
  await dealToClipboard(options.drawer);
  const told = desktop.tellsPastes
    ? notice(actNotices, "dealing/clipboard", { of })
    : notice(cliNotices, "dealing/by-hand", { of });
  answer(options, [...notices, told], { left, of });
}

/** What the desktop can do; it is let go of at once. */
async function openedDesktop() {
  const { openDesktop } = await import("../../desktop/open.js");
  const desktop = await openDesktop();
  desktop.close();
  return desktop;
}

async function tellLeft(options: DealOptions): Promise<void> {
  const { notices, ...status } = await withDrawer(options.drawer, async (drawer) => {
    const found = await drawer.dealStatus();
    return found.to === CLIPBOARD ? offeredOf(drawer) : { ...found, notices: undefined };
  });
  const { left, of } = status;
  if (notices) answer(options, notices, { left, of });
  else answerLeft(options, status, "dealing/left");
}

async function skip(options: DealOptions): Promise<void> {
  const { notices, ...status } = await withDrawer(options.drawer, (drawer) =>
    stepDeal(drawer, "skip", { handOver: async () => [], offer: dealToClipboard }),
  );
  const { left, of, to } = status;
  if (to === CLIPBOARD) answer(options, notices, { left, of });
  else answerLeft(options, status, "dealing/left");
}

function answerLeft(
  options: DealOptions,
  { left, of }: { readonly left: number; readonly of: number },
  reason: "dealing" | "dealing/left",
  before: readonly Notice[] = [],
): void {
  const told =
    left === 0 ? notice(cliNotices, "done/none-left", { of }) : notice(cliNotices, reason, { left, of });
  const next = left === 0 ? "" : ` ${answers.nextDealt({ number: of - left + 1, of })}`;
  answer(options, [...before, { ...told, message: told.message + next }], { left, of });
}
