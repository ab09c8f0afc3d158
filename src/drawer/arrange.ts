import { generateNKeysBetween } from "fractional-indexing";
import { decodeContent, hashBytes, type Hash } from "../content/encode.js";
import { DrawerError } from "../content/error.js";
import type { Notice, NoticeCode } from "../content/notice.js";
import { perform } from "./act.js";
import type { Edit, OperationName } from "./change.js";
import { cleanLabel, contentFacts, secretName } from "./draft.js";
import type { Entry } from "./entry.js";
import { newId } from "./ids.js";
import { positionOf, type Place } from "./pick.js";
import { pickSome, readSnippets, snippetsOf } from "./picking.js";
import { roomAtEnd } from "./room.js";
import { RULES, rulesOf } from "./rules.js";
import { many, naming, said } from "./saying.js";
import type { Positioned, Store } from "./store.js";

/** Moves the snippets of a pick, in the pick's order, before another one or to the end. */
export async function move(
  store: Store,
  drawer: string,
  pick: string,
  before: Place | "end",
): Promise<Notice[]> {
  let message = "";
  await perform(store, drawer, "move", async () => {
    const moving = await pickSome(snippetsOf(store, drawer), pick);
    const { count } = await store.size(drawer);
    const target = before === "end" ? count + 1 : positionOf(before, count, `the drawer “${drawer}”`);
    const ids = new Set(moving.map(({ entry }) => entry.id));
    const offset = Math.max(0, target - 2 - moving.length);
    const near = await store.entries({ drawer, offset, limit: 2 * moving.length + 3 });
    const others = near.filter(({ entry }) => !ids.has(entry.id));
    const left = others.filter(({ position }) => position < target).at(-1);
    const right = others.find(({ position }) => position >= target);
    const orders = generateNKeysBetween(left?.entry.order ?? null, right?.entry.order ?? null, moving.length);
    const first = target - moving.filter(({ position }) => position < target).length;
    message = moving.map(({ entry }, index) => `${said(entry)} is now ${first + index}`).join("; ");
    return {
      edits: moving.map(({ entry }, index) => ({
        id: entry.id,
        before: entry,
        after: { ...entry, order: orders[index]! },
      })),
    };
  });
  return [{ code: "moved", message: `Moved: ${message}.` }];
}

/** Puts the snippets of a pick, or copies of them, at the end of another drawer, by its rules. */
export async function putInto(
  store: Store,
  drawer: string,
  pick: string,
  into: string,
  what: "move" | "copy",
): Promise<Notice[]> {
  if (into === drawer)
    throw new DrawerError("bad-option", `They are in the drawer “${into}” already. Name another one.`);
  let notices: Notice[] = [];
  await perform(store, drawer, what, async () => {
    const going = await pickSome(snippetsOf(store, drawer), pick);
    const secret = going.find(({ entry }) => entry.private);
    if (what === "copy" && secret)
      throw new DrawerError(
        "private",
        `Nothing copied: snippet ${secret.position} is private, and stays by itself.`,
      );
    const { leaving, notices: told, orders, first } = await roomAtEnd(store, into, going);
    const edits = going.map(({ entry }, index): Edit => {
      const own = what === "move" ? entry : copyOf(entry);
      const after = { ...own, drawer: into, order: orders[index]! };
      return { id: own.id, before: what === "move" ? entry : null, after };
    });
    const names = going.map(
      ({ position, entry }, index) => `${position}, ${naming(entry)}, is ${first + index} there`,
    );
    notices = [
      {
        code: what === "move" ? "moved" : "copied",
        message: `${what === "move" ? "Moved" : "Copied"} into the drawer “${into}”: ${names.join("; ")}. Undo in “${drawer}” takes it back.`,
      },
      ...told,
    ];
    return { edits: [...leaving, ...edits] };
  });
  return notices;
}

/** An entry with an id of its own, as have the pieces it was made of: both can be split, and each undone by itself. */
function copyOf(entry: Entry): Entry {
  const ids = new Map<string, string>();
  const renewed = ({ id, parts, ...rest }: Entry): Entry => {
    if (!ids.has(id)) ids.set(id, newId());
    return { id: ids.get(id)!, ...rest, ...(parts && { parts: parts.map(renewed) }) };
  };
  return renewed(entry);
}

/** Gives the snippets of a pick a label, or, with an empty one, takes it off. */
export function label(store: Store, drawer: string, pick: string, text: string): Promise<Notice[]> {
  const words = cleanLabel(text);
  return alter(store, drawer, pick, "label", "labelled", {
    becomes: ({ label: _, ...entry }) => (words === "" ? entry : { ...entry, label: words }),
    done: (one) => (words === "" ? `Took the label off ${one}` : `Labelled ${one} as “${words}”`),
    already: (one) => `${one}: the label was so already`,
  });
}

