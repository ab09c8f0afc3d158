import { fileURLToPath } from "node:url";
import type { Command } from "commander";
import { reasonOf } from "../../content/error.js";
import type { Notice } from "../../content/notice.js";
import { holdOnClipboard } from "../../desktop/jobs/hold.js";
import { noteWindow } from "../../desktop/jobs/last-window.js";
import { openDesktop } from "../../desktop/open.js";
import { answers } from "../../messages/en/cli-answers.js";
import { commands } from "../../messages/en/cli-help.js";
import { openWindow as says } from "../../messages/en/window.js";
import type { RowStore } from "../../stores/row-store.js";
import { KEY_LIFE, newSecret } from "../../window/guard.js";
import { serveWindow } from "../../window/server.js";
import { answer, answerWith, type CommonOptions } from "../answer.js";
import { begin } from "../command.js";
import { computerSettings, setStart } from "../computer-settings.js";
import { dealToClipboard } from "../deal-to-clipboard.js";
import { followDevices } from "../follow-devices.js";
import { windowFile } from "../home-folder.js";
import { withDrawer } from "../home.js";
import { hostFiles } from "../host-files.js";
import { takeKeys } from "../hotkeys.js";
import { interrupted } from "../interrupted.js";
import { addressOfOpen, chooseEntryFolder, noteOpen, openBrowser, type WayIn } from "../open-window.js";
import { refusalText } from "../refusal.js";
import { print, printJson, remark } from "../terminal.js";
import { isWatched } from "../watch-claim.js";

interface OpenOptions extends CommonOptions {
  readonly browser: boolean;
  readonly quiet?: boolean;
  readonly addToMenu?: boolean;
  readonly atLogin?: boolean;
  readonly remove?: boolean;
}

/** What the command serves, beside the built command. */
const besides = (path: string) => fileURLToPath(new URL(path, import.meta.url));

/** `drawer open`: the drawer in a window, until the window is closed. */
export function add(program: Command): void {
  begin(program, "open")
    .option("--no-browser", commands.open.browser)
    .option("--quiet", commands.open.quiet)
    .option("--add-to-menu", commands.open.menu)
    .option("--at-login", commands.open.login)
    .option("--remove", commands.open.remove)
    .action(async (options: OpenOptions) => {
      if (options.addToMenu || options.atLogin) return changeStart(options);
      const there = await addressOfOpen(options.browser && options.drawer === "main");
      if (there?.address === "") return answerWith(options, "front", says.front);
      if (there !== undefined) return show(options, there, options.drawer, says.again);
      await withDrawer(options.drawer, async ({ store, name }) => {
        const secret = newSecret();
        const entryFolder = chooseEntryFolder();
        const followed = followDevices(store as RowStore, (sentence) => remark(`${sentence}\n`));
        const server = await serveWindow({
          ...{ store, drawer: name, secret, entryFolder },
          site: besides("../window/site"),
          samples: besides("../../demo"),
          files: hostFiles(store),
          desktop: {
            open: openDesktop,
            hold: (offered) => holdOnClipboard(offered, windowFile()),
            deal: dealToClipboard,
            isWatched,
            takeKeys: (keyed) =>
              takeKeys(keyed, {
                works: (keys) => remark(`${answers.keysWork(keys)}\n`),
                refused: (error) => {
                  remark(`drawer: ${refusalText(error)}\n`);
                  keyed.act(() => Promise.reject(error));
                },
              }),
            settings: computerSettings(name, store as RowStore, () => followed.look()),
            notePasted: (desktop) => noteWindow(desktop, windowFile()),
          },
          log: (sentence) => remark(`${sentence}\n`),
          ...(options.quiet && { patience: Infinity }),
        });
        const forget = await noteOpen({ port: server.port, secret, entryFolder });
        try {
          if (options.quiet) print(`${says.quiet}\n`);
          else await show(options, { address: server.newAddress(), entryFolder }, name, says.opened);
          await Promise.race([server.ended, interrupted()]);
        } finally {
          await forget();
          await server.close();
          await followed.end();
        }
        if (!options.json) print(`${says.ended}\n`);
      });
    });
}

/** Puts the window into the system's menu, or among what starts when one logs in; or takes it out of there. */
async function changeStart({ addToMenu, atLogin, remove = false, ...options }: OpenOptions): Promise<void> {
  const places = [...(addToMenu ? ["menu" as const] : []), ...(atLogin ? ["login" as const] : [])];
  const notices: Notice[] = [];
  for (const place of places) notices.push(await setStart(options.drawer, place, !remove));
  answer(options, notices);
}

/** An address of the window at which it shows this drawer first. */
function showing(address: string, drawer: string): string {
  const shown = new URL(address);
  if (drawer !== "main") shown.searchParams.set("drawer", drawer);
  return shown.href;
}

/** Says that the window is open, and shows it: in a browser, or by its address and how long that is good. */
async function show(
  { json, browser }: OpenOptions,
  way: WayIn,
  drawer: string,
  said: (typeof says)["opened" | "again"],
): Promise<void> {
  const address = showing(way.address, drawer);
  if (json) printJson({ address, notices: [] });
  else print(browser ? `${said()}\n` : `${said(address)}\n${says.waits(KEY_LIFE)}\n`);
  if (!browser) return;
  try {
    await openBrowser({ ...way, address });
  } catch (error) {
    remark(`${says.noBrowser(reasonOf(error))}\n`);
  }
}
