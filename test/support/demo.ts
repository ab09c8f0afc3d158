import { existsSync, readdirSync, readFileSync } from "node:fs";
import type { Flavours } from "drawer";

/** The clipboard payloads of the sample data, by name. */
export const payloads = readdirSync("demo/clipboard");

/** What one copy offered. */
export function payload(name: string): Flavours {
  const read = (flavour: string) => {
    const path = `demo/clipboard/${name}/clip.${flavour}`;
    return existsSync(path) ? readFileSync(path, "utf8") : undefined;
  };
  const [html, text, tsv] = [read("html"), read("txt"), read("tsv")];
  return {
    ...(html !== undefined && { html }),
    ...(text !== undefined && { text }),
    ...(tsv !== undefined && { tsv }),
  };
}

/** The bytes of a file of the sample data. */
export function demoFile(name: string): Uint8Array {
  return new Uint8Array(readFileSync(`demo/${name}`));
}
