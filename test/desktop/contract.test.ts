import { spawnSync, type ChildProcess } from "node:child_process";
import { chmodSync, mkdtempSync, readFileSync, renameSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";
import {
  compositor,
  display,
  onDesktop,
  onWayland,
  otherProgram,
  pause,
  takenMeanwhile,
  until,
} from "../support/desktop";
import { compose, readHtml } from "drawer";
import {
  offeredBlock,
  openDesktop,
  type ClipboardEvent,
  type Desktop,
  type DesktopWindow,
  type System,
} from "drawer/desktop";
import { readSource } from "drawer/files";

/** Forms by their media types. */
type Forms = Readonly<Record<string, string | Uint8Array>>;

/** The other programs of a desktop: what they copy, and what they get. */
interface Others {
  /** Whether a program offers several forms at once. */
  readonly hasMany: boolean;
  /** Whether the desktop says which program is in front. */
  readonly saysWho: boolean;
  copy(forms: Forms): Promise<void>;
  taken(type: string): Promise<Buffer>;
  clear(): Promise<void>;
}

const PICTURE = readFileSync("demo/sketches/tide.png");
const HTML = "<p>Wheatears on the <b>seawall</b> – 3 °C</p>";
const RICH = "{\\rtf1\\ansi Wheatears on the {\\b seawall} \\'96 3\\'b0C\\par}";
const folder = mkdtempSync(join(tmpdir(), "drawer-contract-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** What a desktop must do, whatever the system. */
function contract(system: System, others: () => Others): void {
  let desktop: Desktop;
  let heard: ClipboardEvent[] = [];
  beforeEach(async () => {
    await others().clear();
    desktop = await openDesktop(system);
    heard = [];
  });
  afterEach(() => desktop.close());

  const texts = () =>
    heard.map((event) =>
      event.type === "copied" ? (event.copied.text ?? event.copied.html ?? "picture") : event.type,
    );
  const watch = async () => {
    const end = await desktop.watch((event) => heard.push(event));
    // A program of the system needs a moment to begin.
    if (desktop.keepsOffers) await pause(1500);
    return end;
  };

  test("what another program copies is read to the last byte, in the forms that it offers", async () => {
    await others().copy({ "text/plain": "Terns – 3 °C ✓\nsecond line" });
    expect(await desktop.read()).toMatchObject({ text: "Terns – 3 °C ✓\nsecond line" });
    await others().copy({ "image/png": new Uint8Array(PICTURE) });
    expect(Buffer.from((await desktop.read()).picture!).equals(PICTURE)).toBe(true);
    await others().copy(
      others().hasMany ? { "text/plain": "bare", "text/html": HTML } : { "text/html": HTML },
    );
    const { html, text } = await desktop.read();
    expect(html).toContain("<b>seawall</b> – 3 °C");
    if (others().hasMany) expect(text).toBe("bare");
    await others().copy({ "application/rtf": RICH });
    expect(Buffer.from((await desktop.read()).rtf!).toString("latin1")).toBe(RICH);
  });

  test("an empty clipboard is said", async () => {
    await expect(desktop.read()).rejects.toMatchObject({ reason: "no-clipboard/empty" });
  });

  test("a block is offered so that other programs take it, and an empty one takes it off", async () => {
    const table = "<table><tr><th>Date</th><th>Count</th></tr><tr><td>8 April</td><td>°14</td></tr></table>";
    const block = compose([await readHtml(table)], {});
    await desktop.offer(offeredBlock(block, false));
    expect((await others().taken("text/plain")).toString("utf8")).toBe(block.text);
    if (others().hasMany) {
      const html = (await others().taken("text/html")).toString("utf8");
      expect((await readHtml(html)).content).toEqual(block.content);
      const rtf = await others().taken("application/rtf");
      const source = await readSource(new Uint8Array(rtf), "taken.rtf");
      expect(compose([source.at()]).markdown).toBe(block.markdown);
    }
    await desktop.offer(new Map([["image/png", new Uint8Array(PICTURE)]]));
    expect((await others().taken("image/png")).equals(PICTURE)).toBe(true);
    await desktop.offer(new Map());
    expect((await others().taken("text/plain")).toString("utf8")).toBe("");
  });

  test("a watch tells each copy once and in order, not what stands there, nor what Drawer offers itself", async () => {
    await others().copy({ "text/plain": "stands there" });
    const end = await watch();
    for (const text of ["one", "two", "three"]) {
      await others().copy({ "text/plain": text });
      await until(texts, (all) => all.at(-1) === text);
    }
    await desktop.offer(offeredBlock(compose([await readHtml(HTML)], {}), false));
    await pause(700);
    await others().copy({ "text/plain": "four" });
    await until(texts, (all) => all.at(-1) === "four");
    end();
    await others().copy({ "text/plain": "after the end" });
    await pause(700);
    expect(texts()).toEqual(["one", "two", "three", "four"]);
    const origins = heard.flatMap((event) => (event.type === "copied" ? [event.copied.origin] : []));
    expect(origins.every(({ app }) => (app !== undefined) === others().saysWho)).toBe(true);
  });

  test("what is declared a secret is one, on both ways", async () => {
    if (!desktop.declaresSecrets) return expect(others().hasMany).toBe(false);
    await others().copy({ "text/plain": "terns at low water", "x-kde-passwordManagerHint": "secret" });
    expect(await desktop.read()).toMatchObject({ secret: true, text: "terns at low water" });
    await desktop.offer(offeredBlock(compose([await readHtml(HTML)], {}), true));
    expect(await desktop.read()).toMatchObject({ secret: true });
  });
}

onDesktop("X11", () => {
  display();
  let owner: ChildProcess | undefined;
  let made = 0;
  afterAll(() => void owner?.kill());
  contract("x11", () => ({
    ...{ hasMany: true, saysWho: false },
    async copy(forms) {
      const before = owner;
      const words = Object.entries(forms).map(([type, content]) => {
        const file = join(folder, `${++made}`);
        writeFileSync(file, content);
        return `${type}=@${file}`;
      });
      owner = await otherProgram("offer", ...words);
      before?.kill();
    },
    taken: takenMeanwhile,
    async clear() {
      if (owner && owner.exitCode === null && owner.signalCode === null) {
        const ended = new Promise((done) => owner!.once("exit", done));
        owner.kill();
        await ended;
      }
      await until(
        async () => (await takenMeanwhile("TARGETS")).length,
        (length) => length === 0,
      );
    },
  }));

  /** What is told where one program does not answer, and another copies while it is waited for, and a third after it. */
  async function toldOfThree(): Promise<(string | undefined)[]> {
    const desktop = await openDesktop("x11");
    const heard: ClipboardEvent[] = [];
    await desktop.watch((event) => heard.push(event));
    const programs: ChildProcess[] = [];
    for (const words of [["hang"], ["offer", "text/plain=second"], ["offer", "text/plain=third"]]) {
      programs.push(await otherProgram(...words));
      await pause(60);
    }
    await until(
      () => heard.length,
      (length) => length === 3,
    );
    for (const program of programs) program.kill();
    desktop.close();
    return heard.map((event) =>
      event.type === "copied" ? event.copied.text : event.type === "unread" ? event.error.reason : "",
    );
  }

  test("a copy that is gone before it could be read is told, and what of it was read is collected", async () => {
    // On a busy machine the third may come only when the first is not waited for any more: then the second can be read.
    const told = await until(
      () => toldOfThree(),
      ([, second]) => second !== "second",
      60_000,
    );
    expect(told).toEqual(["no-clipboard/silent", "no-clipboard/missed", "third"]);
  });
});

onWayland("Wayland", () => {
  compositor();
  const run = (program: string, words: readonly string[], input?: string | Uint8Array) =>
    spawnSync(program, words, {
      ...(input !== undefined && { input }),
      // What stays in the background keeps what it was given open.
      stdio: ["pipe", program === "wl-paste" ? "pipe" : "ignore", "ignore"],
      env: { ...process.env },
      maxBuffer: 1 << 28,
    });
  contract("wayland", () => ({
    ...{ hasMany: false, saysWho: false },
    async copy(forms) {
      const [[type, content]] = Object.entries(forms) as [[string, string | Uint8Array]];
      run("wl-copy", ["--type", type], content);
    },
    taken: async (type) => run("wl-paste", ["--no-newline", "--type", type]).stdout,
    clear: async () => void run("wl-copy", ["--clear"]),
  }));
});

/** What a stand-in has instead of a system. */
interface StandIn {
  count: number;
  forms: Record<string, string>;
  windows: readonly DesktopWindow[];
  front: number;
  /** The event of a key (10) or a button (1) of the user's, and when. */
  pressed?: { type: 1 | 10; at: number } | undefined;
  /** What came to which window. */
  typed: readonly [number, string][];
  isLocked?: boolean;
}

/** A system whose programs are stand-ins, with what its clipboard calls each form. */
function standIn(
  program: string,
  script: string,
  names: Readonly<Record<string, string>>,
): Others & { state(): StandIn; change(changes: Partial<StandIn>): void } {
  const state = join(folder, `${program}.json`);
  const standing = () => JSON.parse(readFileSync(state, "utf8")) as StandIn;
  // Put there whole: the programs may read at any moment.
  const change = (changes: Partial<StandIn>) => {
    writeFileSync(`${state}.new`, JSON.stringify({ ...standing(), ...changes }));
    renameSync(`${state}.new`, state);
  };
  const put = (forms: Record<string, string>, count: number) => change({ forms, count });
  const before = process.env["PATH"]!;
  beforeAll(() => {
    writeFileSync(join(folder, program), `#!/bin/sh\nexec "${process.execPath}" "${resolve(script)}" "$@"\n`);
    chmodSync(join(folder, program), 0o755);
    process.env["PATH"] = `${folder}:${before}`;
    process.env["STAND_IN"] = state;
    const windows = [
      { id: 7, app: "Merrow Sheets", title: "berths" },
      { id: 8, app: "Drawer", title: "Drawer · main" },
      { id: 9, app: "Merrow Letters", title: "harbour" },
    ];
    writeFileSync(state, JSON.stringify({ count: 1, forms: {}, windows, front: 7, typed: [] }));
  });
  afterAll(() => void (process.env["PATH"] = before));
  return {
    ...{ hasMany: true, saysWho: true },
    async copy(forms) {
      const named = Object.entries(forms).map(([type, content]) => {
        const bytes = type === "text/html" && program === "powershell.exe" ? cfHtml(`${content}`) : content;
        return [names[type]!, Buffer.from(bytes).toString("base64")];
      });
      put(Object.fromEntries(named) as Record<string, string>, standing().count + 1);
    },
    taken: async (type) => Buffer.from(standing().forms[names[type]!] ?? "", "base64"),
    clear: async () => put({}, standing().count + 1),
    ...{ state: standing, change },
  };
}

/** What a system must do whose windows are reached by running its programs. */
function windowsContract(system: System, others: ReturnType<typeof standIn>): void {
  describe("its windows", () => {
    let desktop: Desktop;
    beforeEach(async () => {
      others.change({ front: 9, typed: [], isLocked: false, pressed: undefined });
      desktop = await openDesktop(system);
    });
    afterEach(() => desktop.close());
    const offered = (text: string) => new Map([["text/plain", new TextEncoder().encode(text)]]);

    test("the window in front is known and followed; one comes to the front, and one that is gone does not", async () => {
      const windows = desktop.windows!;
      const fronts: (string | undefined)[] = [];
      const off = await windows.follow((front) => fronts.push(front?.title));
      expect(await windows.front()).toMatchObject({ id: 9, app: "Merrow Letters", title: "harbour" });
      expect(await windows.raise({ id: 7, app: "Merrow Sheets" })).toBe(true);
      expect(others.state().front).toBe(7);
      await until(
        () => fronts.at(-1),
        (title) => title === "berths",
      );
      expect(await windows.raise({ id: 7, app: "another program by now" })).toBe(false);
      expect(await windows.describe({ id: 77, app: "Merrow Sheets" })).toBeUndefined();
      off();
    });

    test("pieces land at the caret one after another; what stood on the clipboard is there again, and nobody collects it", async () => {
      await others.copy({ "text/plain": "copied before", "text/html": "<b>copied before</b>" });
      const before = others.state().forms;
      const heard: ClipboardEvent[] = [];
      await desktop.watch((event) => heard.push(event));
      const pasted = await desktop.windows!.paste([offered("AB 12"), offered("– 3 °C ✓")], {
        modifiers: [],
        key: "Tab",
      });
      expect(pasted).toEqual({ taken: 2, isUnsure: true });
      expect(others.state().typed).toEqual([
        [9, "AB 12"],
        [9, "Tab"],
        [9, "– 3 °C ✓"],
      ]);
      expect(await desktop.windows!.putBack()).toBe(true);
      expect(others.state().forms).toMatchObject(before);
      await others.copy({ "text/plain": "a copy of the user's" });
      await until(
        () => heard.length,
        (length) => length > 0,
      );
      expect(heard.map((event) => event.type === "copied" && event.copied.text)).toEqual([
        "a copy of the user's",
      ]);
    });

    test("what the user has copied since then stays, and is there again after what is placed next", async () => {
      const texts = () =>
        Object.values(others.state().forms).map((one) => Buffer.from(one, "base64").toString());
      await others.copy({ "text/plain": "copied before" });
      await desktop.windows!.paste([offered("AB 12")]);
      await others.copy({ "text/plain": "copied since" });
      expect(await desktop.windows!.putBack()).toBe(true);
      expect(texts()).toEqual(["copied since"]);
      await desktop.windows!.paste([offered("AB 12")]);
      await others.copy({ "text/plain": "and once more" });
      await desktop.windows!.paste([offered("AB 13")]);
      await desktop.windows!.putBack();
      expect(texts()).toContain("and once more");
    });

    test.each<["key" | "button" | "window"]>([["key"], ["button"], ["window"]])(
      "a %s of the user's stops it",
      async (what) => {
        const series = Array.from({ length: 8 }, (_, at) => offered(`${at}`));
        const pasting = desktop.windows!.paste(series, { modifiers: [], key: "Down" });
        await until(
          () => others.state().typed.length,
          (length) => length > 0,
        );
        // In the moments in which Drawer presses a key itself, one of the user's is taken for it: so they go on.
        let goesOn = true;
        void pasting.finally(() => (goesOn = false)).catch(() => undefined);
        while (goesOn) {
          if (what === "window") others.change({ front: 7 });
          else others.change({ pressed: { type: what === "key" ? 10 : 1, at: Date.now() } });
          await pause(60);
        }
        const { taken, stopped } = await pasting;
        expect(stopped).toBe(what === "window" ? "window" : "key");
        expect(taken).toBeLessThan(8);
        expect(others.state().typed.every(([window]) => window === 9)).toBe(true);
      },
    );
  });
}

/** As a browser on Windows puts HTML there, with the address of the page. */
function cfHtml(fragment: string): string {
  const head = (numbers: readonly number[]) =>
    [
      "Version:0.9",
      ...["StartHTML", "EndHTML", "StartFragment", "EndFragment"].map(
        (name, at) => `${name}:${`${numbers[at]}`.padStart(9, "0")}`,
      ),
      "SourceURL:https://merrow-spit.example/tides",
      "",
    ].join("\r\n");
  const [open, close] = ["<html><body><!--StartFragment-->", "<!--EndFragment--></body></html>"];
  const start = head([0, 0, 0, 0]).length;
  const from = start + open.length;
  const to = from + Buffer.byteLength(fragment);
  return head([start, to + close.length, from, to]) + open + fragment + close;
}

describe("macOS, by a stand-in for osascript", () => {
  const others = standIn("osascript", "test/support/stand-ins/osascript.mjs", {
    "text/plain": "public.utf8-plain-text",
    "text/html": "public.html",
    "application/rtf": "public.rtf",
    "image/png": "public.png",
    "x-kde-passwordManagerHint": "org.nspasteboard.ConcealedType",
  });
  contract("macos", () => others);
  windowsContract("macos", others);

  test("where the user has given no leave, that is told with the program's own words", async () => {
    others.change({ isLocked: true });
    const desktop = await openDesktop("macos");
    await expect(desktop.windows!.front()).rejects.toThrow("not allowed assistive access");
    others.change({ isLocked: false });
    desktop.close();
  });
});

describe("Windows, by a stand-in for PowerShell", () => {
  const others = standIn("powershell.exe", "test/support/stand-ins/powershell.mjs", {
    "text/plain": "UnicodeText",
    "text/html": "HTML Format",
    "application/rtf": "Rich Text Format",
    "image/png": "PNG",
    "x-kde-passwordManagerHint": "ExcludeClipboardContentFromMonitorProcessing",
  });
  contract("windows", () => others);
  windowsContract("windows", others);

  test("the page that was copied from is known, and notifications are shown", async () => {
    await others.copy({ "text/html": HTML });
    const desktop = await openDesktop("windows");
    expect((await desktop.read()).origin).toEqual({
      ...{ app: "Merrow Sheets", title: "berths", address: "https://merrow-spit.example/tides" },
    });
    await desktop.notify("Collected as 4: “Terns”.");
    expect(readFileSync(join(folder, "powershell.exe.json"), "utf8")).toContain("Collected as 4: “Terns”.");
  });
});

test("a program of the system that is not there is named, with what to do", async () => {
  const before = process.env["PATH"];
  process.env["PATH"] = "/nowhere";
  try {
    const desktop = await openDesktop("wayland");
    await expect(desktop.read()).rejects.toThrow(
      "The clipboard of this desktop is reached by “wl-paste”, which is not there. Install the package wl-clipboard.",
    );
  } finally {
    process.env["PATH"] = before;
  }
});
