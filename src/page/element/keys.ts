/** What a key does to the snippet that has the focus. */
export type RunAction =
  | "next"
  | "previous"
  | "first"
  | "last"
  | "right"
  | "left"
  | "later"
  | "earlier"
  | "pick"
  | "pickTo"
  | "pickAll"
  | "show"
  | "edit"
  | "keep"
  | "copy"
  | "label"
  | "discard"
  | "suggested"
  | "undo"
  | "redo"
  | "leave";

const PLAIN: Readonly<Record<string, RunAction>> = {
  ...{
    arrowdown: "next",
    arrowup: "previous",
    arrowright: "right",
    arrowleft: "left",
    home: "first",
    end: "last",
  },
  ...{
    a: "suggested",
    e: "edit",
    p: "pick",
    s: "show",
    k: "keep",
    c: "copy",
    l: "label",
    delete: "discard",
    escape: "leave",
  },
};
const WITH_ALT: Readonly<Record<string, RunAction>> = { arrowdown: "later", arrowup: "earlier" };

/** What a key means in the list of snippets, as the panel of keys tells. Nothing for any other key. */
export function actionOfKey(event: KeyboardEvent): RunAction | undefined {
  const key = event.key.toLowerCase();
  if (event.ctrlKey || event.metaKey) {
    if (key === "a") return "pickAll";
    if (key !== "z" || event.altKey) return undefined;
    return event.shiftKey ? "redo" : "undo";
  }
  if (key === "p" && event.shiftKey) return "pickTo";
  return (event.altKey ? WITH_ALT : PLAIN)[key];
}

/**
 * Whether an event is a key that is written so: `Alt+Shift+D`. Letters are told by where they are on the keyboard, as some
 * systems write signs of their own with these keys.
 */
export function isHotkey(event: KeyboardEvent, written: string): boolean {
  const parts = written.toLowerCase().split("+");
  const key = parts.pop()!;
  const pressed = /^[a-z]$/.test(key)
    ? event.code.toLowerCase() === `key${key}`
    : event.key.toLowerCase() === key;
  return (
    pressed &&
    event.altKey === parts.includes("alt") &&
    event.shiftKey === parts.includes("shift") &&
    event.ctrlKey === parts.includes("ctrl") &&
    event.metaKey === parts.includes("meta")
  );
}
