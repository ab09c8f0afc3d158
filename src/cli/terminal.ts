/** Control characters but for tabs and line ends: C0, DEL and C1 (ECMA-48), by which a text could steer a terminal. */
const CONTROLS = /[\u0000-\u0008\u000b-\u001f\u007f-\u009f]/g;

/** Text as a terminal may show it: control characters become signs that can be seen. */
export function visible(text: string): string {
  return text.replace(CONTROLS, (sign) => {
    const code = sign.charCodeAt(0);
    // Unicode has pictures of the older ones.
    return code < 0x20 ? String.fromCharCode(0x2400 + code) : code === 0x7f ? "\u2421" : "\ufffd";
  });
}

/** Writes what people read to standard output. */
export function print(text: string): void {
  process.stdout.write(visible(text));
}

/** Writes what people read beside the answer to standard error. */
export function remark(text: string): void {
  process.stderr.write(visible(text));
}

/** Writes a value as one line of JSON. Signs that steer terminals are escaped. */
export function printJson(value: unknown): void {
  const json = JSON.stringify(value).replace(
    CONTROLS,
    (sign) => `\\u${sign.charCodeAt(0).toString(16).padStart(4, "0")}`,
  );
  process.stdout.write(json + "\n");
}

/** Whether somebody waits for what is being written now, and hears what comes of it. */
let isAwaited = false;

/**
 * Writes what was placed to standard output as it is, for the program or file that takes it; a terminal gets what can be
 * seen of it. Settles when it is written.
 * @throws OutputError when it could not be
 */
export async function printWhole(data: string | Uint8Array): Promise<void> {
  const shown = typeof data === "string" && process.stdout.isTTY ? visible(data) : data;
  isAwaited = true;
  try {
    await new Promise<void>((resolve, reject) => {
      process.stdout.write(shown, (error) => (error ? reject(new OutputError(error)) : resolve()));
    });
  } finally {
    isAwaited = false;
  }
}

/** That standard output takes no more. */
export class OutputError extends Error {
  constructor(override readonly cause: NodeJS.ErrnoException) {
    super(cause.message, { cause });
  }

  /** Whether whoever read it has had enough (`drawer list | head -1`), which is no error. */
  get isEnough(): boolean {
    return this.cause.code === "EPIPE";
  }
}

/** Calls `end` when standard output takes no more, and nobody waits for what is written there. */
export function onOutputFailure(end: (error: OutputError) => void): void {
  process.stdout.on("error", (error: NodeJS.ErrnoException) => {
    if (!isAwaited) end(new OutputError(error));
  });
}
