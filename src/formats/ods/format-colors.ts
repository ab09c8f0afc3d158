/** The colours that a section of a number format may name (ECMA-376 part 1, 18.8.31), as data styles have them. */
export const FORMAT_COLORS: Readonly<Record<string, string>> = {
  Black: "#000000",
  White: "#ffffff",
  Red: "#ff0000",
  Green: "#00ff00",
  Blue: "#0000ff",
  Yellow: "#ffff00",
  Magenta: "#ff00ff",
  Cyan: "#00ffff",
};
