import { encrypt } from "officecrypto-tool";
import { isFull } from "../support/counts";
import { demoFile } from "../support/demo";
import { readSource } from "drawer/files";

const PROTECTED = "VelvetSweatshop";
const sealed = (name: string, password: string, type?: "standard") =>
  new Uint8Array(encrypt(Buffer.from(demoFile(name)), { password, ...(type && { type }) }));

test.each([
  ["ringing.xlsx", undefined],
  ["ringing.xlsx", "standard"],
  ["diary.docx", undefined],
  ["diary.docx", "standard"],
] as const)(
  "%s that is protected against changes (%s encryption) opens without a question",
  async (name, type) => {
    const opened = await readSource(sealed(name, PROTECTED, type), name);
    const open = await readSource(demoFile(name), name);
    expect(opened.parts()).toEqual(open.parts());
    expect(opened.at().content).toEqual(open.at().content);
  },
);

test.each([undefined, "standard"] as const)(
  "one with a password of its own is refused (%s)",
  async (type) => {
    await expect(readSource(sealed("ringing.xlsx", "seawall", type), "costs.xlsx")).rejects.toThrow(
      "“costs.xlsx” is protected with a password.",
    );
  },
);

test("one that is cut short or changed is refused, and nothing else happens", async () => {
  const whole = sealed("ringing.xlsx", PROTECTED);
  for (let at = 0; at < whole.length; at += isFull ? 1021 : 9001) {
    const changed = whole.slice();
    changed.set([255, 255, 255, 127], Math.min(at, whole.length - 4));
    for (const bytes of [whole.slice(0, at), changed]) {
      const outcome = await readSource(bytes, "costs.xlsx")
        .then((source) => source.parts().length)
        .catch((error: { code?: string }) => error.code);
      expect(["unreadable", "locked", "unknown-format", 2]).toContain(outcome);
    }
  }
}, 60_000);
