// A program that owns the clipboard as a test wants it, spoken to over X11 by itself. Usage: other-program.mjs BEHAVIOUR
// [TARGET=TEXT]…, where a behaviour is `offer`, `twice` (it takes the clipboard a second time at once), `hang` (it never
// answers), or `die` (it ends when it is asked for more than what there is). What begins with @ is in a file. `title=TEXT`
// puts its window in front, with that title. Says `ready` once it owns the clipboard.
import { readFileSync } from "node:fs";
import x11 from "x11";

const [behaviour, ...words] = process.argv.slice(2);
const pairs = words.map((word) => [word.slice(0, word.indexOf("=")), word.slice(word.indexOf("=") + 1)]);
const offers = pairs.filter(([name]) => name !== "title");
const title = pairs.find(([name]) => name === "title")?.[1];
const client = x11.createClient({}, (error, display) => {
  if (error) throw error;
  const X = display.client;
  const atom = (name) =>
    new Promise((resolve, reject) =>
      X.InternAtom(false, name, (wrong, id) => (wrong ? reject(wrong) : resolve(id))),
    );
  const window = X.AllocID();
  X.CreateWindow(window, display.screen[0].root, 0, 0, 1, 1, 0);
  (async () => {
    const [clipboard, targets] = [await atom("CLIPBOARD"), await atom("TARGETS")];
    if (title !== undefined) {
      const { root } = display.screen[0];
      const active = Buffer.alloc(4);
      active.writeUInt32LE(window);
      const [text, name] = [await atom("UTF8_STRING"), await atom("_NET_WM_NAME")];
      X.ChangeProperty(0, window, name, text, 8, Buffer.from(title));
      X.ChangeProperty(
        0,
        window,
        await atom("WM_CLASS"),
        await atom("STRING"),
        8,
        Buffer.from("sheet\0Merrow Sheets\0"),
      );
      X.ChangeProperty(0, root, await atom("_NET_ACTIVE_WINDOW"), await atom("WINDOW"), 32, active);
    }
    const texts = new Map();
    for (const [name, text] of offers)
      texts.set(await atom(name), text.startsWith("@") ? readFileSync(text.slice(1)) : Buffer.from(text));
    X.on("event", (event) => {
      if (event.name !== "SelectionRequest" || behaviour === "hang") return;
      const { requestor, selection, target, property, time } = event;
      if (behaviour === "die" && target !== targets) process.exit(0);
      const list = Buffer.alloc((texts.size + 1) * 4);
      [targets, ...texts.keys()].forEach((id, at) => list.writeUInt32LE(id, at * 4));
      if (target === targets) X.ChangeProperty(0, requestor, property, 4, 32, list);
      else if (texts.has(target)) X.ChangeProperty(0, requestor, property, target, 8, texts.get(target));
      const isDone = target === targets || texts.has(target);
      const type = x11.eventTypes.SelectionNotify;
      const answer = { requestor, selection, target, time, property: isDone ? property : 0 };
      X.SendEvent(requestor, 0, 0, { type, name: "SelectionNotify", seq: 0, ...answer });
    });
    X.SetSelectionOwner(window, clipboard, 0);
    if (behaviour === "twice") X.SetSelectionOwner(window, clipboard, 0);
    X.GetSelectionOwner(clipboard, () => console.log("ready"));
  })();
});
client.on("error", () => undefined);
