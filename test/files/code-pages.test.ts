import { spawnSync } from "node:child_process";
import { compose, writeText } from "drawer";
import { putInto, readSource } from "drawer/files";

/** The signs that an encoding has for its upper bytes, by Python's tables: what Windows adds to Latin-1 among them. */
const PYTHON = `
import base64, json, sys
out = {}
for label, codec in json.load(sys.stdin).items():
    signs = []
    for byte in range(0x80, 0x100):
        try:
            sign = bytes([byte]).decode(codec)
        except UnicodeDecodeError:
            continue
        # Controls, and what reading tidies away: spaces and marks of direction.
        if len(sign) == 1 and sign.isprintable() and not sign.isspace() and ord(sign) not in range(0xE000, 0xF900):
            signs.append(sign)
    text = "x" + "x".join(signs) + "x"
    out[label] = [text, base64.b64encode(text.encode(codec)).decode()]
json.dump(out, sys.stdout)
`;
/** What files call an encoding, and what Python does. Latin-1 and ASCII are read as Windows-1252: so the files mean them. */
const LABELS: Readonly<Record<string, string>> = {
  ...{ "windows-1252": "cp1252", "iso-8859-1": "cp1252", latin1: "cp1252", "us-ascii": "cp1252" },
  ...{
    "windows-1250": "cp1250",
    "windows-1251": "cp1251",
    "windows-1253": "cp1253",
    "windows-1254": "cp1254",
  },
  ...{
    "windows-1257": "cp1257",
    "iso-8859-2": "iso8859-2",
    "iso-8859-5": "iso8859-5",
    "iso-8859-7": "iso8859-7",
  },
  ...{ "iso-8859-15": "iso8859-15", "koi8-r": "koi8-r", macintosh: "mac_roman" },
};
const SAMPLES = JSON.parse(
  spawnSync("python3", ["-c", PYTHON], {
    input: JSON.stringify(LABELS),
    encoding: "utf8",
    env: { ...process.env },
  }).stdout,
) as Record<string, [text: string, bytes: string]>;

const joined = (...parts: (string | Buffer)[]) =>
  new Uint8Array(Buffer.concat(parts.map((part) => (typeof part === "string" ? Buffer.from(part) : part))));
const textIn = async (bytes: Uint8Array, name: string) =>
  writeText((await readSource(bytes, name)).at().content);

test.each(Object.entries(SAMPLES))(
  "files in %s say what Python reads in them",
  async (label, [text, packed]) => {
    const bytes = Buffer.from(packed, "base64");
    expect(text.length).toBeGreaterThan(120);
    expect(await textIn(joined(`<meta charset="${label}"><p>`, bytes, "</p>"), "a.html")).toBe(text);
    const head = `From: a@merrow-spit.example\r\nSubject: Rings\r\nMIME-Version: 1.0\r\n`;
    const mail = joined(
      `${head}Content-Type: text/plain; charset=${label}\r\nContent-Transfer-Encoding: 8bit\r\n\r\n`,
      bytes,
      "\r\n",
    );
    expect(await textIn(mail, "a.eml")).toContain(text);
    const quoted = [...bytes].map((byte) => `=${byte.toString(16).padStart(2, "0").toUpperCase()}`);
    const lines = quoted.join("").match(/.{1,72}/g)!;
    const head2 = `Subject: =?${label}?Q?${quoted.slice(0, 20).join("")}?=\r\nContent-Type: text/plain; charset=${label}\r\n`;
    const second = `From: a@merrow-spit.example\r\n${head2}Content-Transfer-Encoding: quoted-printable\r\n\r\n${lines.join("=\r\n")}\r\n`;
    const read = await textIn(joined(second), "b.eml");
    expect(read).toContain(text);
    expect(read).toContain(`Subject\t${text.slice(0, 20)}`);
    const page = /^windows-(\d+)$/.exec(label)?.[1];
    if (page) {
      const escaped = [...bytes].map((byte) => `\\'${byte.toString(16)}`).join("");
      expect(await textIn(joined(`{\\rtf1\\ansi\\ansicpg${page} ${escaped}\\par}`), "a.rtf")).toBe(text);
    }
  },
);

test("what says nothing of its encoding, and is no UTF-8, is read as Windows-1252, and stays so when something is put into it", async () => {
  const bytes = (...parts: (string | number)[]) =>
    joined(...parts.map((part) => (typeof part === "string" ? part : Buffer.from([part]))));
  const costs = bytes(
    "Item;Price\r\nNet;",
    0x80,
    "\u0020",
    "5,00\r\n",
    0x93,
    "Rope",
    0x94,
    ";",
    0x96,
    "\r\n",
  );
  expect(await textIn(costs, "costs.csv")).toBe("Item\tPrice\nNet\t€ 5,00\n“Rope”\t–");
  expect(await textIn(bytes("It", 0x92, "s 3 ", 0x96, " 4", 0x85), "a.txt")).toBe("It’s 3 – 4…");
  const guesses = async (named: string, ...parts: (string | number)[]) =>
    ((await readSource(bytes(...parts), named)).at().notices ?? []).filter(({ code }) => code === "guessed");
  expect(await guesses("a.md", "caf", 0xe9)).toMatchObject([
    { message: expect.stringMatching(/^“a\.md” does not say .*Windows-1252.*save it as UTF-8\.$/) as string },
  ]);
  expect(await guesses("a.html", "<p>caf", 0xe9)).toHaveLength(1);
  expect(await guesses("a.html", '<meta charset="windows-1250"><p>caf', 0xe9)).toEqual([]);
  for (const known of ["caf", "caf\u00e9"]) expect(await guesses("a.txt", known)).toEqual([]);
  expect(await guesses("a.csv", 0xff, 0xfe, "a", 0, 0xe9, 0)).toEqual([]);
  const more = (await readSource(bytes("Lamp;", 0x80, " 9"), "more.csv")).at();
  const put = await putInto(costs, "costs.csv", "A4", compose([more]));
  expect(Buffer.from(put.data).toString("latin1")).toBe(
    `${Buffer.from(costs).toString("latin1")}Lamp;\u0080 9\r\n`,
  );
});
