import { textTemplate } from "../text/fill.js";
import { writeHtml } from "./write.js";

/** Fills names in braces in HTML: a place in a line takes what stands in a lone line, without its element. */
export const htmlTemplate = textTemplate((content) => {
  const written = writeHtml(content);
  return /^<p(?: [^>]*)?>((?:(?!<\/?p[ >])[\s\S])*)<\/p>$/.exec(written)?.[1] ?? written;
}, "html");
