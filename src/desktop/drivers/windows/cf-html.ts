import { lettersOf } from "../../../content/byte-letters.js";

const START = "<html><body>\r\n<!--StartFragment-->";
const END = "<!--EndFragment-->\r\n</body></html>";

/**
 * HTML as the clipboard of Windows holds it: a header that says in bytes where the whole and the fragment begin and end
 * (“HTML Clipboard Format”, Microsoft).
 *
 * @param html in UTF-8
 */
export function writeCfHtml(html: Uint8Array): Uint8Array {
  const header = (numbers: readonly number[]) => {
    const [start, end, from, to] = numbers.map((number) => `${number}`.padStart(10, "0"));
    return `Version:0.9\r\nStartHTML:${start}\r\nEndHTML:${end}\r\nStartFragment:${from}\r\nEndFragment:${to}\r\n`;
  };
  const start = header([0, 0, 0, 0]).length;
  const from = start + START.length;
  const to = from + html.length;
  return Buffer.concat([
    Buffer.from(header([start, to + END.length, from, to]) + START),
    html,
    Buffer.from(END),
  ]);
}

/**
 * The HTML of what stands on the clipboard of Windows, and the address of the page that it was copied from. Where the
 * header says nothing that holds, it is taken whole.
 */
export function readCfHtml(bytes: Uint8Array): { readonly html: Uint8Array; readonly address?: string } {
  const head = lettersOf(bytes.subarray(0, 4096)).split("<")[0]!;
  const said = new Map([...head.matchAll(/^(\w+):(.*?)\r?$/gm)].map(([, name, value]) => [name, value]));
  const number = (name: string) => Number(said.get(name) ?? "-1");
  const address = said.get("SourceURL");
  const [from, to] = [number("StartHTML"), number("EndHTML")];
  // -1 stands for no whole; then there is the fragment.
  const [first, last] = from >= 0 ? [from, to] : [number("StartFragment"), number("EndFragment")];
  const isSound = first >= 0 && last >= first && first <= bytes.length;
  return {
    html: isSound ? bytes.subarray(first, last) : bytes.subarray(Buffer.byteLength(head, "latin1")),
    ...(address !== undefined && { address }),
  };
}
