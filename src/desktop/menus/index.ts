import { existsSync } from "node:fs";
import { DrawerError, reasonOf } from "../../content/error.js";
import { desktopErrors } from "../../messages/en/desktop.js";
import { freedesktop } from "./freedesktop.js";
import { macos } from "./macos.js";
import type { Menu, MenuPlace, MenuProgram } from "./menu.js";
import { windows } from "./windows.js";

const MENUS: Readonly<Partial<Record<NodeJS.Platform, Menu>>> = {
  linux: freedesktop,
  freebsd: freedesktop,
  darwin: macos,
  win32: windows,
};

/**
 * Puts a program into the menu of the system, or among what is started when one logs in; takes out what stood there before. Returns
 * where it stands now.
 * @param system the system, where it is not the one here
 * @throws DrawerError `no-menu` where it cannot be written, or the system has none that is known
 */
export async function addToMenu(
  place: MenuPlace,
  program: MenuProgram,
  system: NodeJS.Platform = process.platform,
): Promise<string> {
  return inMenu(system, (menu) => menu.add(place, program));
}

/**
 * Takes a program out of there again. Returns where it stood.
 * @param system the system, where it is not the one here
 * @throws DrawerError `no-menu` where it cannot be written, or the system has none that is known
 */
export async function removeFromMenu(
  place: MenuPlace,
  system: NodeJS.Platform = process.platform,
): Promise<string> {
  return inMenu(system, (menu) => menu.remove(place));
}

/**
 * Whether a program stands there.
 * @param system the system, where it is not the one here
 */
export function isInMenu(place: MenuPlace, system: NodeJS.Platform = process.platform): boolean {
  const menu = MENUS[system];
  return menu !== undefined && existsSync(menu.where(place));
}

async function inMenu(system: NodeJS.Platform, act: (menu: Menu) => Promise<string>): Promise<string> {
  const menu = MENUS[system];
  if (!menu) throw new DrawerError(desktopErrors, "no-menu", { system });
  try {
    return await act(menu);
  } catch (error) {
    throw new DrawerError(desktopErrors, "no-menu/failed", { why: reasonOf(error) }, { cause: error });
  }
}
