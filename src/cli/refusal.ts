import { DrawerError, type ErrorCode } from "../content/error.js";
import { codeOf, type CodeOf } from "../messages/core/sentence.js";
import { hints, usage } from "../messages/en/cli-answers.js";

type UsageReason = keyof typeof usage;
type UsageData<Reason extends UsageReason> =
  Parameters<(typeof usage)[Reason]> extends []
    ? Readonly<Record<string, never>>
    : Parameters<(typeof usage)[Reason]>[0];

/** A refusal that only the command line has: of what was typed, or of what was answered to a question. */
export class UsageError<Reason extends UsageReason = UsageReason> extends Error {
  readonly code: CodeOf<UsageReason>;

  constructor(
    readonly reason: Reason,
    readonly data: UsageData<Reason>,
    options?: ErrorOptions,
  ) {
    super((usage[reason] as (data: UsageData<Reason>) => string)(data), options);
    this.code = codeOf(reason) as CodeOf<UsageReason>;
  }
}

/** What refuses something, and is no fault. */
export type Refusal = DrawerError | UsageError;

/** Whether an error is a refusal, and not a fault. */
export function isRefusal(error: unknown): error is Refusal {
  return error instanceof DrawerError || error instanceof UsageError;
}

/** What a refusal says, with what a command can do about it. */
export function refusalText(error: Refusal): string {
  const hint = error instanceof DrawerError ? hints[error.reason] : undefined;
  return hint === undefined ? error.message : `${error.message} ${hint}`;
}

/** Refusals of what was typed, not of what it was typed about. */
const WRONG_USAGE: readonly (ErrorCode | CodeOf<UsageReason>)[] = ["bad-pick", "bad-spot", "bad-option"];

/** Whether a refusal is of what was typed. */
export function isWrongUsage({ code }: Refusal): boolean {
  return WRONG_USAGE.includes(code);
}