/** Keeps the snippets of a pick for good. */
export function keep(store: Store, drawer: string, pick: string): Promise<Notice[]> {
  return alter(store, drawer, pick, "keep", "kept", {
    becomes: (entry) => ({ ...entry, kept: true }),
    done: (one) => `Kept ${one}: neither limits nor age nor emptying takes it out`,
    already: (one) => `${one} was kept already`,
  });
}

/** Stops keeping the snippets of a pick. */
export function release(store: Store, drawer: string, pick: string): Promise<Notice[]> {
  return alter(store, drawer, pick, "release", "released", {
    becomes: (entry) => ({ ...entry, kept: false }),
    done: (one) => `Released ${one}: limits, age and emptying take it out again`,
    already: (one) => `${one} was not kept`,
  });
}

/** What changes of single snippets have in common: what each becomes, and what is said. */
interface Alteration {
  readonly becomes: (entry: Entry) => Entry;
  readonly done: (one: string) => string;
  readonly already: (one: string) => string;
}

async function alter(
  store: Store,
  drawer: string,
  pick: string,
  what: OperationName,
  code: NoticeCode,
  { becomes, done, already }: Alteration,
): Promise<Notice[]> {
  let message = "";
  await perform(store, drawer, what, async () => {
    const picked = await pickSome(snippetsOf(store, drawer), pick);
    const edits = picked
      .map(({ entry }) => ({ id: entry.id, before: entry, after: becomes(entry) }))
      .filter(({ before, after }) => before.label !== after.label || before.kept !== after.kept);
    const one = (of: readonly Positioned[]) =>
      of.length === 1 ? `${of[0]!.position}, ${naming(of[0]!.entry)}` : many(of.length);
    const changed = picked.filter(({ entry }) => edits.some(({ id }) => id === entry.id));
    message = edits.length > 0 ? done(one(changed)) : already(one(picked));
    return { edits };
  });
  return [{ code, message: `${message}.` }];
}

/** Makes the snippets of a pick private. */
export async function hide(store: Store, drawer: string, pick: string): Promise<Notice[]> {
  const rules = await rulesOf(store, drawer);
  const goes =
    rules.privateAge === null
      ? ""
      : `, and goes after ${RULES.privateAge.form.say(rules.privateAge)} unless it is kept`;
  const numbers = await veil(store, drawer, pick, "hide", (content) => {
    const name = secretName();
    return { name, facts: contentFacts(decodeContent(content), name, true) };
  });
  const message =
    numbers === ""
      ? "All of them were private already."
      : `Made private: ${numbers}. It is shown nowhere${goes}.`;
  return [{ code: "hidden", message }];
}

/** Takes the privacy off the snippets of a pick. */
export async function unhide(store: Store, drawer: string, pick: string): Promise<Notice[]> {
  const numbers = await veil(store, drawer, pick, "unhide", (content) => {
    const name = hashBytes(content);
    return { name, facts: contentFacts(decodeContent(content), name, false) };
  });
  const message =
    numbers === ""
      ? "None of them was private."
      : `Not private any more: ${numbers}. It is shown, found and exported like any other.`;
  return [{ code: "unhidden", message }];
}

/** Stores contents under other names, as secrets or not as secrets. Gives the positions of those that changed. */
async function veil(
  store: Store,
  drawer: string,
  pick: string,
  what: "hide" | "unhide",
  stored: (content: Uint8Array) => { name: Hash; facts: Pick<Entry, "kind" | "text" | "content"> },
): Promise<string> {
  let numbers = "";
  await perform(store, drawer, what, async () => {
    const picked = await pickSome(snippetsOf(store, drawer), pick);
    const changing = picked.filter(({ entry }) => entry.private !== (what === "hide"));
    // Reads each, so that one whose content is missing is refused rather than lost.
    const snippets = await readSnippets(store, changing);
    const contents = new Map<Hash, Uint8Array>();
    const edits: Edit[] = [];
    const blobs = await store.contents(changing.map(({ entry }) => entry.content));
    for (const { entry, pictures } of snippets) {
      const bytes = blobs.get(entry.content)!;
      const { name, facts } = stored(bytes);
      contents.set(name, bytes);
      for (const [hash, picture] of pictures) contents.set(hash, picture);
      // The pieces of a merged snippet would show what it says.
      const { parts: _, ...whole } = entry;
      edits.push({
        id: entry.id,
        before: entry,
        after: { ...(what === "hide" ? whole : entry), ...facts, private: what === "hide" },
      });
    }
    numbers = changing.map(({ position }) => position).join(", ");
    return { edits, contents };
  });
  return numbers;
}
