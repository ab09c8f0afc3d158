/**
 * What `osascript -l JavaScript` runs (JavaScript for Automation; NSPasteboard of AppKit). Its first word is what it does:
 * `read` says what stands on the pasteboard in a line of JSON; `watch` says so at each change, for as long as the process
 * that started it runs; `offer` puts what standard input says there; `notify` shows a sentence.
 */
export const SCRIPT = `
ObjC.import("AppKit");
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

function run([act, ...words]) {
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
