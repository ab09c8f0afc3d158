import type { Command } from "commander";
import type { Suggestion } from "../../compose/suggest.js";
import { defined } from "../../content/defined.js";
import { kindOf } from "../../content/kind.js";
import { notice } from "../../content/notice.js";
import { picturesNotDrawn } from "../../formats/left-out.js";
import { formatOf, WRITTEN_FORMATS } from "../../formats/registry.js";
import { answers, asked } from "../../messages/en/cli-answers.js";
import { commands } from "../../messages/en/cli-help.js";
import { cliNotices } from "../../messages/en/cli.js";
import { drawerNotices } from "../../messages/en/drawer.js";
import { plain, type CommonOptions } from "../answer.js";
import { blockOf, outputFormat, titleOf } from "../block-output.js";
import { begin } from "../command.js";
import { CLIPBOARD } from "../deal-to-clipboard.js";
import { windowFile } from "../home-folder.js";
import { withDrawer } from "../home.js";
import { STANDARD } from "../input.js";
import { writeNewFile } from "../output.js";
import { placeInto } from "../place-into.js";
import { addRecipeOptions, recipeOf, type RecipeOptions } from "../recipe-options.js";
import { UsageError } from "../refusal.js";
import { print, printJson, printWhole, remark } from "../terminal.js";

interface PlaceOptions extends CommonOptions, RecipeOptions {
  readonly recipe?: string;
  readonly out?: string;
  readonly to?: string;
  readonly into?: string;
  readonly at?: string;
  readonly put?: string;
  readonly track?: boolean;
  readonly overwrite?: boolean;
  readonly guard: boolean;
  readonly bom?: boolean;
}

/** `drawer place PICK`: makes a block of snippets and puts it on standard output, into a new file, or on the clipboard. */
export function add(program: Command): void {
  const says = commands.place;
  addRecipeOptions(begin(program, "place"))
    .option("--recipe <name>", says.recipe)
    .option("--out <format>", says.out(WRITTEN_FORMATS))
    .option("--to <file>", says.to)
    .option("--no-guard", says.guard)
    .option("--bom", says.bom)
    .option("--into <file>", says.into)
    .option("--at <spot>", says.at)
    .option("--put <where>", says.put)
    .option("--track", says.track)
    .option("--overwrite", says.overwrite)
    .action(async (pick: readonly string[], options: PlaceOptions) => {
      if (options.into !== undefined) return placeInto(pick.join(" "), options.into, options);
      if (options.at !== undefined || options.put !== undefined || options.track)
        throw new UsageError("bad-option/into-only", {});
      const to = options.to === STANDARD ? undefined : options.to;
      const isForClipboard = to === CLIPBOARD;
      const recipe = recipeOf(options);
      if (isForClipboard && options.out !== undefined) throw new UsageError("bad-option/clipboard-out", {});
      const file = isForClipboard ? undefined : to;
      const format = outputFormat(options.out, file);
      if (formatOf(format).isBinary && to === undefined && !options.json && process.stdout.isTTY)
        throw new UsageError("bad-option/terminal", { format });
      if (options.bom && formatOf(format).holds !== "rows")
        throw new UsageError("bad-option/bom", { format });
      const {
        block,
        count,
        isPrivate,
        suggest,
        notices: leftOut,
      } = await withDrawer(options.drawer, (drawer) =>
        blockOf(drawer, pick.join(" "), recipe, options.recipe),
      );
      const notices = [...leftOut, ...block.notices];
      let made: object = {};
      if (isForClipboard) {
        const { holdOnClipboard, offeredBlock, openDesktop } = await import("../../desktop/index.js");
        await holdOnClipboard(offeredBlock(block, isPrivate), windowFile());
        notices.unshift(notice(cliNotices, "placed/clipboard", { count }));
        const desktop = isPrivate ? await openDesktop() : undefined;
        if (desktop && !desktop.declaresSecrets) notices.push(notice(drawerNotices, "placed/not-secret", {}));
        desktop?.close();
        // One alone is offered as it is.
        if (kindOf(block.content) !== "picture") notices.push(...picturesNotDrawn(block.content));
        made = { to: CLIPBOARD };
      } else {
        const written = await block.to(format, {
          ...(file !== undefined && { title: titleOf(file) }),
          guard: options.guard,
          ...defined({ locale: options.locale, bom: options.bom }),
        });
        notices.push(...written.notices);
        if (file !== undefined) {
          await writeNewFile(file, written.data, {
            overwrite: options.overwrite ?? false,
            isPrivate,
          });
          notices.unshift(notice(cliNotices, "placed", { count, path: file }));
          made = { to: file, block: { format } };
        } else if (!options.json) await printWhole(written.data);
        else if (options.out !== undefined) made = { block: { format, ...asJson(written.data) } };
        else made = { block: { format, text: block.text, html: block.html, markdown: block.markdown } };
      }
      // Offered to people at work, and to no program.
      const suggestion = process.stderr.isTTY && !options.json ? suggest() : undefined;
      if (suggestion) remark(`${hint(suggestion)}\n`);
      if (options.json) printJson({ ...made, notices: plain(notices) });
      else for (const { message } of notices) (to === undefined ? remark : print)(message + "\n");
    });
}

/** What would do as the pieces ask, as one would type it. */
function hint({ name, recipe }: Suggestion): string {
  const added = recipe.tidy?.at(-1);
  const isLayout = name === "link" || name === "table" || name === "cells";
  return answers.hint({ does: asked[name], say: isLayout ? `--as ${recipe.as}` : `--tidy ${added}` });
}

/** What was written, as JSON can hold it: text as it is, bytes in base64. */
function asJson(data: string | Uint8Array): { text: string } | { data: string } {
  return typeof data === "string" ? { text: data } : { data: Buffer.from(data).toString("base64") };
}
