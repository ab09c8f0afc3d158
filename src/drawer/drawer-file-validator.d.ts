/**
 * The checks of the lines of a drawer file, made from `drawer-file-schema.ts` by the build (`scripts/validator.mjs`), as strict
 * pages forbid to make them while they run.
 */

/** Whether a line is what it should be; if not, `errors` tells what is wrong. */
interface Check {
  (line: unknown): boolean;
  readonly errors?:
    | readonly {
        readonly message?: string;
        readonly instancePath: string;
        readonly params: Readonly<Record<string, unknown>>;
      }[]
    | null;
}

export const header: Check;
export const snippet: Check;
