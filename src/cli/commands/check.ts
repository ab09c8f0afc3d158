import type { Command } from "commander";
import { originText } from "../../content/origin.js";
import { writeText } from "../../formats/text/write.js";
import { standings } from "../../messages/en/cli-answers.js";
import { answer, plain, type CommonOptions } from "../answer.js";
import { printColumns } from "../columns.js";
import { begin } from "../command.js";
import { withDrawer } from "../home.js";
import { standingsOf, type Checked } from "../standings.js";
import { print, printJson } from "../terminal.js";

/** How much of what was changed is shown of each side, in characters. */
const SHOWN = 400;

/** `drawer check [PICK]`: what has become of snippets in the files that they came from. */
export function add(program: Command): void {
  begin(program, "check").action(async (pick: readonly string[], options: CommonOptions) => {
    const { checked, notices } = await withDrawer(options.drawer, (drawer) =>
      standingsOf(drawer, pick.length === 0 ? "all" : pick.join(" ")),
    );
    if (options.json) return printJson({ checked: checked.map(listed), notices: plain(notices) });
    printColumns(
      checked.map(({ snippet, standing }) => [
        String(snippet.position),
        said(standing),
        originText(snippet.entry.origin),
      ]),
      2,
    );
    for (const { snippet, standing } of checked) {
      if (standing.type !== "changed") continue;
      const { position, content } = snippet;
      print(
        standings.both({ position, was: beginningOf(content), now: beginningOf(standing.now.content) }) +
          "\n",
      );
    }
    answer(options, notices);
  });
}

function beginningOf(content: Parameters<typeof writeText>[0]): string {
  const text = writeText(content).trim();
  return text.length > SHOWN ? `${text.slice(0, SHOWN)}…` : text;
}

function said(standing: Checked["standing"]): string {
  if (standing.type === "moved") return standings.moved({ spot: standing.spot });
  if (standing.type === "missing") return standings.missing({ why: standing.why });
  return standings[standing.type];
}

function listed({ snippet, standing }: Checked): object {
  const { position, entry, content } = snippet;
  const changed =
    standing.type === "changed" ? { was: writeText(content), now: writeText(standing.now.content) } : {};
  const moved = standing.type === "moved" ? { spot: standing.spot } : {};
  return { position, id: entry.id, standing: standing.type, ...changed, ...moved };
}
