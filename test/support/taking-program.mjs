// A program that takes what others offer on the clipboard, spoken to over X11 by itself. Usage: taking-program.mjs history
// (it takes the text of each new offer at once, as histories of the clipboard do, and says it in a line), multiple TARGET…
// (it asks for several targets in one request of MULTIPLE, and says what it got of each as JSON), or paste TARGET… (it takes
// several targets one after another, as programs do for one paste).
import x11 from "x11";

const [behaviour, ...targets] = process.argv.slice(2);
x11.createClient({}, (error, display) => {
  if (error) throw error;
  const X = display.client;
  X.on("error", () => undefined);
  const window = X.AllocID();
  X.CreateWindow(window, display.screen[0].root, 0, 0, 1, 1, 0);
  const atom = (name) => new Promise((resolve) => X.InternAtom(false, name, (_, id) => resolve(id)));
  const property = (name) =>
    new Promise((resolve) => X.GetProperty(0, window, name, 0, 0, 1e7, (_, found) => resolve(found.data)));
  const taken = async (target, name) => {
    const answered = new Promise((resolve) => {
      const hear = (event) => {
        if (event.name !== "SelectionNotify" || event.requestor !== window) return;
        X.removeListener("event", hear);
        resolve(event.property);
      };
      X.on("event", hear);
    });
    X.ConvertSelection(window, await atom("CLIPBOARD"), await atom(target), await atom(name), 0);
    return (await answered) === 0 ? undefined : property(await atom(name));
  };
  const history = async () => {
    X.require("fixes", (_, fixes) => {
      fixes.QueryVersion(5, 0, async () => {
        fixes.SelectSelectionInput(window, await atom("CLIPBOARD"), 1);
        console.log("ready");
      });
    });
    X.on("event", async (event) => {
      if (event.name === "SelectionNotify" && event.subtype !== undefined)
        console.log(String(await taken("UTF8_STRING", "TAKEN")));
    });
  };
  const multiple = async () => {
    const pairs = Buffer.alloc(targets.length * 8);
    const names = targets.map((_, at) => `TAKEN_${at}`);
    for (const [at, target] of targets.entries()) {
      pairs.writeUInt32LE(await atom(target), at * 8);
      pairs.writeUInt32LE(await atom(names[at]), at * 8 + 4);
    }
    X.ChangeProperty(0, window, await atom("ASKED"), await atom("ATOM_PAIR"), 32, pairs);
    const answered = await taken("MULTIPLE", "ASKED");
    const got = {};
    for (const [at, target] of targets.entries())
      // What was refused has its property struck out.
      got[target] =
        answered.readUInt32LE(at * 8 + 4) === 0 ? null : String(await property(await atom(names[at])));
    console.log(JSON.stringify(got));
    process.exit(0);
  };
  const paste = async () => {
    for (const target of targets) await taken(target, "TAKEN");
    process.exit(0);
  };
  void { history, multiple, paste }[behaviour]();
});
