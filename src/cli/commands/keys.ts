import type { Command } from "commander";
import { notice } from "../../content/notice.js";
import { answers } from "../../messages/en/cli-answers.js";
import { cliNotices } from "../../messages/en/cli.js";
import { answer, answerWith, type CommonOptions } from "../answer.js";
import { begin } from "../command.js";
import { withDrawer } from "../home.js";
import { parseKey, readKeys, writeKeys } from "../keys.js";
import { print } from "../terminal.js";

/** `drawer keys [KEY=COMMAND…]`: the user's own keys, which work in every program while `drawer watch` runs. */
export function add(program: Command): void {
  begin(program, "keys", "[key=command...]").action(
    async (typed: readonly string[], options: CommonOptions) => {
      if (typed.length === 0) return list(options);
      const set = typed.map(parseKey);
      // The home is made ready by the first drawer in it.
      await withDrawer(options.drawer, async () => {
        const changed = new Map(Object.entries(readKeys()));
        for (const { key, act } of set) {
          if (act === "") changed.delete(key);
          else changed.set(key, act);
        }
        await writeKeys(Object.fromEntries(changed));
      });
      answer(
        options,
        set.map(({ key, act }) =>
          act === ""
            ? notice(cliNotices, "key/removed", { key })
            : notice(cliNotices, "key/set", { key, act }),
        ),
      );
    },
  );
}

function list(options: CommonOptions): void {
  const keys = Object.entries(readKeys());
  if (options.json) answer(options, [], { keys: keys.map(([key, act]) => ({ key, command: act })) });
  else if (keys.length === 0) answerWith(options, "keys", answers.noKeys);
  else for (const [key, act] of keys) print(`${answers.key({ key, act })}\n`);
}
