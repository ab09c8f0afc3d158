/** Events that a page takes for the user's own. */

/** A paste. Firefox leaves out what a page gives it, so it is given once more. */
export function pasteEvent(transfer: DataTransfer): Event {
  const event = new ClipboardEvent("paste", {
    clipboardData: transfer,
    ...{ bubbles: true, cancelable: true, composed: true },
  });
  if (!event.clipboardData || event.clipboardData.types.length === 0)
    Object.defineProperty(event, "clipboardData", { value: transfer });
  return event;
}

/** An input that is about to come, from a paste. */
export function inputEvent(transfer: DataTransfer): Event {
  const event = new InputEvent("beforeinput", {
    inputType: "insertFromPaste",
    dataTransfer: transfer,
    ...{ bubbles: true, cancelable: true, composed: true },
  });
  if (!event.dataTransfer || event.dataTransfer.types.length === 0)
    Object.defineProperty(event, "dataTransfer", { value: transfer });
  return event;
}

/** A key: as events name it, and with the number that older scripts ask for. */
export interface KeyPress {
  readonly key: string;
  readonly code: string;
  readonly keyCode: number;
  /** Whether it is pressed with the key of commands: Ctrl, or on Apple's systems Command. */
  readonly isCommand?: boolean;
  readonly shiftKey?: boolean;
}

/** Presses a key in an element. Returns whether nobody took it. */
export function pressKey(
  element: Element,
  { isCommand = false, shiftKey = false, ...key }: KeyPress,
): boolean {
  const isApple = /Mac|iP(?:hone|ad)/.test(navigator.platform);
  const event = new KeyboardEvent("keydown", {
    ...{ ...key, which: key.keyCode, shiftKey },
    ...{ ctrlKey: isCommand && !isApple, metaKey: isCommand && isApple },
    ...{ bubbles: true, cancelable: true, composed: true },
  });
  return element.dispatchEvent(event);
}
