import { defined } from "../../../content/defined.js";
import { DrawerError } from "../../../content/error.js";
import { desktopErrors } from "../../../messages/en/desktop.js";
import { chordText, type Chord } from "../../chord.js";
import type { Desktop, Offered } from "../../desktop.js";
import { OWN, RICH_TEXT, SECRET_HINT } from "../../forms.js";
import { ProgramDesktop, type Snapshot } from "../program-desktop.js";
import type { WindowEvent } from "../program-windows.js";
import { readLines, runProgram, talkWith, type Program } from "../program.js";
import { readCfHtml, writeCfHtml } from "./cf-html.js";
import { scriptFor } from "./script.js";

const POWERSHELL: Program = {
  name: "powershell.exe",
  hint: "It belongs to Windows; look whether this program may run it.",
};

/** What the clipboard calls each form (standard and registered clipboard formats). */
const FORMATS: ReadonlyMap<string, string> = new Map([
  ["text/html", "HTML Format"],
  [RICH_TEXT, "Rich Text Format"],
  ["text/plain", "UnicodeText"],
  ["image/png", "PNG"],
  ["text/uri-list", "UniformResourceLocatorW"],
  [SECRET_HINT, "ExcludeClipboardContentFromMonitorProcessing"],
  [OWN, "Drawer Block"],
]);

/** The desktop of Windows: its clipboard, by PowerShell. */
export function openWindows(): Desktop {
  // A script in base64 needs no quoting (about_PowerShell.exe).
  const words = (act: Parameters<typeof scriptFor>[0]) => {
    const script = scriptFor(act, { formats: [...FORMATS.values()], process: process.pid });
    const encoded = Buffer.from(script, "utf16le").toString("base64");
    return ["-NoLogo", "-NoProfile", "-NonInteractive", "-STA", "-EncodedCommand", encoded];
  };
  const offerFields = (fields: readonly string[]) =>
    runProgram(POWERSHELL, words("offer"), fields.join("\t"));
  const offer = async (offered: Offered) => {
    const fields: string[] = [];
    for (const [type, bytes] of [...offered, [OWN, new Uint8Array()] as const]) {
      const name = FORMATS.get(type);
      if (name === undefined) continue;
      const content = type === "text/html" ? writeCfHtml(bytes) : bytes;
      fields.push(`${name}=${Buffer.from(content).toString("base64")}`);
    }
    // What is empty takes the clipboard off.
    await offerFields(offered.size === 0 ? [] : fields);
  };
  return new ProgramDesktop({
    declaresSecrets: true,
    tellsStanding: false,
    async read() {
      return snapshotOf((await runProgram(POWERSHELL, words("read"))).toString("utf8"));
    },
    watch: (changed) => readLines(POWERSHELL, words("watch"), (line) => changed(snapshotOf(line))),
    offer,
    async notify(text) {
      await runProgram(POWERSHELL, words("notify"), Buffer.from(text).toString("base64"));
    },
    windows: {
      paste: { modifiers: ["Ctrl"], key: "v" },
      keyOf,
      talk: () => talkWith(POWERSHELL, words("windows")),
      follow: (hear) =>
        readLines(POWERSHELL, words("follow"), (line) => hear(JSON.parse(line) as WindowEvent)),
      offer,
      async everything() {
        const said = (await runProgram(POWERSHELL, words("everything"))).toString("utf8");
        const [left = "0", ...fields] = said.trim().split("\t");
        return {
          isWhole: left === "0",
          // With what says that Drawer has put it there, so that nobody collects it.
          putBack: async () =>
            void (await offerFields(fields.length === 0 ? [] : [...fields, `${FORMATS.get(OWN)!}=`])),
        };
      },
    },
  });
}

/** What is held, and keys that type nothing, as SendKeys has them (System.Windows.Forms.SendKeys). */
const HELD = { Ctrl: "^", Alt: "%", Shift: "+" } as const;

/**
 * A key as SendKeys is told it.
 * @throws DrawerError `bad-key` for one that it does not know
 */
function keyOf(chord: Chord): string {
  const held = chord.modifiers.map((modifier) => {
    if (modifier === "Super")
      throw new DrawerError(desktopErrors, "bad-key/missing", { key: chordText(chord) });
    return HELD[modifier];
  });
  const { key } = chord;
  return held.join("") + (key.length === 1 ? key : `{${key.toUpperCase()}}`);
}

/** What the script says of the clipboard in a line: the application, its title, and each format, in base64. */
function snapshotOf(line: string): Snapshot {
  const [app = "", title = "", ...fields] = line.trim().split("\t");
  const decoded = (base64: string) => Buffer.from(base64, "base64").toString("utf8") || undefined;
  const formats = new Map(fields.map((field) => [field.split("=", 1)[0]!, field.replace(/^[^=]*=/, "")]));
  const forms = new Map<string, Uint8Array>();
  for (const [type, name] of FORMATS) {
    const base64 = formats.get(name);
    if (base64 === undefined) continue;
    const bytes = new Uint8Array(Buffer.from(base64, "base64"));
    if (type === "text/html") {
      const { html, address } = readCfHtml(bytes);
      forms.set(type, html);
      if (address !== undefined) forms.set("chromium/x-source-url", new TextEncoder().encode(address));
      // On this system that it is a secret is said by the format alone.
    } else forms.set(type, type === SECRET_HINT ? new TextEncoder().encode("secret") : bytes);
  }
  return { forms, origin: defined({ app: decoded(app), title: decoded(title) }) };
}
