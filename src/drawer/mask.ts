/** What a private snippet shows in place of what it says. */
export const MASK = "••••••";
