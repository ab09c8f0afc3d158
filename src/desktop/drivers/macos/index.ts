import { defined } from "../../../content/defined.js";
import type { Chord } from "../../chord.js";
import type { Desktop, Offered } from "../../desktop.js";
import { OWN, RICH_TEXT, SECRET_HINT } from "../../forms.js";
import { ProgramDesktop, type Snapshot } from "../program-desktop.js";
import type { WindowEvent } from "../program-windows.js";
import { readLines, runProgram, talkWith, type Program } from "../program.js";
import { SCRIPT } from "./script.js";

const OSASCRIPT: Program = {
  name: "osascript",
  hint: "It belongs to macOS; look whether this program may run it.",
};

/** What the pasteboard calls each form (uniform type identifiers; nspasteboard.org for what is a secret). */
const TYPES: ReadonlyMap<string, string> = new Map([
  ["text/html", "public.html"],
  ["text/tab-separated-values", "public.utf8-tab-separated-values-text"],
  [RICH_TEXT, "public.rtf"],
  ["text/plain", "public.utf8-plain-text"],
  ["text/uri-list", "public.url"],
  ["image/png", "public.png"],
  ["image/jpeg", "public.jpeg"],
  ["chromium/x-source-url", "org.chromium.source-url"],
  [SECRET_HINT, "org.nspasteboard.ConcealedType"],
  [OWN, "drawer.block"],
]);

/** What the script says of the pasteboard: each type in base64, and the program in front. */
interface Said {
  readonly types: Readonly<Record<string, string>>;
  readonly app?: string;
}

/** The desktop of macOS: its pasteboard, by `osascript` and JavaScript for Automation. */
export function openMacos(): Desktop {
  const words = (act: string, ...more: string[]) => ["-l", "JavaScript", "-e", SCRIPT, act, ...more];
  const wanted = JSON.stringify([...TYPES.values()]);
  const offer = async (offered: Offered) => {
    const types: Record<string, string> = {};
    // They are put there one by one: what says that it is Drawer's own comes first, so that nobody who reads between collects it.
    for (const [type, bytes] of [[OWN, new Uint8Array()] as const, ...offered]) {
      const name = TYPES.get(type);
      if (name !== undefined) types[name] = Buffer.from(bytes).toString("base64");
    }
    // What is empty takes the clipboard off.
    await runProgram(OSASCRIPT, words("offer"), JSON.stringify(offered.size === 0 ? {} : types));
  };
  return new ProgramDesktop({
    declaresSecrets: true,
    tellsStanding: false,
    async read() {
      const said = await runProgram(OSASCRIPT, words("read", wanted));
      return snapshotOf(said.toString("utf8"));
    },
    watch: (changed) => readLines(OSASCRIPT, words("watch", wanted), (line) => changed(snapshotOf(line))),
    offer,
    async notify(text) {
      await runProgram(OSASCRIPT, words("notify", text));
    },
    windows: {
      paste: { modifiers: ["Ctrl"], key: "v" },
      keyOf,
      talk: () => talkWith(OSASCRIPT, words("windows")),
      follow: (hear) =>
        readLines(OSASCRIPT, words("follow"), (line) => hear(JSON.parse(line) as WindowEvent)),
      offer,
      async everything() {
        const said = (await runProgram(OSASCRIPT, words("everything"))).toString("utf8");
        return {
          isWhole: true,
          putBack: async () => void (await runProgram(OSASCRIPT, words("offer"), withOwn(said))),
        };
      },
    },
  });
}

/** What stood on the pasteboard, with what says that Drawer has put it there, so that nobody collects it. */
function withOwn(json: string): string {
  const types = JSON.parse(json) as Record<string, string>;
  return JSON.stringify(Object.keys(types).length === 0 ? {} : { [TYPES.get(OWN)!]: "", ...types });
}

/** Keys that type nothing, by their virtual key codes (HIToolbox, Events.h). */
const CODES: Readonly<Record<string, number>> = {
  Tab: 48,
  Enter: 36,
  Down: 125,
  Right: 124,
  Up: 126,
  Left: 123,
};
/** What is held, as System Events calls it; what programs here do with Command, others do with Control. */
const HELD = {
  Ctrl: "command down",
  Alt: "option down",
  Shift: "shift down",
  Super: "control down",
} as const;

/** A key as System Events is told it. */
function keyOf({ key, modifiers }: Chord): object {
  return { key, ...defined({ code: CODES[key] }), held: modifiers.map((modifier) => HELD[modifier]) };
}

function snapshotOf(json: string): Snapshot {
  const { types, app } = JSON.parse(json) as Said;
  const forms = new Map<string, Uint8Array>();
  for (const [type, name] of TYPES) {
    const bytes = types[name];
    if (bytes === undefined) continue;
    // On this system that it is a secret is said by the type alone.
    const content = type === SECRET_HINT ? Buffer.from("secret") : Buffer.from(bytes, "base64");
    forms.set(type, new Uint8Array(content));
  }
  return { forms, origin: app === undefined ? {} : { app } };
}
