import type { Command } from "commander";
import type { Notice } from "../content/notice.js";
import type { Drawer } from "../drawer/drawer.js";
import { commands } from "../messages/en/cli-help.js";
import { act } from "./act.js";
import { type CommonOptions } from "./answer.js";
import { begin } from "./command.js";

/** What a drawer does with the snippets of a pick, and what it has to say of it. */
type PickAction = (drawer: Drawer, pick: string) => Promise<readonly Notice[]>;

/** Commands that hand a pick on; with `not`, what `--not` does. */
const PICK_COMMANDS = {
  keep: { does: (drawer, pick) => drawer.keep(pick), not: (drawer, pick) => drawer.release(pick) },
  discard: { does: (drawer, pick) => drawer.discard(pick) },
  restore: { does: (drawer, pick) => drawer.restore(pick) },
} satisfies Readonly<Record<string, { readonly does: PickAction; readonly not?: PickAction }>>;

/** Commands that do something with the drawer as a whole. */
const DRAWER_COMMANDS = {
  undo: async (drawer) => (await import("./file-acts.js")).undoLast(drawer),
  redo: async (drawer) => (await import("./file-acts.js")).redoLast(drawer),
  pause: (drawer) => drawer.setRules({ collecting: false }),
  resume: (drawer) => drawer.setRules({ collecting: true }),
} satisfies Readonly<Record<string, (drawer: Drawer) => Promise<readonly Notice[]>>>;

/** A command that hands a pick on, and says what comes back. */
export function pickCommand(name: keyof typeof PICK_COMMANDS): { add(program: Command): void } {
  return {
    add(program: Command): void {
      const { does, not }: { readonly does: PickAction; readonly not?: PickAction } = PICK_COMMANDS[name];
      const command = begin(program, name);
      const says: { readonly about: string; readonly not?: string } = commands[name];
      if (not) command.option("--not", says.not);
      command.action(async (pick: readonly string[], options: CommonOptions & { not?: boolean }) => {
        const action = options.not ? not! : does;
        await act(options, (drawer) => action(drawer, pick.join(" ")));
      });
    },
  };
}

/** A command that does something with the drawer as a whole. */
export function drawerCommand(name: keyof typeof DRAWER_COMMANDS): { add(program: Command): void } {
  return {
    add(program: Command): void {
      begin(program, name).action(async (options: CommonOptions) => {
        await act(options, DRAWER_COMMANDS[name]);
      });
    },
  };
}
