import { execFile } from "node:child_process";
import { mkdir, rm } from "node:fs/promises";
import { homedir } from "node:os";
import { dirname, join } from "node:path";
import { promisify } from "node:util";
import type { Menu, MenuPlace } from "./menu.js";

/** The Start menu of Windows, and what starts with it: links in the user's folders (WScript.Shell, CreateShortcut). */
export const windows: Menu = {
  async add(place, { about, command }) {
    const [program = "", ...words] = command;
    const script = `$link = (New-Object -ComObject WScript.Shell).CreateShortcut($env:DRAWER_LINK)
$link.TargetPath = $env:DRAWER_PROGRAM
$link.Arguments = $env:DRAWER_WORDS
$link.Description = $env:DRAWER_ABOUT
$link.WindowStyle = 7
$link.Save()`;
    const path = linkFile(place);
    await mkdir(dirname(path), { recursive: true });
    // What stands in the environment needs no quoting for the script.
    await promisify(execFile)(
      "powershell.exe",
      [
        "-NoLogo",
        "-NoProfile",
        "-NonInteractive",
        "-EncodedCommand",
        Buffer.from(script, "utf16le").toString("base64"),
      ],
      {
        env: {
          ...process.env,
          DRAWER_LINK: path,
          DRAWER_PROGRAM: program,
          DRAWER_WORDS: words.map((word) => `"${word}"`).join(" "),
          DRAWER_ABOUT: about,
        },
      },
    );
    return path;
  },
  async remove(place) {
    await rm(linkFile(place), { force: true });
    return linkFile(place);
  },
  where: linkFile,
};

function linkFile(place: MenuPlace): string {
  const programs = join(
    process.env["APPDATA"] ?? homedir(),
    "Microsoft",
    "Windows",
    "Start Menu",
    "Programs",
  );
  return join(programs, ...(place === "login" ? ["Startup"] : []), "Drawer.lnk");
}
