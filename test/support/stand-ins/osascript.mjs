// Stands for `osascript` of macOS: runs JavaScript for Automation as the man page says (`-l JavaScript -e SCRIPT WORD…`,
// whose function `run` gets the words), with as much of Foundation and AppKit as the clipboard needs. Methods without
// arguments are called by naming them, as the bridge does; and System Events as its dictionary has it. What Apple's documents do
// not have is refused.
import { readFileSync, readSync, writeSync } from "node:fs";
import { createContext, runInContext } from "node:vm";
import { change, press, put, refuse, sleep, standing } from "./pasteboard.mjs";

const [language, JavaScript, e, script, ...words] = process.argv.slice(2);
if (language !== "-l" || JavaScript !== "JavaScript" || e !== "-e")
  refuse(`not as osascript is called: ${process.argv}`);

/** An object whose every unknown member is refused. */
const strict = (name, members) =>
  new Proxy(members, {
    get(target, key) {
      if (typeof key === "symbol" || key in target) return Reflect.get(target, key);
      throw new Error(`${name} has no ${String(key)}`);
    },
  });

const nil = strict("nil", { isNil: () => true });
const string = (text) => ({
  ...{ isNil: () => false, js: text },
  dataUsingEncoding: (encoding) =>
    encoding === 4 ? data(Buffer.from(text)) : refuse(`encoding ${encoding}`),
});
const data = (bytes) =>
  strict("NSData", {
    ...{ isNil: () => false, bytes },
    base64EncodedStringWithOptions: (options) =>
      options === 0 ? string(bytes.toString("base64")) : refuse(`options ${options}`),
  });
const board = strict("NSPasteboard", {
  get changeCount() {
    return standing().count;
  },
  get types() {
    return { js: Object.keys(standing().forms) };
  },
  dataForType: (type) => {
    const base64 = standing().forms[type];
    return base64 === undefined ? nil : data(Buffer.from(base64, "base64"));
  },
  get clearContents() {
    put({});
    return standing().count;
  },
  setDataForType: (given, type) => {
    put({ ...standing().forms, [type]: given.bytes.toString("base64") });
    return true;
  },
});
/** A running application: one of the made-up windows, each of a process of its own. */
const running = (id) => {
  const window = standing().windows.find((one) => one.id === id);
  return window === undefined
    ? nil
    : strict("NSRunningApplication", {
        ...{
          isNil: () => false,
          terminated: false,
          processIdentifier: id,
          localizedName: string(window.app),
        },
        activateWithOptions: (options) => options === 2 && (change({ front: id }), true),
      });
};
const bridge = Object.assign((text) => string(text), {
  NSPasteboard: strict("NSPasteboard", { generalPasteboard: board }),
  NSWorkspace: strict("NSWorkspace", {
    get sharedWorkspace() {
      return strict("NSWorkspace", { frontmostApplication: running(standing().front) });
    },
  }),
  NSRunningApplication: strict("NSRunningApplication", { runningApplicationWithProcessIdentifier: running }),
  CGEventSourceSecondsSinceLastEventType: (state, type) => {
    const { pressed } = standing();
    if (state !== 1) refuse(`state ${state}`);
    return pressed?.type === type ? (Date.now() - pressed.at) / 1000 : 1e6;
  },
  NSFileHandle: strict("NSFileHandle", {
    fileHandleWithStandardOutput: strict("NSFileHandle", { writeData: ({ bytes }) => writeSync(1, bytes) }),
    fileHandleWithStandardInput: strict("NSFileHandle", {
      get readDataToEndOfFile() {
        return data(readFileSync(0));
      },
      get availableData() {
        const buffer = Buffer.alloc(65536);
        const length = readSync(0, buffer, 0, buffer.length, null);
        return { length, bytes: buffer.subarray(0, length) };
      },
    }),
  }),
  NSString: strict("NSString", {
    alloc: strict("NSString", {
      initWithDataEncoding: ({ bytes }, encoding) =>
        encoding === 4 ? string(bytes.toString("utf8")) : refuse(`encoding ${encoding}`),
    }),
  }),
  NSData: strict("NSData", {
    alloc: strict("NSData", {
      initWithBase64EncodedStringOptions: (base64, options) =>
        options === 0 ? data(Buffer.from(base64, "base64")) : refuse(`options ${options}`),
    }),
  }),
});
const KEY_CODES = { 48: "Tab", 36: "Enter", 125: "Down", 124: "Right" };
function systemEvents(name) {
  if (name !== "System Events") refuse(`application ${name}`);
  if (standing().isLocked) throw new Error("osascript is not allowed assistive access.");
  return strict("System Events", {
    processes: {
      whose: ({ unixId }) =>
        standing()
          .windows.filter(({ id }) => id === unixId)
          .map(({ title }) => ({ windows: [{ name: () => title }] })),
    },
    keystroke: (key, { using }) => press(key, using, "public.utf8-plain-text"),
    keyCode: (code, { using }) => press(KEY_CODES[code] ?? refuse(`key ${code}`), using, ""),
  });
}
const unwrap = (value) => value.js;
const context = createContext({
  $: strict("$", bridge),
  ObjC: strict("ObjC", {
    import: (name) => ["AppKit", "CoreGraphics"].includes(name) || refuse(`import ${name}`),
    ...{ unwrap, deepUnwrap: unwrap },
  }),
  Application: Object.assign(systemEvents, {
    currentApplication: () => ({
      displayNotification: (text, { withTitle }) =>
        put({ ...standing().forms, notification: `${withTitle}: ${text}` }),
    }),
  }),
  delay: (seconds) => sleep(seconds * 1000),
});
// A reader that is gone ends it, as SIGPIPE does.
try {
  runInContext(`${script}\n;run`, context)(words);
} catch (error) {
  refuse(String(error));
}
