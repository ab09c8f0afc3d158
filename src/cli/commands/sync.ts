import type { Command } from "commander";
import { devices as says } from "../../messages/en/cli-answers.js";
import { commands } from "../../messages/en/cli-help.js";
import type { RowStore } from "../../stores/row-store.js";
import type { Exchanged } from "../../sync/exchange.js";
import { follow } from "../../sync/follow.js";
import { answer, plain, type CommonOptions } from "../answer.js";
import { begin } from "../command.js";
import { syncClient } from "../device-keeper.js";
import { withDrawer } from "../home.js";
import { interrupted } from "../interrupted.js";
import { refusalText } from "../refusal.js";
import { print, printJson, remark } from "../terminal.js";

/** `drawer sync [--follow]`: takes what the other devices did, and sends what was done here. */
export function add(program: Command): void {
  begin(program, "sync")
    .option("--follow", commands.sync.follow)
    .action(async (options: CommonOptions & { follow?: boolean }) => {
      await withDrawer(options.drawer, async ({ store }) => {
        const client = syncClient(store as RowStore);
        if (options.follow) return followOn(options, client);
        const result = await client.exchange();
        answer(options, result.notices, counts(result));
      });
    });
}

async function followOn(options: CommonOptions, client: ReturnType<typeof syncClient>): Promise<void> {
  const ending = new AbortController();
  void interrupted().then(() => ending.abort());
  remark(`${says.following}\n`);
  await follow(client, {
    signal: ending.signal,
    exchanged: (result) => {
      if (options.json) printJson({ ...counts(result), notices: plain(result.notices) });
      else for (const { message } of result.notices) print(`${message}\n`);
    },
    failed: (error) => remark(`drawer: ${says.away(refusalText(error))}\n`),
  });
}

/** What an exchange came to, for programs. */
function counts({ came, changed, left, sent, absent, devices }: Exchanged): object {
  return { sync: { came, changed, left, sent, absent: absent.length, devices } };
}
