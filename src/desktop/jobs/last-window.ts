import { readFile, rename, rm, writeFile } from "node:fs/promises";
import type { Desktop, DesktopWindow } from "../desktop.js";

/** Notes the window in front as the one in which a block was pasted last. */
export async function noteWindow(desktop: Desktop, path: string): Promise<void> {
  const window = await desktop.windows?.front();
  if (!window) return;
  const draft = `${path}.${process.pid}`;
  try {
    await writeFile(draft, JSON.stringify({ display: process.env["DISPLAY"], ...window }), { mode: 0o600 });
    await rename(draft, path);
  } finally {
    await rm(draft, { force: true });
  }
}

/** The window in which a block was pasted last on this desktop; nothing when none was. */
export async function notedWindow(path: string): Promise<DesktopWindow | undefined> {
  try {
    const { display, ...window } = JSON.parse(await readFile(path, "utf8")) as DesktopWindow & {
      display?: string;
    };
    return display === process.env["DISPLAY"] ? window : undefined;
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === "ENOENT" || error instanceof SyntaxError) return undefined;
    throw error;
  }
}
