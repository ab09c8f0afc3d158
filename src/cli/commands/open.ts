import { fileURLToPath } from "node:url";
import type { Command } from "commander";
import { reasonOf } from "../../content/error.js";
import { holdOnClipboard } from "../../desktop/jobs/hold.js";
import { openDesktop } from "../../desktop/open.js";
import { commands } from "../../messages/en/cli-help.js";
import { openWindow as says } from "../../messages/en/window.js";
import { newSecret } from "../../window/guard.js";
import { serveWindow } from "../../window/server.js";
import type { CommonOptions } from "../answer.js";
import { begin } from "../command.js";
import { dealToClipboard } from "../deal-to-clipboard.js";
import { windowFile } from "../home-folder.js";
import { withDrawer } from "../home.js";
import { addressOfOpen, noteOpen, openBrowser } from "../open-window.js";
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
      if (there !== undefined) {
        const address = showing(there, options.drawer);
        return show(options, address, says.again(address));
      }
      await withDrawer(options.drawer, async ({ store, name }) => {
        const secret = newSecret();
        const server = await serveWindow({
          ...{ store, drawer: name, secret },
          site: besides("../window/site"),
          samples: besides("../../demo"),
          desktop: {
            open: openDesktop,
            hold: (offered) => holdOnClipboard(offered, windowFile()),
            deal: dealToClipboard,
            isWatched,
          },
          log: (sentence) => remark(`${sentence}\n`),
        });
        const forget = await noteOpen({ port: server.port, secret });
        try {
          const own = showing(server.newAddress(), name);
          await show(options, own, says.opened(own));
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

/** Says the address, and opens it. */
async function show({ json, browser }: OpenOptions, address: string, said: string): Promise<void> {
  if (json) printJson({ address, notices: [] });
  else print(`${said}\n`);
  if (!browser) return;
  try {
    await openBrowser(address);
  } catch (error) {
    remark(`${says.noBrowser(reasonOf(error))}\n`);
  }
}

function interrupted(): Promise<void> {
  return new Promise((settle) => {
    for (const signal of ["SIGINT", "SIGTERM", "SIGHUP"] as const) process.once(signal, () => settle());
  });
}
