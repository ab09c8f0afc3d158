import { DrawerError } from "../../../content/error.js";
import type { Desktop, Offered } from "../../desktop.js";
import { OWN, readForms } from "../../forms.js";
import { notify } from "../../notify.js";
import { ProgramDesktop, type Snapshot } from "../program-desktop.js";
import { readLines, runProgram, type Program } from "../program.js";

const hint = "Install the package wl-clipboard.";
const PASTE: Program = { name: "wl-paste", hint };
const COPY: Program = { name: "wl-copy", hint };

/** What `wl-copy` calls text that is Drawer's own: it offers all that begins so under the usual names of text too. */
const OWN_TEXT = "text/x-drawer-block";
/** What `wl-paste` says when nothing was copied. */
const NOTHING = /nothing is copied|no selection/i;

/**
 * The desktop of a Wayland compositor where there is no XWayland, by `wl-paste` and `wl-copy` of the package wl-clipboard.
 * `wl-copy` offers one form: of a lone picture the picture, of everything else the text, which every program takes. Nothing
 * can be declared a secret with it.
 */
export function openWayland(): Desktop {
  return new ProgramDesktop({
    declaresSecrets: false,
    tellsStanding: true,
    read,
    watch: (changed) => readLines(PASTE, ["--watch", "echo", "changed"], () => changed()),
    offer,
    notify,
  });
}

async function read(): Promise<Snapshot> {
  const types = (await listed()).split("\n").map((type) => type.trim());
  const forms = await readForms(
    types,
    async (type) => new Uint8Array(await runProgram(PASTE, ["--no-newline", "--type", type])),
  );
  if (types.includes(OWN_TEXT)) forms.set(OWN, new Uint8Array());
  return { forms, origin: {} };
}

/** The types that are offered, one a line; none when nothing was copied. */
async function listed(): Promise<string> {
  try {
    return (await runProgram(PASTE, ["--list-types"])).toString("utf8");
  } catch (error) {
    const isEmpty = error instanceof DrawerError && NOTHING.test(error.message);
    if (isEmpty) return "";
    throw error;
  }
}

async function offer(offered: Offered): Promise<void> {
  if (offered.size === 0) return void (await runProgram(COPY, ["--clear"]));
  const [best] = offered.keys();
  const isPicture = best!.startsWith("image/");
  const bytes = offered.get(isPicture ? best! : "text/plain")!;
  await runProgram(COPY, ["--type", isPicture ? best! : OWN_TEXT], bytes, true);
}
