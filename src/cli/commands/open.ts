import { fileURLToPath } from "node:url";
import type { Command } from "commander";
import { reasonOf } from "../../content/error.js";
import { holdOnClipboard } from "../../desktop/jobs/hold.js";
import { noteWindow } from "../../desktop/jobs/last-window.js";
import { openDesktop } from "../../desktop/open.js";
import { commands } from "../../messages/en/cli-help.js";
import { openWindow as says } from "../../messages/en/window.js";
import { KEY_LIFE, newSecret } from "../../window/guard.js";
import { serveWindow } from "../../window/server.js";
import type { CommonOptions } from "../answer.js";
import { begin } from "../command.js";
import { dealToClipboard } from "../deal-to-clipboard.js";
import { windowFile } from "../home-folder.js";
import { withDrawer } from "../home.js";
import { addressOfOpen, chooseEntryFolder, noteOpen, openBrowser, type WayIn } from "../open-window.js";
import { print, printJson, remark } from "../terminal.js";
import { isWatched } from "../watch-claim.js";

interface OpenOptions extends CommonOptions {
  readonly browser: boolean;
}

/** What the command serves, beside the built command. */
const besides = (path: string) => fileURLToPath(new URL(path, import.meta.url));

/** `drawer open`: the drawer in a window, until the window is closed. */
export function add(program: Command): void {
  begin(program, "open")
    .option("--no-browser", commands.open.browser)
    .action(async (options: OpenOptions) => {
      const there = await addressOfOpen();
      if (there !== undefined) return show(options, there, options.drawer, says.again);
      await withDrawer(options.drawer, async ({ store, name }) => {
        const secret = newSecret();
        const entryFolder = chooseEntryFolder();
        const server = await serveWindow({
          ...{ store, drawer: name, secret, entryFolder },
          site: besides("../window/site"),
          samples: besides("../../demo"),
          desktop: {
            open: openDesktop,
            hold: (offered) => holdOnClipboard(offered, windowFile()),
            deal: dealToClipboard,
            isWatched,
            notePasted: (desktop) => noteWindow(desktop, windowFile()),
          },
          log: (sentence) => remark(`${sentence}\n`),
        });
        const forget = await noteOpen({ port: server.port, secret, entryFolder });
        try {
          await show(options, { address: server.newAddress(), entryFolder }, name, says.opened);
          await Promise.race([server.ended, interrupted()]);
        } finally {
          await forget();
          await server.close();
        }
        if (!options.json) print(`${says.ended}\n`);
      });
    });
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

function interrupted(): Promise<void> {
  return new Promise((settle) => {
    for (const signal of ["SIGINT", "SIGTERM", "SIGHUP"] as const) process.once(signal, () => settle());
  });
}
