/** The path of a Chromium on this machine; nothing when there is none. */
export function findChromium(): string | undefined;
/** How Chromium is started for tests and pictures. */
export const CHROMIUM_FLAGS: string[];
