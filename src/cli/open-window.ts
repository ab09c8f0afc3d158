import { randomBytes } from "node:crypto";
import { existsSync, realpathSync } from "node:fs";
import { readFile, rm, writeFile } from "node:fs/promises";
import { homedir } from "node:os";
import { delimiter, join } from "node:path";
import open, { apps, openApp } from "open";
import { writeEntryPage } from "../window/entry-page.js";
import { isSame, proofOf } from "../window/guard.js";
import { home } from "./home-folder.js";

/** The note of a window that is open. */
interface Note {
  /** Where it is served. */
  readonly port: number;
  /** The secret by which this user's programs know each other. */
  readonly secret: string;
  /** The folder in which pages stand that lead a browser there; the window takes them away. */
  readonly entryFolder: string;
}

function notePath(): string {
  return join(home(), "open.json");
}

/** Notes that a window is open. Returns what takes the note away. */
export async function noteOpen(note: Note): Promise<() => Promise<void>> {
  await writeFile(notePath(), JSON.stringify(note), { mode: 0o600 });
  return async () => {
    const now = await readNote();
    if (now?.secret === note.secret) await rm(notePath(), { force: true });
  };
}

async function readNote(): Promise<Note | undefined> {
  try {
    return JSON.parse(await readFile(notePath(), "utf8")) as Note;
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === "ENOENT" || error instanceof SyntaxError) return undefined;
    throw error;
  }
}

/** A way into a window: its address, with a key, and the folder for the page that leads a browser there. */
export interface WayIn {
  /** Empty when a window that was open has come to the front. */
  readonly address: string;
  readonly entryFolder: string;
}

/**
 * The way into a window that is open already, with a new key; nothing when there is none. What listens on the port proves
 * that it is that window before it is believed, as another program may have taken the port since.
 * @param shows whether a page of it that is open is to come to the front, where the desktop lets it, in place of a new one
 */
export async function addressOfOpen(shows = false): Promise<WayIn | undefined> {
  const note = await readNote();
  if (!note) return undefined;
  const nonce = randomBytes(16).toString("base64url");
  try {
    const response = await fetch(`http://127.0.0.1:${note.port}/again`, {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: JSON.stringify({ nonce, proof: proofOf(note.secret, "asks", nonce), shows }),
      signal: AbortSignal.timeout(3000),
    });
    const { address = "", proof = "" } = (await response.json()) as { address?: string; proof?: string };
    const isOurs = isSame(proof, proofOf(note.secret, "answers", nonce, address));
    return isOurs ? { address, entryFolder: note.entryFolder } : undefined;
  } catch {
    // Nobody listens there, or somebody who speaks another language: that window is gone.
    return undefined;
  }
}

/** How the window stands at first: a strip beside one's programs. */
const SIZE = "--window-size=440,900";

/**
 * Opens a window's address in a window of its own, without the bars of a browser, where there is one that can; else in the user's
 * browser. Settles when it was started.
 */
export async function openBrowser({ address, entryFolder }: WayIn): Promise<void> {
  const browser = appBrowser();
  const page = await writeEntryPage(address, entryFolder);
  if (browser !== undefined) await openApp(browser.name, { arguments: [`--app=${page}`, SIZE] });
  else await open(page);
}

/** A browser that can show a page in a window of its own, and where it is; nothing where none is known. */
function appBrowser(): { readonly name: string; readonly path?: string } | undefined {
  const names = [apps.chrome, apps.edge].flat();
  if (process.platform !== "linux") return names[0] === undefined ? undefined : { name: names[0] };
  const folders = (process.env["PATH"] ?? "").split(delimiter);
  for (const name of names)
    for (const folder of folders)
      if (existsSync(join(folder, name))) return { name, path: join(folder, name) };
  return undefined;
}

/** Where browsers stand that are shut in, and read none of the user's hidden folders. */
const SHUT_IN = /\/(snap|flatpak)\b/;

/**
 * The folder in which a page stands that leads the browser to the window: that of the drawers, which nobody else can enter; for a
 * browser that is shut in, or that is not known, the one for what is downloaded, or the user's own.
 */
export function chooseEntryFolder(): string {
  if (process.platform !== "linux") return home();
  const path = appBrowser()?.path;
  if (path !== undefined && !SHUT_IN.test(realpathSync(path))) return home();
  const downloads = join(homedir(), "Downloads");
  return existsSync(downloads) ? downloads : homedir();
}
