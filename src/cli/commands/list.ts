import { InvalidArgumentError, type Command } from "commander";
import { DrawerError } from "../../content/error.js";
import { originText } from "../../content/origin.js";
import { KINDS, type Kind } from "../../content/measure.js";
import type { Positioned } from "../../drawer/store.js";
import { answerJson, listed, type CommonOptions } from "../answer.js";
import { columns } from "../columns.js";
import { begin } from "../command.js";
import { withDrawer } from "../home.js";

interface ListOptions extends CommonOptions {
  readonly kind?: string;
  readonly limit?: number;
}

/** `drawer list`: what is in the drawer, in order. */
export function add(program: Command): void {
  begin(program, "list", "the snippets in the drawer, in order")
    .option("--kind <kind>", "only text, table, picture or link")
    .option("--limit <n>", "at most so many, the latest", wholeNumber)
    .action(async (options: ListOptions) => {
      const kind = options.kind === undefined ? undefined : kindNamed(options.kind);
      const [count, snippets] = await withDrawer(options.drawer, async (drawer) => [
        await drawer.count(),
        await drawer.list({
          ...(kind && { kind }),
          ...(options.limit !== undefined && { limit: options.limit }),
        }),
      ]);
      if (options.json) answerJson(snippets.map(listed));
      else print(snippets, count, options.drawer);
    });
}

function print(snippets: readonly Positioned[], count: number, drawer: string): void {
  const rows = snippets.map(({ position, entry }) => {
    const origin = originText(entry.origin);
    return [
      String(position).padStart(String(count).length),
      entry.kind,
      entry.label ? `${entry.label}: ${entry.text}` : entry.text,
      origin,
    ];
  });
  for (const line of columns(rows, 2)) process.stdout.write(line + "\n");
  const shown = snippets.length < count ? `${snippets.length} of ` : "";
  process.stdout.write(
    count === 0
      ? `The drawer “${drawer}” is empty.\n`
      : `${shown}${count === 1 ? "1 snippet" : `${count} snippets`} in the drawer “${drawer}”.\n`,
  );
}

function kindNamed(name: string): Kind {
  const kind = KINDS.find((known) => known === name);
  if (kind) return kind;
  throw new DrawerError("bad-option", `There is no kind “${name}”. The kinds are: ${KINDS.join(", ")}.`);
}

function wholeNumber(value: string): number {
  if (!/^[1-9]\d{0,8}$/.test(value)) throw new InvalidArgumentError("Write a whole number from 1 up.");
  return Number(value);
}
