/**
 * Why Drawer refused. Codes are stable and meant for programs; the message is for people, and says what is wrong,
 * where, and what to do instead.
 */
export type RefusalCode =
  | "no-file"
  | "unreadable"
  | "locked"
  | "unknown-format"
  | "too-large"
  | "no-spot"
  | "no-position"
  | "bad-pick"
  | "bad-spot"
  | "bad-option"
  | "exists"
  | "not-written"
  | "nothing"
  | "paused"
  | "full"
  | "many"
  | "private"
  | "bad-file"
  | "damaged"
  | "conflict"
  | "store"
  | "no-clipboard";

/**
 * The one kind of error Drawer throws for anything a user or caller can put right. Any other error that escapes is a
 * fault in Drawer itself.
 */
export class DrawerError extends Error {
  override readonly name = "DrawerError";

  /**
   * @param code what kind of refusal this is
   * @param message one or two plain sentences: the thing, the place, the way out
   */
  constructor(
    readonly code: RefusalCode,
    message: string,
    options?: ErrorOptions,
  ) {
    super(message, options);
  }
}
