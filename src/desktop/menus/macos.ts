import { rm } from "node:fs/promises";
import { homedir } from "node:os";
import { join } from "node:path";
import { NAME, put, type Menu, type MenuPlace } from "./menu.js";

/** The menu of macOS: a small application in the user's folder (Bundle Programming Guide), and a launch agent (launchd.plist). */
export const macos: Menu = {
  async add(place, { name, command, icon }) {
    const run = command.map((word) => `'${word.replaceAll("'", "'\\''")}'`).join(" ");
    if (place === "login") {
      const file = whereIs(place);
      const words = command.map((word) => `<string>${escaped(word)}</string>`).join("");
      await put(
        file,
        plist(`<key>Label</key><string>${NAME}</string><key>RunAtLoad</key><true/>
<key>ProgramArguments</key><array>${words}</array>`),
      );
      return file;
    }
    const folder = whereIs(place);
    await put(join(folder, "Contents", "MacOS", NAME), `#!/bin/sh\nexec ${run}\n`, 0o755);
    await put(join(folder, "Contents", "Resources", `${NAME}.svg`), icon);
    await put(
      join(folder, "Contents", "Info.plist"),
      plist(`<key>CFBundleName</key><string>${escaped(name)}</string>
<key>CFBundleExecutable</key><string>${NAME}</string><key>CFBundlePackageType</key><string>APPL</string>`),
    );
    return folder;
  },
  async remove(place) {
    await rm(whereIs(place), { recursive: true, force: true });
    return whereIs(place);
  },
  where: whereIs,
};

function whereIs(place: MenuPlace): string {
  return place === "login"
    ? join(homedir(), "Library", "LaunchAgents", `${NAME}.plist`)
    : join(homedir(), "Applications", "Drawer.app");
}

function plist(entries: string): string {
  return `<?xml version="1.0" encoding="UTF-8"?>
<!DOCTYPE plist PUBLIC "-//Apple//DTD PLIST 1.0//EN" "http://www.apple.com/DTDs/PropertyList-1.0.dtd">
<plist version="1.0"><dict>${entries}</dict></plist>
`;
}

function escaped(text: string): string {
  return text.replace(/&/g, "&amp;").replace(/</g, "&lt;").replace(/>/g, "&gt;");
}
