// Stands for `powershell.exe` of Windows as it is called for the clipboard. It does not run PowerShell: it reads from the
// script what it is told and which of a few things it is to do, and does that as Microsoft's documents say of Windows
// Forms' Clipboard. What is put there as “HTML Format” must have a header whose numbers hold.
import { readFileSync, readSync, writeSync } from "node:fs";
import { change, press, put, refuse, sleep, standing } from "./pasteboard.mjs";

const words = process.argv.slice(2);
const encoded = words.pop();
if (words.join(" ") !== "-NoLogo -NoProfile -NonInteractive -STA -EncodedCommand")
  refuse(`not as PowerShell is called: ${words}`);
const script = Buffer.from(encoded, "base64").toString("utf16le");
const formats = [.../^\$formats = @\((.*)\)$/m.exec(script)[1].matchAll(/'([^']+)'/g)].map(
  ([, name]) => name,
);
const owner = Number(/^\$owner = (\d+)$/m.exec(script)[1]);
const base64 = (text = "") => Buffer.from(text, "utf8").toString("base64");
const say = () => {
  const { forms, front, windows } = standing();
  const { app, title } = windows.find(({ id }) => id === front) ?? {};
  const found = formats.filter((name) => name in forms).map((name) => `${name}=${forms[name]}`);
  writeSync(1, `${[base64(app), base64(title), ...found].join("\t")}\r\n`);
};
/** “HTML Clipboard Format”: the numbers are of bytes, from the beginning of the header. */
const check = (bytes) => {
  const number = (name) =>
    Number(new RegExp(`^${name}:(\\d{9,10})\\r$`, "m").exec(bytes.toString("latin1"))[1]);
  const [start, end, from, to] = ["StartHTML", "EndHTML", "StartFragment", "EndFragment"].map(number);
  const isSound =
    bytes.toString("latin1").startsWith("Version:0.9\r\n") &&
    ["<html>", bytes.length].join() === [bytes.subarray(start, start + 6), end].join() &&
    bytes.subarray(0, from).toString("utf8").endsWith("<!--StartFragment-->") &&
    bytes.subarray(to).toString("utf8").startsWith("<!--EndFragment-->");
  if (!isSound) refuse("a header of HTML Format that does not hold");
};

const line = (value) => writeSync(1, `${JSON.stringify(value)}\r\n`);
const windowOf = (asked) => standing().windows.find(({ id }) => id === asked) ?? null;
/** What SendKeys calls keys (System.Windows.Forms.SendKeys). */
const sendKeys = (keys) => {
  const [, held, key] = /^([%^+]*)(\{[A-Z]+\}|.)$/.exec(keys) ?? refuse(`keys ${keys}`);
  const name = /^\{(.)(.*)\}$/.exec(key);
  press(name ? name[1] + name[2].toLowerCase() : key, [...held], "UnicodeText");
  return true;
};
const DOES = {
  front: () => windowOf(standing().front),
  describe: ({ id }) => windowOf(id),
  count: () => standing().count,
  raise: ({ id }) => (change({ front: id }), true),
  press: ({ key }) => sendKeys(key),
};

if (script.includes("[Console]::In.ReadLine()")) {
  const buffer = Buffer.alloc(65536);
  for (let length; (length = readSync(0, buffer)) > 0;)
    for (const asked of buffer.toString("utf8", 0, length).trim().split("\n").map(JSON.parse))
      line({ answer: DOES[asked.act](asked) });
} else if (script.includes("for ($turn = 0;")) {
  for (let last, known; isRunning(owner); sleep(50)) {
    const { front, pressed } = standing();
    const now = JSON.stringify(windowOf(front));
    if (now !== last) line({ front: windowOf(front) });
    last = now;
    if (pressed && pressed.at !== known && Date.now() - pressed.at < 1000)
      line({ input: pressed.type === 10 ? "key" : "button" });
    known = pressed?.at;
  }
} else if (script.includes("GetFormats($false)")) {
  const { forms } = standing();
  writeSync(
    1,
    `${["0", ...Object.entries(forms).map(([name, bytes]) => `${name}=${bytes}`)].join("\t")}\r\n`,
  );
} else if (
  script.trimEnd().endsWith("}\nSay-Standing") ||
  /^Say-Standing$/m.test(script.trimEnd().split("\n").at(-1))
)
  say();
else if (script.includes("ShowBalloonTip")) {
  put({ ...standing().forms, notification: Buffer.from(readFileSync(0, "utf8"), "base64").toString("utf8") });
} else if (script.includes("SetDataObject")) {
  const fields = readFileSync(0, "utf8")
    .split("\t")
    .filter((field) => field !== "");
  const forms = Object.fromEntries(
    fields.map((field) => [field.split("=")[0], field.replace(/^[^=]*=/, "")]),
  );
  if (forms["HTML Format"] !== undefined) check(Buffer.from(forms["HTML Format"], "base64"));
  put(forms);
} else if (script.includes("while (Get-Process -Id $owner")) {
  for (let { count } = standing(); isRunning(owner); sleep(50)) {
    if (standing().count === count) continue;
    count = standing().count;
    say();
  }
} else refuse("a script that does nothing known");

function isRunning(id) {
  try {
    process.kill(id, 0);
    return true;
  } catch {
    return false;
  }
}
