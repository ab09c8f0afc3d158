import type { Errors } from "../messages/core/catalogues.js";
import {
  codeOf,
  sentenceOf,
  type CodeOf,
  type ErrorData,
  type ErrorReason,
} from "../messages/core/sentence.js";

/** What kind of refusal an error is. Codes are stable and meant for programs (`docs/codes.md`). */
export type ErrorCode = CodeOf<ErrorReason>;

/**
 * The one kind of error Drawer throws for anything a user or caller can put right: its message says what is wrong,
 * where, and what to do instead. Any other error that escapes is a fault in Drawer itself.
 *
 * @example
 * ```js
 * import { Drawer, DrawerError, MemoryStore } from "drawer";
 *
 * try {
 *   await new Drawer(new MemoryStore()).discard("3");
 * } catch (error) {
 *   if (!(error instanceof DrawerError)) throw error;
 *   console.log(error.code, error.reason); // no-position no-position/empty
 * }
 * ```
 */
export class DrawerError<Reason extends ErrorReason = ErrorReason> extends Error {
  override readonly name = "DrawerError";
  readonly code: ErrorCode;

  /**
   * @param catalogue the sentences of a room, among them that of the reason
   * @param reason which sentence it is told by
   * @param data what the sentence is made from
   */
  constructor(
    catalogue: NoInfer<Pick<Errors, Reason>>,
    readonly reason: Reason,
    readonly data: ErrorData<Reason>,
    options?: ErrorOptions,
  ) {
    super(sentenceOf("errors", catalogue, reason, data), options);
    this.code = codeOf(reason);
  }
}

/** What an error is made of, as plain data: how it goes from one program to another. */
export interface Refusal {
  readonly reason: ErrorReason;
  readonly data: unknown;
  /** What the program says that refused: who has no sentence for the reason says this. */
  readonly message: string;
}

/** What an error is made of. */
export function refusalOf({ reason, data, message }: DrawerError): Refusal {
  return { reason, data, message };
}

/** The error that is made of this. */
export function errorOf({ reason, data, message }: Refusal): DrawerError {
  const catalogue = { [reason]: () => message } as unknown as Pick<Errors, ErrorReason>;
  return new DrawerError(catalogue, reason, data as ErrorData<ErrorReason>);
}

/** Why something failed, whatever was thrown, in words. */
export function reasonOf(error: unknown): string {
  return error instanceof Error ? error.message : String(error);
}
