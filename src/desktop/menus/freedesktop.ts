import { existsSync } from "node:fs";
import { rm } from "node:fs/promises";
import { homedir } from "node:os";
import { join } from "node:path";
import { NAME, put, type Menu, type MenuPlace } from "./menu.js";

/** Menus of freedesktop.org (Desktop Entry 1.5, Desktop Application Autostart, Icon Theme): files in the user's folders. */
export const freedesktop: Menu = {
  async add(place, { name, about, command, icon }) {
    await put(iconFile(), icon);
    const file = desktopFile(place);
    await put(
      file,
      [
        "[Desktop Entry]",
        "Type=Application",
        "Version=1.5",
        `Name=${name}`,
        `Comment=${about}`,
        `Exec=${command.map(quotedForExec).join(" ")}`,
        `Icon=${NAME}`,
        "Terminal=false",
        "Categories=Office;Utility;",
        "Keywords=clipboard;snippets;collect;",
        "",
      ].join("\n"),
    );
    return file;
  },
  async remove(place) {
    await rm(desktopFile(place), { force: true });
    // The entries share it.
    if (!existsSync(desktopFile("menu")) && !existsSync(desktopFile("login")))
      await rm(iconFile(), { force: true });
    return desktopFile(place);
  },
  where: desktopFile,
};

function dataFolder(): string {
  return process.env["XDG_DATA_HOME"] || join(homedir(), ".local", "share");
}

function iconFile(): string {
  return join(dataFolder(), "icons", "hicolor", "scalable", "apps", `${NAME}.svg`);
}

function desktopFile(place: MenuPlace): string {
  const folder =
    place === "menu"
      ? join(dataFolder(), "applications")
      : join(process.env["XDG_CONFIG_HOME"] || join(homedir(), ".config"), "autostart");
  return join(folder, `${NAME}.desktop`);
}

/** A word of a command as the key Exec has it: in double quotes, what has a meaning there escaped twice, percent signs doubled. */
function quotedForExec(word: string): string {
  return `"${word
    .replace(/[\\"`$]/g, (sign) => `\\${sign}`)
    .replace(/\\/g, "\\\\")
    .replace(/%/g, "%%")}"`;
}
