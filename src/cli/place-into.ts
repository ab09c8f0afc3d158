import { basename } from "node:path";
import type { Recipe } from "../compose/recipe.js";
import { defined } from "../content/defined.js";
import { notice, type Notice } from "../content/notice.js";
import type { Drawer } from "../drawer/drawer.js";
import { putInto, type PutOptions } from "../files/edit.js";
import { PUTS, type Put } from "../formats/edit.js";
import { cliNotices } from "../messages/en/cli.js";
import { answer, type CommonOptions } from "./answer.js";
import { blockOf } from "./block-output.js";
import { fileToEdit, type FileToEdit } from "./edited-file.js";
import { changeFile } from "./file-acts.js";
import { withDrawer } from "./home.js";
import { writeNewFile } from "./output.js";
import { recipeOf, type RecipeOptions } from "./recipe-options.js";
import { UsageError } from "./refusal.js";

interface PlaceIntoOptions extends CommonOptions, RecipeOptions {
  readonly recipe?: string;
  readonly at?: string;
  readonly put?: string;
  readonly to?: string;
  readonly track?: boolean;
  readonly overwrite?: boolean;
}

/** Where in a file a block goes. */
export interface PutWhere {
  readonly spot: string;
  readonly put?: Put;
  /** Whether it is marked as a change, for somebody to accept. */
  readonly track?: boolean;
}

/** Puts the block of a pick into a file that is there, so that undo puts the file back. */
export async function putPick(
  drawer: Drawer,
  file: FileToEdit,
  { pick, recipe }: { readonly pick: string; readonly recipe: Recipe },
  where: PutWhere,
): Promise<readonly Notice[]> {
  const { block, count, notices } = await blockOf(drawer, pick, recipe, undefined);
  const edited = await putInto(file.bytes, file.name, where.spot, block, howToPut(where, recipe));
  await changeFile(file, edited.data, { drawer: drawer.name, act: "put", spots: [where.spot] });
  return [toldOfPut(count, file.name, where), ...notices, ...block.notices, ...edited.notices];
}

function howToPut({ put, track }: PutWhere, { style = "own" }: Recipe): PutOptions {
  return { ...defined({ put, track }), style };
}

function toldOfPut(count: number, file: string, { spot, put }: PutWhere): Notice {
  const side = put ?? (/^[plst]\d+(\.\.[pl]?\d+)?$/.test(spot) ? "after" : "at");
  return notice(cliNotices, "placed/into", { count, file, spot, put: side });
}

/** `drawer place PICK --into FILE --at SPOT`: puts a block into a file that is there, or into a copy of it. */
export async function placeInto(pick: string, path: string, options: PlaceIntoOptions): Promise<void> {
  const { at: spot, to, track, drawer: name } = options;
  if (spot === undefined) throw new UsageError("bad-option/into", {});
  const put = options.put === undefined ? undefined : putNamed(options.put);
  const recipe = recipeOf(options);
  const { block, count, isPrivate, notices } = await withDrawer(name, (drawer) =>
    blockOf(drawer, pick, recipe, options.recipe),
  );
  const file = await fileToEdit(path);
  const where = { spot, ...defined({ put, track }) };
  const edited = await putInto(file.bytes, file.name, spot, block, howToPut(where, recipe));
  if (to === undefined) await changeFile(file, edited.data, { drawer: name, act: "put", spots: [spot] });
  else await writeNewFile(to, edited.data, { overwrite: options.overwrite ?? false, isPrivate });
  const told = [
    to === undefined
      ? toldOfPut(count, file.name, where)
      : notice(cliNotices, "placed/into-new", { count, file: basename(path), path: to }),
    ...notices,
    ...block.notices,
    ...edited.notices,
  ];
  if (options.json) answer(options, told, { into: path, at: spot, ...defined({ to }) });
  else answer(options, told);
}

/**
 * Where a block goes, as it was typed.
 * @throws UsageError `bad-option`
 */
function putNamed(typed: string): Put {
  const found = PUTS.find((put) => put === typed);
  if (found) return found;
  throw new UsageError("bad-option/put", { put: typed });
}
