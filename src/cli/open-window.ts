import { randomBytes } from "node:crypto";
import { existsSync } from "node:fs";
import { readFile, rm, writeFile } from "node:fs/promises";
import { delimiter, join } from "node:path";
import open, { apps, openApp } from "open";
import { isSame, proofOf } from "../window/guard.js";
import { home } from "./home-folder.js";

/** The note of a window that is open: where it is served, and the secret by which this user's programs know each other. */
interface Note {
  readonly port: number;
  readonly secret: string;
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

/**
 * The address of a window that is open already, with a new key; nothing when there is none. What listens on the port proves
 * that it is that window before it is believed, as another program may have taken the port since.
 */
export async function addressOfOpen(): Promise<string | undefined> {
  const note = await readNote();
  if (!note) return undefined;
  const nonce = randomBytes(16).toString("base64url");
  try {
    const response = await fetch(`http://127.0.0.1:${note.port}/again`, {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: JSON.stringify({ nonce, proof: proofOf(note.secret, "asks", nonce) }),
      signal: AbortSignal.timeout(3000),
    });
    const { address = "", proof = "" } = (await response.json()) as { address?: string; proof?: string };
    return isSame(proof, proofOf(note.secret, "answers", nonce, address)) ? address : undefined;
  } catch {
    // Nobody listens there, or somebody who speaks another language: that window is gone.
    return undefined;
  }
}

/** How the window stands at first: a strip beside one's programs. */
const SIZE = "--window-size=440,900";

/**
 * Opens an address in a window of its own, without the bars of a browser, where there is one that can; else in the user's
 * browser. Settles when it was started.
 */
export async function openBrowser(address: string): Promise<void> {
  const name = appBrowser();
  if (name !== undefined) await openApp(name, { arguments: [`--app=${address}`, SIZE] });
  else await open(address);
}

/** A browser that can show a page in a window of its own; nothing where none is known. */
function appBrowser(): string | undefined {
  const names = [apps.chrome, apps.edge].flat();
  if (process.platform !== "linux") return names[0];
  const folders = (process.env["PATH"] ?? "").split(delimiter);
  return names.find((name) => folders.some((folder) => existsSync(join(folder, name))));
}
