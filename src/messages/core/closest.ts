import { closest, distance } from "fastest-levenshtein";

/** The known word that somebody may have meant by another: one that differs in case only, or in a letter or two; nothing when none is near. */
export function closestOf(word: string, known: readonly string[]): string | undefined {
  if (known.length === 0) return undefined;
  const plain = String(word).toLowerCase();
  const same = known.find((name) => name.toLowerCase() === plain);
  if (same !== undefined) return same;
  const near = closest(plain, [...known]);
  return distance(plain, near) <= (plain.length > 3 ? 2 : 1) ? near : undefined;
}
