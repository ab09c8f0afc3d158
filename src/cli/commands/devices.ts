import { hostname } from "node:os";
import type { Command } from "commander";
import type { Notice } from "../../content/notice.js";
import { Drawer } from "../../drawer/drawer.js";
import { devices as says } from "../../messages/en/cli-answers.js";
import { commands } from "../../messages/en/cli-help.js";
import type { RowStore } from "../../stores/row-store.js";
import type { SyncClient } from "../../sync/client.js";
import type { Exchanged } from "../../sync/exchange.js";
import { answer, answerWith, plain, type CommonOptions } from "../answer.js";
import { ask, askWhether, canAsk } from "../ask.js";
import { printColumns, localTime } from "../columns.js";
import { begin } from "../command.js";
import { syncClient } from "../device-keeper.js";
import { withDrawer } from "../home.js";
import { inviteDevice } from "../invite-device.js";
import { print, printJson } from "../terminal.js";

interface NamingOptions extends CommonOptions {
  readonly hub?: string;
  readonly name?: string;
}

/** `drawer devices [invite|join|remove NAME|leave]`: the devices on which these drawers are. */
export function add(program: Command): void {
  const command = begin(program, "devices").enablePositionalOptions().action(list);
  const inviting = commands["devices invite"];
  begin(command, "devices invite")
    .option("--hub <url>", inviting.hub)
    .option("--name <name>", inviting.name)
    .action(invite);
  const joining = commands["devices join"];
  begin(command, "devices join")
    .option("--hub <url>", joining.hub)
    .option("--name <name>", joining.name)
    .action(join);
  begin(command, "devices remove").action(async (name: string, options: CommonOptions) => {
    const removed = await withClient(options, (client) => client.remove(name));
    answerWith(options, "device-removed", says.removed(removed), { devices: [removed] });
  });
  begin(command, "devices leave").action(async (options: CommonOptions) => {
    await withClient(options, (client) => client.leave());
    answerWith(options, "device-left", says.left);
  });
}

function withClient<Result>(
  { drawer }: CommonOptions,
  use: (client: SyncClient) => Promise<Result>,
): Promise<Result> {
  return withDrawer(drawer, ({ store }) => use(syncClient(store as RowStore)));
}

async function list(options: CommonOptions): Promise<void> {
  const devices = await withClient(options, (client) => client.devices());
  if (options.json) return printJson({ devices, notices: [] });
  if (devices.length === 0) return print(`${says.alone}\n`);
  const rows = devices.map(({ name, words, isThis, lastThere }) => [
    name,
    isThis ? says.isThis : lastThere === undefined ? says.never : says.there(localTime(lastThere)),
    words,
  ]);
  printColumns(rows, 0);
  print(`${says.compare}\n`);
}

async function invite(options: NamingOptions): Promise<void> {
  const { invited, devices } = await withClient(options, async (client) => ({
    invited: await inviteDevice(client, options),
    devices: await client.devices(),
  }));
  if (options.json) return printJson({ ...invited, devices, notices: [] });
  print(`${says.invited({ ...invited, time: localTime(invited.until) })}\n`);
}

async function join(options: NamingOptions): Promise<void> {
  const invitation = await readInvitation();
  const { hub, name = hostname() } = options;
  const [devices, notices] = await withClient(options, async (client) => {
    await client.join(invitation, { name, ...(hub !== undefined && { hub }) });
    const first = await bring(client);
    const told: Notice[] = [...first.notices];
    if (await raiseLimits(client, first)) told.push(...(await bring(client)).notices);
    return [await client.devices(), told] as const;
  });
  const own = devices.find(({ isThis }) => isThis)!;
  const joined = { code: "joined", message: says.joined(own) };
  if (options.json) return printJson({ devices, notices: [joined, ...plain(notices)] });
  print(`${joined.message}\n`);
  answer(options, notices);
}

/** Brings what the other devices have, with a bar where it takes long. */
async function bring(client: SyncClient): Promise<Exchanged> {
  const { progressBar } = await import("../progress.js");
  const bar = progressBar(says.coming, "{value}");
  try {
    return await client.exchange({ progress: (came) => bar.show(came, came) });
  } finally {
    bar.end();
  }
}

/** Asks, where somebody sits at a terminal, whether the limits of drawers shall be raised to what the others hold. */
async function raiseLimits({ store }: SyncClient, { absent }: Exchanged): Promise<boolean> {
  if (!canAsk()) return false;
  const waiting = absent.filter(({ why }) => why === "waiting");
  let isRaised = false;
  for (const name of new Set(waiting.map((one) => one.drawer))) {
    const drawer = new Drawer(store, name);
    const count = waiting.filter((one) => one.drawer === name).length;
    const { snippets: most } = await drawer.rules();
    if (most === null) continue;
    if (!(await askWhether(says.moreThere({ drawer: name, count, most })))) continue;
    await drawer.setRules({ snippets: (await drawer.count()) + count });
    isRaised = true;
  }
  return isRaised;
}

/** The invitation: asked for at a terminal, read from standard input elsewhere. It never stands among the arguments, which others see. */
async function readInvitation(): Promise<string> {
  if (process.stdin.isTTY) return ask(says.ask);
  let text = "";
  for await (const chunk of process.stdin.setEncoding("utf8")) text += chunk as string;
  return text;
}
