import { duration } from "./phrases.js";

/** Why a request to the window's server was refused, as its log says it. */
export const refusedRequest = {
  host: "it calls this computer by another name",
  origin: "it comes from another page",
  token: "it has no leave to read the drawers",
  key: "its key was used before, or is too old",
  body: "it brings more than anything that is collected",
  length: "it does not say how much it brings",
  path: "there is no such thing here",
};

/** What `drawer open` says of itself, and of what it refused. */
export const openWindow = {
  opened: (address?: string) =>
    address === undefined
      ? "The window is open."
      : `The window is open. Its address, for one browser and two minutes: ${address}`,
  again: (address?: string) =>
    address === undefined
      ? "The window was open already. Here is another page of it."
      : `The window was open already. Another one: ${address}`,
  /** A window that was open has come to the front. */
  front: "The window was open already, and is in front now.",
  noBrowser: (why: string) =>
    `No browser could be started (${why}). Say “drawer open --no-browser” for an address to open in one.`,
  /** It collects, and no window is shown. */
  quiet: "It collects what you copy. “drawer open” shows the window.",
  /** What stands in the system's menu. */
  entry: { name: "Drawer", about: "Collect snippets, and place them where you write" },
  ended: "The window is closed.",
  /** How long it waits for a page, where no browser is started. */
  waits: (time: number) => `It waits ${duration(time)} for a page, and ends then.`,
  refused: ({ why, path, from }: { why: keyof typeof refusedRequest; path: string; from: string }) =>
    `Refused: ${path} from ${from}: ${refusedRequest[why]}.`,
  failed: (why: string) => `Not done: ${why}`,
};

/** What stands on the page by which a browser is led to the window. */
export const entryPage = { title: "Drawer", open: "Open the window" };

/** What the window's page says beside what its element says. */
export const windowPage = {
  /** The title of its window. */
  title: ({ drawer, count }: { drawer: string; count: number }) => `Drawer · ${drawer} (${count})`,
  /** What the window cannot hear, and what one does instead. */
  notListening: (why: string | undefined) =>
    `${why ?? "What you copy in other programs is not heard on this desktop."} Paste it into this window, or drop files on it.`,
  /** Another program collects into this drawer what is copied. */
  watched: "“drawer watch” collects what you copy, as it was told to; each copy stands here too.",
  /** Another window has said last where copies go. */
  elsewhere: (drawer: string) => `What you copy goes into the drawer “${drawer}”, as another window says.`,
  here: "Collect here",
  away: "The drawers cannot be reached: what has served this window is gone. Open it again with “drawer open”.",
  locked: "This window needs a new key. Open it again with “drawer open”.",
  begin: [
    "Copy something in any program: it stands here, numbered, in the order of gathering.",
    "Or drop a document or a sheet on this window, and take from it what you want.",
    "Then go where it should land, come back, and click a piece: it lands there.",
  ] as readonly string[],
  sample: ["Or look around first:", "fill a drawer with sample data"] as readonly [string, string],
  sampleDrawer: "sample",
};
