import { spawn } from "node:child_process";
import { Command, CommanderError } from "commander";
import { parseArgsStringToArgv as parseArgs } from "string-argv";
import { compose } from "../compose/compose.js";
import { DrawerError } from "../content/error.js";
import { notice, type Notice } from "../content/notice.js";
import type { Copied, Desktop, DesktopWindow, Windows } from "../desktop/desktop.js";
import { noteWindow, notedWindow } from "../desktop/jobs/last-window.js";
import { offeredBlock } from "../desktop/offered-block.js";
import type { ActionResult } from "../drawer/collecting-session.js";
import { stepDeal } from "../drawer/deal-step.js";
import type { Drawer } from "../drawer/drawer.js";
import { pickOf, parsePick } from "../drawer/model/pick.js";
import type { Collected } from "../drawer/operations/collect.js";
import type { Dealt } from "../drawer/operations/deal.js";
import { actNotices } from "../messages/en/acts.js";
import { cliErrors, cliNotices } from "../messages/en/cli.js";
import { blockOf, type Composed } from "./block-output.js";
import { dealToClipboard } from "./deal-to-clipboard.js";
import { windowFile } from "./home-folder.js";
import { ownCommand } from "./own-command.js";
import { addRecipeOptions, recipeOf, type RecipeOptions } from "./recipe-options.js";
import { UsageError } from "./refusal.js";

/** What actions in other programs work with. */
export interface ActionContext {
  readonly drawer: Drawer;
  readonly desktop: Desktop;
  /** Collects what was copied: as a snippet of its own, or onto the end of the latest. */
  collect(copied: Copied, isAppend: boolean): Promise<Collected>;
}

/** Does something in other programs. */
export type DesktopAction = (at: ActionContext) => Promise<readonly Notice[] | ActionResult>;

/** What keys do by their names, and what reads the words that follow. */
const ACTIONS: Readonly<Record<string, (words: readonly string[]) => DesktopAction>> = {
  collect: plain((at) => collectSelection(at, false)),
  append: plain((at) => collectSelection(at, true)),
  place: placeAction,
  next: plain((at) => dealStep(at, "next")),
  back: plain((at) => dealStep(at, "back")),
  send: plain(sendSelection),
  open: plain(showWindow),
  undo: plain(({ drawer }) => drawer.undo()),
  redo: plain(({ drawer }) => drawer.redo()),
};

/**
 * Reads what a key is to do: `place last --as quotes`.
 * @throws UsageError `bad-option`
 * @throws DrawerError `bad-pick`, `bad-option`
 */
export function parseAction(typed: string): DesktopAction {
  const [name = "", ...rest] = parseArgs(typed);
  const read = Object.hasOwn(ACTIONS, name) ? ACTIONS[name] : undefined;
  if (!read) throw noAction(typed);
  try {
    return read(rest);
  } catch (error) {
    if (error instanceof CommanderError)
      throw noAction(typed, error.message.replace(/^error: /, "").replace(/\s+/g, " "));
    throw error;
  }
}

function noAction(act: string, why?: string): UsageError {
  const acts = Object.keys(ACTIONS).map((name) => (name === "place" ? "place PICK" : name));
  return new UsageError("bad-option/act", { act, acts, ...(why !== undefined && { why }) });
}

/** An act that takes no words. */
function plain(act: DesktopAction): (words: readonly string[]) => DesktopAction {
  return (words) => {
    if (words.length > 0) throw noAction(words.join(" "));
    return act;
  };
}

function placeAction(words: readonly string[]): DesktopAction {
  const command = addRecipeOptions(new Command("place").argument("<pick...>"))
    .option("--recipe <name>")
    .exitOverride()
    .configureOutput({ writeErr: () => undefined });
  command.parse([...words], { from: "user" });
  const pick = command.args.join(" ");
  parsePick(pick);
  const { recipe: name, ...typed } = command.opts<RecipeOptions & { recipe?: string }>();
  const recipe = recipeOf(typed);
  return async (at) => paste(at, await blockOf(at.drawer, pick, recipe, name));
}

/** The windows of the desktop, where it lets a program do something with them. */
function windowsOf({ windows }: Desktop): Windows {
  if (!windows) throw new DrawerError(cliErrors, "no-windows", {});
  return windows;
}

/** Pastes a block at the caret of the window in front. */
async function paste(
  { desktop }: ActionContext,
  { block, count, isPrivate, notices }: Composed,
): Promise<readonly Notice[]> {
  const windows = windowsOf(desktop);
  const front = await windows.front();
  const { taken } = await windows.paste([offeredBlock(block, isPrivate)]);
  if (taken === 0) throw new DrawerError(cliErrors, "not-pasted", titled(front));
  await noteWindow(desktop, windowFile());
  const isRestored = await windows.putBack();
  const placed = notice(cliNotices, "placed/window", { count, title: front?.title ?? "" });
  return [placed, ...notices, ...block.notices, ...clipboardNotices(isRestored)];
}

function titled(window: DesktopWindow | undefined): { title?: string } {
  return window?.title === undefined ? {} : { title: window.title };
}

/** What is told of the clipboard after an act that used it. */
function clipboardNotices(isRestored: boolean): readonly Notice[] {
  return isRestored ? [] : [notice(cliNotices, "not-restored", {})];
}

/** Collects what is selected in the window in front. */
async function collectSelection(at: ActionContext, isAppend: boolean): Promise<ActionResult> {
  const windows = windowsOf(at.desktop);
  const front = await windows.front();
  if (!windows.copy) throw new DrawerError(cliErrors, "no-windows", {});
  const { copied, isRestored } = await windows.copy();
  if (!copied) throw new DrawerError(cliErrors, "nothing/selected", titled(front));
  const collected = await at.collect(copied, isAppend);
  return { ...collected, notices: [...collected.notices, ...clipboardNotices(isRestored)] };
}

/** The next snippet of the deal, or the one before, at the caret; a deal on the clipboard is moved there. */
async function dealStep(at: ActionContext, step: "next" | "back"): Promise<readonly Notice[]> {
  const handOver = async ({ snippet, number, of, recipe }: Dealt) => [
    ...(await paste(at, {
      block: compose([snippet], recipe),
      count: 1,
      isPrivate: snippet.entry.private,
      notices: [],
    })),
    notice(actNotices, "dealt", { number, of }),
  ];
  return (await stepDeal(at.drawer, step, { handOver, offer: dealToClipboard })).notices;
}

/** Brings Drawer's window to the front, ready to find; opens it where there is none. */
async function showWindow(): Promise<readonly Notice[]> {
  const { addressOfOpen } = await import("./open-window.js");
  if ((await addressOfOpen(true))?.address === "") return [];
  const [program, ...words] = ownCommand("open");
  spawn(program, words, { detached: true, stdio: "ignore" }).unref();
  return [];
}

/** Collects what is selected in the window in front, and pastes it where the last block went. */
export async function sendSelection(at: ActionContext): Promise<readonly Notice[]> {
  const { drawer, desktop } = at;
  const windows = windowsOf(desktop);
  const target = await notedWindow(windowFile());
  if (!target) throw new DrawerError(cliErrors, "no-window", {});
  const collected = await collectSelection(at, false);
  // What was there already is sent all the same.
  const sent = await blockOf(drawer, pickOf(await drawer.list({ limit: 1 })), {}, undefined);
  if (!(await windows.raise(target))) throw new DrawerError(cliErrors, "no-window/gone", titled(target));
  return [...collected.notices, ...(await paste(at, sent))];
}
