import type { Command } from "commander";
import { answers } from "../../messages/en/cli-answers.js";
import { answer, answerWith, type CommonOptions } from "../answer.js";
import { begin } from "../command.js";
import { withDrawer } from "../home.js";
import { changeKeys, parseKey, readKeys } from "../keys.js";
import { print } from "../terminal.js";

/** `drawer keys [KEY=COMMAND…]`: the user's own keys, which work in every program while `drawer watch` runs. */
export function add(program: Command): void {
  begin(program, "keys").action(async (typed: readonly string[], options: CommonOptions) => {
    if (typed.length === 0) return list(options);
    const set = await Promise.all(typed.map(parseKey));
    // The home is made ready by the first drawer in it.
    const changed = await withDrawer(options.drawer, () => changeKeys(set));
    answer(options, changed);
  });
}

function list(options: CommonOptions): void {
  const keys = Object.entries(readKeys());
  if (options.json) answer(options, [], { keys: keys.map(([key, act]) => ({ key, command: act })) });
  else if (keys.length === 0) answerWith(options, "keys", answers.noKeys);
  else for (const [key, act] of keys) print(`${answers.key({ key, act })}\n`);
}
