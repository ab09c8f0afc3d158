import { Command, CommanderError } from "commander";
import { compose } from "../compose/compose.js";
import { DrawerError } from "../content/error.js";
import { notice, type Notice } from "../content/notice.js";
import type { Copied, Desktop, DesktopWindow, Windows } from "../desktop/desktop.js";
import { noteWindow, notedWindow } from "../desktop/last-window.js";
import { offeredBlock } from "../desktop/offered-block.js";
import type { Drawer } from "../drawer/drawer.js";
import { parsePick } from "../drawer/model/pick.js";
import { blockOf, type Composed } from "./block-output.js";
import { CLIPBOARD, moveOnClipboard } from "./deal-to-clipboard.js";
import { windowFile } from "./home-folder.js";
import { addRecipeOptions, recipeOf, type RecipeOptions } from "./recipe-options.js";
import { UsageError } from "./refusal.js";
import { cliErrors } from "../messages/en/errors/cli.js";
import { cliNotices } from "../messages/en/notices/cli.js";

/** What acts in other programs work with. */
export interface Surroundings {
  readonly drawer: Drawer;
  readonly desktop: Desktop;
  /** Collects what was copied: as a snippet of its own, or onto the end of the latest. Returns what is said of it. */
  collect(copied: Copied, isAppend: boolean): Promise<readonly Notice[]>;
}

/** Does something in other programs. Returns what is said of it. */
export type Act = (at: Surroundings) => Promise<readonly Notice[]>;

/** What keys do by their names, and what reads the words that follow. */
const ACTS: Readonly<Record<string, (words: readonly string[]) => Act>> = {
  collect: plain((at) => collectSelection(at, false)),
  append: plain((at) => collectSelection(at, true)),
  place: placeAct,
  next: plain((at) => dealStep(at, "next")),
  back: plain((at) => dealStep(at, "back")),
  send: plain(sendSelection),
  undo: plain(({ drawer }) => drawer.undo()),
  redo: plain(({ drawer }) => drawer.redo()),
};

/**
 * Reads what a key is to do: `place last --as quotes`.
 * @throws UsageError `bad-option`
 * @throws DrawerError `bad-pick`, `bad-option`
 */
export function parseAct(typed: string): Act {
  const words = [...typed.matchAll(/"([^"]*)"|'([^']*)'|(\S+)/g)].map((found) => found.slice(1).join(""));
  const [name = "", ...rest] = words;
  const read = Object.hasOwn(ACTS, name) ? ACTS[name] : undefined;
  if (!read) throw noAct(typed);
  try {
    return read(rest);
  } catch (error) {
    if (error instanceof CommanderError)
      throw noAct(typed, error.message.replace(/^error: /, "").replace(/\s+/g, " "));
    throw error;
  }
}

function noAct(act: string, why?: string): UsageError {
  const acts = Object.keys(ACTS).map((name) => (name === "place" ? "place PICK" : name));
  return new UsageError("bad-option/act", { act, acts, ...(why !== undefined && { why }) });
}

/** An act that takes no words. */
function plain(act: Act): (words: readonly string[]) => Act {
  return (words) => {
    if (words.length > 0) throw noAct(words.join(" "));
    return act;
  };
}

function placeAct(words: readonly string[]): Act {
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
  { desktop }: Surroundings,
  { block, count, isPrivate }: Composed,
): Promise<readonly Notice[]> {
  const windows = windowsOf(desktop);
  const front = await windows.front();
  if (!(await windows.paste(offeredBlock(block, isPrivate))))
    throw new DrawerError(cliErrors, "not-pasted", titled(front));
  await noteWindow(desktop, windowFile());
  return [notice(cliNotices, "placed/window", { count, title: front?.title ?? "" }), ...block.notices];
}

function titled(window: DesktopWindow | undefined): { title?: string } {
  return window?.title === undefined ? {} : { title: window.title };
}

async function copySelection(desktop: Desktop): Promise<Copied> {
  const windows = windowsOf(desktop);
  const front = await windows.front();
  const copied = await windows.copy();
  if (!copied) throw new DrawerError(cliErrors, "nothing/selected", titled(front));
  return copied;
}

async function collectSelection(at: Surroundings, isAppend: boolean): Promise<readonly Notice[]> {
  return at.collect(await copySelection(at.desktop), isAppend);
}

/** The next snippet of the deal, or the one before, at the caret; a deal on the clipboard is moved there. */
async function dealStep(at: Surroundings, step: "next" | "back"): Promise<readonly Notice[]> {
  const { drawer } = at;
  if ((await drawer.dealLeft()).to === CLIPBOARD) return (await moveOnClipboard(drawer, step)).notices;
  const notices: Notice[] = [];
  const dealt = await drawer[step === "next" ? "dealNext" : "dealBack"](async ({ snippet }) => {
    const block = compose([snippet], {});
    notices.push(...(await paste(at, { block, count: 1, isPrivate: snippet.entry.private })));
  });
  if (!dealt) return [notice(cliNotices, "done", {})];
  return [...dealt.notices, ...notices, notice(cliNotices, "dealt", { number: dealt.number, of: dealt.of })];
}

/** Collects what is selected in the window in front, and pastes it where the last block went. */
export async function sendSelection(at: Surroundings): Promise<readonly Notice[]> {
  const { drawer, desktop } = at;
  const windows = windowsOf(desktop);
  const target = await notedWindow(windowFile());
  if (!target) throw new DrawerError(cliErrors, "no-window", {});
  const copied = await copySelection(desktop);
  const collected = await at.collect(copied, false);
  // What was there already is sent all the same.
  const sent = await blockOf(drawer, "last", {}, undefined);
  if (!(await windows.raise(target))) throw new DrawerError(cliErrors, "no-window/gone", titled(target));
  return [...collected, ...(await paste(at, sent))];
}
