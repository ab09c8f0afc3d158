/** What a key does to the snippet that has the focus. */
export type RunAction =
  "next" | "previous" | "later" | "earlier" | "pick" | "keep" | "discard" | "undo" | "redo";

/**
 * What a key means in the run of snippets: arrows go from snippet to snippet, with Alt they move it; P picks, K keeps;
 * Delete discards; Ctrl+Z undoes, with Shift it does it again. Nothing for any other key.
 */
export function actionOfKey(event: KeyboardEvent): RunAction | undefined {
  const { altKey, shiftKey } = event;
  const isCommand = event.ctrlKey || event.metaKey;
  switch (event.key.toLowerCase()) {
    case "arrowdown":
      return altKey ? "later" : "next";
    case "arrowup":
      return altKey ? "earlier" : "previous";
    case "delete":
      return altKey ? undefined : "discard";
    case "z":
      return isCommand && !altKey ? (shiftKey ? "redo" : "undo") : undefined;
    case "p":
      return isCommand || altKey ? undefined : "pick";
    case "k":
      return isCommand || altKey ? undefined : "keep";
    default:
      return undefined;
  }
}
