/** Why a request to the window's server was refused, as its log says it. */
export const refusedRequest = {
  host: "it calls this computer by another name",
  origin: "it comes from another page",
  cookie: "it has no leave to read the drawers",
  key: "its key was used before, or is too old",
  body: "it brings more than anything that is collected",
};

/** What `drawer open` says of itself, and of what it refused. */
export const openWindow = {
  opened: (address: string) => `The window is open. Its address, for one browser and two minutes: ${address}`,
  again: (address: string) => `The window was open already. Another one: ${address}`,
  noBrowser: (why: string) =>
    `No browser could be started (${why}). Open the address above in one that is there.`,
  ended: "The window is closed.",
  refused: ({ why, path, from }: { why: keyof typeof refusedRequest; path: string; from: string }) =>
    `Refused: ${path} from ${from}: ${refusedRequest[why]}.`,
  failed: (why: string) => `Not done: ${why}`,
};

/** What the window's page says beside what its element says. */
export const windowPage = {
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
    "Then choose how the pieces are laid out, copy the block, and paste it where it should be.",
  ],
  sample: ["Or look around first:", "fill a drawer with sample data"] as readonly [string, string],
  sampleDrawer: "sample",
};
