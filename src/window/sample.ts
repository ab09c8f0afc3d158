import { readFile } from "node:fs/promises";
import { basename, join } from "node:path";
import { Drawer } from "../drawer/drawer.js";
import type { Incoming } from "../drawer/incoming.js";
import type { Store } from "../drawer/store.js";
import { readSource } from "../files/source.js";

/** What the drawer with sample data holds: files of the package, each with its spots; nothing for a whole file. */
const SAMPLE: readonly (readonly [file: string, ...spots: (string | undefined)[]])[] = [
  ["diary.docx", "p3", "t1"],
  ["ringing.xlsx", "Spring!A1:G1", "Spring!A3:G3", "Spring!A5:G5"],
  ["letter.html", "p3"],
  ["costs.csv", undefined],
  ["sketches/tide.png", undefined],
];

/**
 * Fills a drawer with sample data, when there is nothing in it.
 * @param folder where the sample files are
 */
export async function fillWithSample(store: Store, name: string, folder: string): Promise<void> {
  const drawer = new Drawer(store, name);
  if ((await drawer.count()) > 0) return;
  const incoming: Incoming[] = [];
  for (const [file, ...spots] of SAMPLE) {
    const source = await readSource(await readFile(join(folder, file)), basename(file));
    for (const spot of spots) incoming.push(source.at(spot));
  }
  await drawer.collect(incoming);
}
