/** Settles when the user ends the program. */
export function interrupted(): Promise<void> {
  return new Promise((settle) => {
    for (const signal of ["SIGINT", "SIGTERM", "SIGHUP"] as const) process.once(signal, () => settle());
  });
}
