// Stands for `osascript` of macOS: runs JavaScript for Automation as the man page says (`-l JavaScript -e SCRIPT WORD…`,
// whose function `run` gets the words), with as much of Foundation and AppKit as the clipboard needs. Methods without
// arguments are called by naming them, as the bridge does. What Apple's documents do not have is refused.
import { readFileSync, writeSync } from "node:fs";
import { createContext, runInContext } from "node:vm";
import { put, refuse, sleep, standing } from "./pasteboard.mjs";

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
const bridge = Object.assign((text) => string(text), {
  NSPasteboard: strict("NSPasteboard", { generalPasteboard: board }),
  NSWorkspace: strict("NSWorkspace", {
    get sharedWorkspace() {
      const { app } = standing();
      const front = app === undefined ? nil : { isNil: () => false, localizedName: string(app) };
      return strict("NSWorkspace", { frontmostApplication: front });
    },
  }),
  NSFileHandle: strict("NSFileHandle", {
    fileHandleWithStandardOutput: strict("NSFileHandle", { writeData: ({ bytes }) => writeSync(1, bytes) }),
    fileHandleWithStandardInput: strict("NSFileHandle", {
      get readDataToEndOfFile() {
        return data(readFileSync(0));
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
const unwrap = (value) => value.js;
const context = createContext({
  $: strict("$", bridge),
  ObjC: strict("ObjC", {
    import: (name) => name === "AppKit" || refuse(`import ${name}`),
    ...{ unwrap, deepUnwrap: unwrap },
  }),
  Application: {
    currentApplication: () => ({
      displayNotification: (text, { withTitle }) =>
        put({ ...standing().forms, notification: `${withTitle}: ${text}` }),
    }),
  },
  delay: (seconds) => sleep(seconds * 1000),
});
// A reader that is gone ends it, as SIGPIPE does.
try {
  runInContext(`${script}\n;run`, context)(words);
} catch (error) {
  refuse(String(error));
}
