import type { Block } from "../../compose/block.js";
import type { Notice } from "../../content/notice.js";
import { formatOf, WRITTEN_FORMATS, type FormatName } from "../../formats/registry.js";
import { composer as words } from "../../messages/core/composer-sentences.js";
import { actMenu } from "./act-menu.js";
import type { DrawerHost } from "./drawer-host.js";
import { saveFile } from "./save-file.js";

/** A choice of what a block, or its snippets, are saved as. */
export function fileChoice(isOff: boolean, save: (choice: FormatName | "drawer") => void) {
  const formats = WRITTEN_FORMATS.map((name) => [name, formatOf(name).extensions[0]!] as const);
  return actMenu(words.acts.file, [...formats, ["drawer", words.acts.export]], save, { isOff });
}

/** Saves a block as a file of some format. */
export async function saveBlock(block: Block, format: FormatName, name: string): Promise<readonly Notice[]> {
  const { data, notices } = await block.to(format);
  const { mediaType, extensions } = formatOf(format);
  saveFile(data, { name: `${name}.${extensions[0]}`, type: mediaType });
  return notices;
}

/** Saves snippets as a drawer file. */
export async function exportSnippets(
  host: DrawerHost,
  pick: string,
  count: number,
): Promise<readonly Notice[]> {
  const { drawer } = host.viewModel!;
  const { lines, notices } = drawer.exportFile(pick);
  const text: string[] = [];
  try {
    for await (const line of lines) {
      text.push(`${line}\n`);
      // The first line is of the file itself.
      host.showProgress("exporting", text.length - 1, count);
    }
  } finally {
    host.showProgress(undefined);
  }
  saveFile(text.join(""), { name: `${drawer.name}.drawer`, type: "application/jsonl" });
  return notices;
}
