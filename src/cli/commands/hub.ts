import { join } from "node:path";
import { fileURLToPath } from "node:url";
import type { Command } from "commander";
import { reasonOf } from "../../content/error.js";
import { openPostgresHub } from "../../hub/postgres.js";
import { serveHub } from "../../hub/serve.js";
import { openSqliteHub } from "../../hub/sqlite.js";
import { MEGABYTE } from "../../messages/core/units.js";
import { devices as says } from "../../messages/en/cli-answers.js";
import { commands } from "../../messages/en/cli-help.js";
import type { CommonOptions } from "../answer.js";
import { begin, wholeNumber } from "../command.js";
import { hubFolder } from "../home-folder.js";
import { interrupted } from "../interrupted.js";
import { UsageError } from "../refusal.js";
import { print, printJson, remark } from "../terminal.js";

interface HubCommandOptions extends CommonOptions {
  readonly port: number;
  readonly host: string;
  readonly data?: string;
  readonly postgres?: boolean;
  readonly quota?: number;
  readonly behindProxy?: boolean;
  readonly quiet?: boolean;
}

const PORT = 8750;

/** `drawer hub`: serves a hub until it is ended. */
export function add(program: Command): void {
  const help = commands.hub;
  begin(program, "hub")
    .option("--port <number>", help.port, port, PORT)
    .option("--host <address>", help.host, "127.0.0.1")
    .option("--data <folder>", help.data)
    .option("--postgres", help.postgres)
    .option("--quota <megabytes>", help.quota, wholeNumber)
    .option("--behind-proxy", help.proxy)
    .option("--quiet", help.quiet)
    .action(serve);
}

/** A port; 0 is any that is free. */
function port(value: string): number {
  const number = Number(value);
  if (!/^\d{1,5}$/.test(value) || number > 65535) throw new UsageError("bad-option/port", { value });
  return number;
}

async function serve(options: HubCommandOptions): Promise<void> {
  const { quota, json } = options;
  if (options.postgres && options.data !== undefined) throw new UsageError("bad-option/two-databases", {});
  const failed = (error: unknown) => remark(`PostgreSQL: ${reasonOf(error)}\n`);
  const database = options.postgres
    ? await openPostgresHub(failed)
    : await openSqliteHub(join(options.data ?? hubFolder(), "hub.db"));
  const server = await serveHub(database, {
    port: options.port,
    host: options.host,
    site: fileURLToPath(new URL("../hub/site", import.meta.url)),
    isBehindProxy: options.behindProxy ?? false,
    log: (line) => {
      if (!options.quiet) remark(`${line}\n`);
    },
    ...(quota !== undefined && { quotas: { group: quota * MEGABYTE } }),
  });
  const host = options.host.includes(":") ? `[${options.host}]` : options.host;
  const address = `http://${host}:${server.port}`;
  if (json) printJson({ address, notices: [] });
  else print(`${says.hubListens(address)}\n`);
  await interrupted();
  await server.close();
  if (!json) print(`${says.hubEnded}\n`);
}
