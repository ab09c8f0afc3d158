import type { Recipe } from "../compose/recipe.js";
import { facts } from "../messages/en/cli-answers.js";

/** A recipe as it would be typed: `--as bullets --cite notes`. */
export function describeRecipe(recipe: Recipe): string {
  const words = Object.entries(recipe).flatMap(([name, value]) => {
    if (name === "tidy")
      return (value as string[]).length === 0
        ? ["--tidy none"]
        : (value as string[]).filter((way) => way !== "edges").map((way) => `--tidy ${way}`);
    if (name === "columns")
      return Object.entries(value as Record<string, string>).map(
        ([from, to]) => `--columns ${JSON.stringify(`${from}=${to}`)}`,
      );
    return [`--${name} ${/^[\w-]+$/.test(String(value)) ? String(value) : JSON.stringify(value)}`];
  });
  return words.length === 0 ? facts.asItIs : words.join(" ");
}
