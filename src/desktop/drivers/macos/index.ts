import type { Desktop } from "../../desktop.js";
import { OWN, SECRET_HINT } from "../../forms.js";
import { ProgramDesktop, type Snapshot } from "../program-desktop.js";
import { readLines, runProgram, type Program } from "../program.js";
import { SCRIPT } from "./script.js";

const OSASCRIPT: Program = {
  name: "osascript",
  hint: "It belongs to macOS; look whether this program may run it.",
};

/** What the pasteboard calls each form (uniform type identifiers; nspasteboard.org for what is a secret). */
const TYPES: ReadonlyMap<string, string> = new Map([
  ["text/html", "public.html"],
  ["text/tab-separated-values", "public.utf8-tab-separated-values-text"],
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
  return new ProgramDesktop({
    declaresSecrets: true,
    tellsStanding: false,
    async read() {
      const said = await runProgram(OSASCRIPT, words("read", wanted));
      return snapshotOf(said.toString("utf8"));
    },
    watch: (changed) => readLines(OSASCRIPT, words("watch", wanted), (line) => changed(snapshotOf(line))),
    async offer(offered) {
      const types: Record<string, string> = {};
      for (const [type, bytes] of [...offered, [OWN, new Uint8Array()] as const]) {
        const name = TYPES.get(type);
        if (name !== undefined) types[name] = Buffer.from(bytes).toString("base64");
      }
      // What is empty takes the clipboard off.
      await runProgram(OSASCRIPT, words("offer"), JSON.stringify(offered.size === 0 ? {} : types));
    },
    async notify(text) {
      await runProgram(OSASCRIPT, words("notify", text));
    },
  });
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
