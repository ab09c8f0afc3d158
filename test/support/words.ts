/** Words of two letters and more, so that numbers of notes and pages do not count. */
export const wordsIn = (text: string): string[] => text.normalize("NFKC").match(/\p{L}[\p{L}\p{M}]+/gu) ?? [];
