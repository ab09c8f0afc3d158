import type { Content } from "../../content/model.js";
import { plainName, type Template } from "../fill.js";
import { decodeText } from "./decode.js";
import { encodedLike } from "./edit.js";
import { writeText } from "./write.js";

const BRACES = /\{\{\s*([^{}\r\n]{1,200}?)\s*\}\}/g;

/**
 * What fills names in braces (`{{Name}}`) in a format that is text.
 * @param written what content is written as there, at a place in a line or in a line of its own
 */
export function textTemplate(
  written: (content: Content, isAlone: boolean) => string | Promise<string>,
  kind: "text" | "html" = "text",
): Template {
  return {
    places: (bytes) =>
      Promise.resolve(
        [...decodeText(bytes, kind).matchAll(BRACES)].map(([, name]) => ({
          ...{ name: name!, kind: "braces" as const, text: "" },
        })),
      ),
    async fill(bytes, file, values) {
      const text = decodeText(bytes, kind);
      const newline = /\r\n|\r|\n/.exec(text)?.[0] ?? "\n";
      const filled = new Set<string>();
      let [made, at] = ["", 0];
      for (const match of text.matchAll(BRACES)) {
        const name = plainName(match[1]!);
        const content = values.get(name);
        if (content === undefined) continue;
        filled.add(name);
        const [before, after] = [text.slice(0, match.index), text.slice(match.index + match[0].length)];
        const isAlone = /(?:^|[\r\n])[ \t]*$/.test(before) && /^[ \t]*(?:$|[\r\n])/.test(after);
        const value = (await written(content, isAlone)).replace(/\n/g, newline);
        made += text.slice(at, match.index) + value;
        at = match.index + match[0].length;
      }
      return { data: encodedLike(bytes, made + text.slice(at), file), filled, notices: [] };
    },
  };
}

/** Fills names in braces in plain text. */
export const plainTemplate = textTemplate((content) => writeText(content));
