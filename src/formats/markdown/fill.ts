import { textTemplate } from "../text/fill.js";
import { writeMarkdown } from "./write.js";

/** Fills names in braces in Markdown: a line of its own takes blocks, a place in a line one line. */
export const markdownTemplate = textTemplate((content, isAlone) => {
  const written = writeMarkdown(content).trimEnd();
  return isAlone ? written : written.replace(/\s*\n\s*/g, " ");
});
