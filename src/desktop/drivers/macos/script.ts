/**
 * What `osascript -l JavaScript` runs (JavaScript for Automation; NSPasteboard of AppKit). Its first word is what it does:
 * `read` says what stands on the pasteboard in a line of JSON; `watch` says so at each change, for as long as the process
 * that started it runs; `offer` puts what standard input says there; `notify` shows a sentence; `everything` says all that stands
 * there, in whatever form. `windows` answers each line that it is asked, and `follow` tells of the window in front and of keys (window
 * titles and keys by System Events, which needs the user's leave; Core Graphics for what was pressed).
 */
export const SCRIPT = `
ObjC.import("AppKit");
ObjC.import("CoreGraphics");
const UTF8 = 4;
const board = $.NSPasteboard.generalPasteboard;

function standing(wanted) {
  const types = {};
  const offered = ObjC.deepUnwrap(board.types) || [];
  for (const type of wanted) {
    if (!offered.includes(type)) continue;
    const data = board.dataForType(type);
    types[type] = data.isNil() ? "" : ObjC.unwrap(data.base64EncodedStringWithOptions(0));
  }
  const front = $.NSWorkspace.sharedWorkspace.frontmostApplication;
  return JSON.stringify({ types, app: front.isNil() ? undefined : ObjC.unwrap(front.localizedName) });
}

function say(line) {
  $.NSFileHandle.fileHandleWithStandardOutput.writeData($(line + "\\n").dataUsingEncoding(UTF8));
}

const PRESSED = { key: [10], button: [1, 3, 25] };

function frontWindow() {
  const front = $.NSWorkspace.sharedWorkspace.frontmostApplication;
  return front.isNil() ? null : windowOf(front);
}

function windowOf(application) {
  const id = application.processIdentifier;
  const app = ObjC.unwrap(application.localizedName);
  const windows = Application("System Events").processes.whose({ unixId: id })[0].windows;
  const title = windows.length > 0 ? windows[0].name() : undefined;
  return { id, app, title: title || undefined, isTerminal: /^(Terminal|iTerm2?|Alacritty|kitty|WezTerm|Ghostty)$/.test(app) };
}

const ACTS = {
  front: frontWindow,
  count: () => board.changeCount,
  describe({ id }) {
    const application = $.NSRunningApplication.runningApplicationWithProcessIdentifier(id);
    return application.isNil() || application.terminated ? null : windowOf(application);
  },
  raise({ id }) {
    // 2: also when another one is in front (NSApplicationActivateIgnoringOtherApps).
    return $.NSRunningApplication.runningApplicationWithProcessIdentifier(id).activateWithOptions(2);
  },
  press({ key: { key, code, held } }) {
    const events = Application("System Events");
    if (code === undefined) events.keystroke(key, { using: held });
    else events.keyCode(code, { using: held });
    return true;
  },
};

function answerLines() {
  const input = $.NSFileHandle.fileHandleWithStandardInput;
  for (let rest = ""; ; ) {
    const data = input.availableData;
    if (data.length === 0) return;
    const lines = (rest + ObjC.unwrap($.NSString.alloc.initWithDataEncoding(data, UTF8))).split("\\n");
    rest = lines.pop();
    for (const line of lines) {
      const asked = JSON.parse(line);
      try {
        say(JSON.stringify({ answer: ACTS[asked.act](asked) }));
      } catch (error) {
        say(JSON.stringify({ error: String(error.message || error) }));
      }
    }
  }
}

function followUser() {
  // 1: what hardware has sent, so that keys that a program presses are not told (kCGEventSourceStateHIDSystemState).
  const since = (type) => $.CGEventSourceSecondsSinceLastEventType(1, type);
  for (let last = "", turn = 0; ; turn++) {
    const front = JSON.stringify(frontWindow());
    if (front !== last) say(JSON.stringify({ front: JSON.parse(front) }));
    last = front;
    for (const [input, types] of Object.entries(PRESSED)) if (types.some((type) => since(type) < 0.1)) say(JSON.stringify({ input }));
    delay(0.1);
    if (turn % 20 === 19) say("");
  }
}

function run([act, ...words]) {
  if (act === "windows") answerLines();
  if (act === "follow") followUser();
  if (act === "everything") {
    const types = {};
    for (const type of ObjC.deepUnwrap(board.types) || []) {
      const data = board.dataForType(type);
      if (!data.isNil()) types[type] = ObjC.unwrap(data.base64EncodedStringWithOptions(0));
    }
    say(JSON.stringify(types));
  }
  if (act === "read") say(standing(JSON.parse(words[0])));
  if (act === "watch") {
    const wanted = JSON.parse(words[0]);
    for (let count = board.changeCount, turn = 0; ; turn++) {
      if (board.changeCount !== count) {
        count = board.changeCount;
        say(standing(wanted));
      }
      delay(0.1);
      // An empty line, which nobody can hear when the process that started it is gone: then this one ends too.
      if (turn % 20 === 19) say("");
    }
  }
  if (act === "offer") {
    const input = $.NSFileHandle.fileHandleWithStandardInput.readDataToEndOfFile;
    const types = JSON.parse(ObjC.unwrap($.NSString.alloc.initWithDataEncoding(input, UTF8)));
    board.clearContents;
    for (const [type, base64] of Object.entries(types))
      board.setDataForType($.NSData.alloc.initWithBase64EncodedStringOptions(base64, 0), type);
  }
  if (act === "notify") {
    const app = Application.currentApplication();
    app.includeStandardAdditions = true;
    app.displayNotification(words[0], { withTitle: "Drawer" });
  }
}
`;
