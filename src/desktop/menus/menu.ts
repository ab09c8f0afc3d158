import { mkdir, writeFile } from "node:fs/promises";
import { dirname } from "node:path";

/** Where a program is started from by a person, or by the system when they log in. */
export type MenuPlace = "menu" | "login";

/** A program as it stands in a menu. */
export interface MenuProgram {
  /** What it is called, and what it is for. */
  readonly name: string;
  readonly about: string;
  /** The program and its words. */
  readonly command: readonly string[];
  /** Its icon: SVG, and the same as a PNG, for systems that take no SVG. */
  readonly icon: string;
}

/** What a system's menu is reached by: by files in the user's folders, or by a program of the system. */
export interface Menu {
  /** Puts an entry there. Returns where it stands. */
  add(place: MenuPlace, program: MenuProgram): Promise<string>;
  /** Takes it out again. Returns where it stood. */
  remove(place: MenuPlace): Promise<string>;
  /** Where it stands, or would stand. */
  where(place: MenuPlace): string;
}

/** The name of the files that an entry is made of. */
export const NAME = "drawer-window";

/** Writes a file, and the folders that lead to it. */
export async function put(path: string, content: string, mode = 0o644): Promise<void> {
  await mkdir(dirname(path), { recursive: true });
  await writeFile(path, content, { mode });
}
