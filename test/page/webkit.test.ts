import { spawn, spawnSync, type ChildProcess } from "node:child_process";
import { createServer, type AddressInfo } from "node:net";
import { display, until } from "../support/desktop";
import { site } from "../support/site";

const isThere = spawnSync("which", ["WebKitWebDriver"]).status === 0;
if (!isThere) console.log("Skipped: WebKit, because WebKitWebDriver is not on this machine.");
const onWebKit = isThere || process.env["CI"] ? describe : describe.skip;

/** Places, with what stands in each after a placing: the text in all of them, in those named the look too. */
const PLACES: Readonly<Record<string, string>> = {
  ...{ line: "input", lines: "textarea", react: "input", plaintext: "[contenteditable]" },
  ...{ editable: "[contenteditable]", prosemirror: ".ProseMirror", lexical: "[contenteditable]" },
  ...{
    codemirror: ".cm-content",
    quill: ".ql-editor",
    slate: "[data-slate-editor]",
    ckeditor: ".ck-editor__editable",
  },
};
const WITH_LOOK = ["editable", "prosemirror", "lexical", "quill", "ckeditor"];

/** A port of this computer that nobody has. */
function freePort(): Promise<number> {
  return new Promise((settle) => {
    const server = createServer().listen(0, "127.0.0.1", () => {
      const { port } = server.address() as AddressInfo;
      server.close(() => settle(port));
    });
  });
}

/** WebKitGTK, driven by WebDriver (W3C) over HTTP. */
class WebKit {
  #session = "";

  constructor(readonly address: string) {}

  async begin(browser: string): Promise<void> {
    const options = { "webkitgtk:browserOptions": { binary: browser, args: ["--automation"] } };
    const { sessionId } = await this.#ask("POST", "/session", { capabilities: { alwaysMatch: options } });
    this.#session = `/session/${sessionId as string}`;
  }

  go(url: string): Promise<unknown> {
    return this.#ask("POST", `${this.#session}/url`, { url });
  }

  /** Runs the body of an asynchronous function in the page. */
  run(body: string, ...args: unknown[]): Promise<unknown> {
    const script = `const done = arguments[arguments.length - 1]; const args = [...arguments].slice(0, -1);
      (async () => { ${body} })().then((value) => done({ value }), (error) => done({ error: String(error) }));`;
    return this.#ask("POST", `${this.#session}/execute/async`, { script, args }).then((said) => {
      const { value, error } = said as { readonly value?: unknown; readonly error?: string };
      if (error !== undefined) throw new Error(error);
      return value;
    });
  }

  async click(selector: string): Promise<void> {
    const found = await this.#ask("POST", `${this.#session}/element`, {
      using: "css selector",
      value: selector,
    });
    await this.#ask("POST", `${this.#session}/element/${Object.values(found)[0] as string}/click`, {});
  }

  end(): Promise<unknown> {
    return this.#session === "" ? Promise.resolve() : this.#ask("DELETE", this.#session);
  }

  async #ask(method: string, path: string, body?: object): Promise<Record<string, unknown>> {
    const response = await fetch(this.address + path, {
      method,
      ...(body && { body: JSON.stringify(body) }),
    });
    const { value } = (await response.json()) as { readonly value: Record<string, unknown> };
    if (!response.ok) throw new Error(JSON.stringify(value));
    return value;
  }
}

onWebKit("places in WebKit", () => {
  let driver: ChildProcess | undefined;
  let served: Awaited<ReturnType<typeof site>> | undefined;
  let webkit: WebKit;
  // Before the display ends, which would take the browser with it.
  afterAll(async () => {
    await webkit?.end();
    driver?.kill();
    served?.close();
  });
  display();
  beforeAll(async () => {
    served = await site("anywhere");
    const port = await freePort();
    // No sandbox and no graphics card, as containers have neither.
    const env = {
      ...process.env,
      WEBKIT_DISABLE_SANDBOX_THIS_IS_DANGEROUS: "1",
      WEBKIT_DISABLE_COMPOSITING_MODE: "1",
    };
    driver = spawn("WebKitWebDriver", [`--port=${port}`], { env, stdio: "ignore" });
    webkit = new WebKit(`http://127.0.0.1:${port}`);
    const answers = () =>
      fetch(`http://127.0.0.1:${port}/status`).then(
        ({ ok }) => ok,
        () => false,
      );
    await until(answers, (ok) => ok, 60_000);
    await webkit.begin(
      spawnSync("sh", ["-c", "ls /usr/lib/*/webkit2gtk-4*/MiniBrowser | tail -1"], {
        encoding: "utf8",
      }).stdout.trim(),
    );
  }, 180_000);
  test("a block lands at the caret of each, in its look, and is taken back", async () => {
    await webkit.go(served!.address);
    await until(
      () => webkit.run("return document.body.dataset.ready"),
      (ready) => ready === "yes",
    );
    const html = "<p>First <b>wheatear</b> on the seawall.</p>";
    await webkit.run(
      `await document.querySelector("snippet-drawer").binding.collect({ html: args[0] })`,
      html,
    );
    const press = (selector: string, until: string) =>
      webkit.run(
        `const root = document.querySelector("snippet-drawer").shadowRoot;
         root.querySelector(args[0]).click();
         for (let n = 0; n < 100 && !root.querySelector(".notice span").textContent.trim().startsWith(args[1]); n++)
           await new Promise((next) => setTimeout(next, 50));
         return root.querySelector(".notice span").textContent.trim();`,
        selector,
        until,
      );
    for (const [id, inner] of Object.entries(PLACES)) {
      const selector = `#${id} ${inner}`;
      const reading = () =>
        webkit.run(
          `const place = document.querySelector(args[0]);
           return [(place.value ?? place.innerText).replace(/\\s+/g, ""), /<(b|strong)\\b/.test(place.innerHTML)];`,
          selector,
        ) as Promise<[string, boolean]>;
      await webkit.run(`document.querySelector(args[0]).scrollIntoView({ block: "center" })`, selector);
      await webkit.click(selector);
      const [before] = await reading();
      expect([id, await press(".snippet", "Placed")]).toEqual([
        id,
        expect.stringMatching(/^Placed snippet 1 in “.+”\.$/),
      ]);
      expect([id, ...(await reading())]).toEqual([
        id,
        expect.stringContaining("Firstwheatearontheseawall."),
        WITH_LOOK.includes(id),
      ]);
      expect([id, await press(".notice button", "Undone")]).toEqual([id, "Undone: placing snippet 1."]);
      expect([id, (await reading())[0]]).toEqual([id, before]);
    }
  });
});
