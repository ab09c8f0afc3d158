import { chromium } from "playwright-core";
import { CHROMIUM_FLAGS, findHeadless } from "../scripts/chromium.mjs";
import { servePage } from "../scripts/serve-page.mjs";

const COUNT = 10_000;

const PAGE = `
  import { Editor } from "@tiptap/core";
  import StarterKit from "@tiptap/starter-kit";
  import { Drawer } from "./dist/index.js";
  import { piece } from "./bench/pieces.mjs";
  import { openIndexedDb } from "./dist/stores/indexeddb/index.js";
  import { Binding } from "./dist/page/index.js";
  const field = document.body.appendChild(document.createElement("textarea"));
  const host = document.body.appendChild(document.createElement("div"));
  const text = document.body.appendChild(document.createElement("article"));
  let editor = new Editor({ element: host, extensions: [StarterKit] });
  const prose = () => host.querySelector(".ProseMirror");
  // Until it can be seen: an editor's own way is done before what it has put in is laid out and drawn.
  const drawn = () => new Promise((next) => requestAnimationFrame(() => setTimeout(next)));
  const timed = async (deed) => {
    const begin = performance.now();
    await deed();
    await drawn();
    return performance.now() - begin;
  };
  window.begin = async (count) => {
    const drawer = new Drawer(await openIndexedDb("placing"));
    await drawer.setRules({ snippets: null, size: null });
    for (let from = 0; from < count; from += 1000)
      await drawer.collect(Array.from({ length: 1000 }, (_, n) => piece(from + n)));
    window.binding = new Binding(drawer);
  };
  const anew = async () => {
    editor.destroy();
    host.replaceChildren();
    editor = new Editor({ element: host, extensions: [StarterKit] });
    prose().focus();
    await new Promise((next) => setTimeout(next, 300));
  };
  let block;
  window.inEditor = async () => {
    await anew();
    window.binding.addEventListener("placing", (event) => (block = event.detail.block), { once: true });
    return timed(() => window.binding.placePick("all"));
  };
  window.ownPaste = async () => {
    await anew();
    const clipboardData = new DataTransfer();
    clipboardData.setData("text/html", block.html);
    return timed(() => prose().dispatchEvent(new ClipboardEvent("paste", { clipboardData, bubbles: true, cancelable: true })));
  };
  window.inField = async () => {
    field.value = "";
    field.focus();
    await new Promise((next) => setTimeout(next, 300));
    return timed(() => window.binding.placePick("all"));
  };
  window.copy = async (on) => {
    text.innerHTML = Array.from({ length: 8000 }, (_, n) => "<p>Paragraph " + n + ": first <b>wheatear</b> on the seawall; wind south-east, force 3; the tide an hour past low.</p>").join("");
    await window.binding.drawer.setRules({ collecting: on });
    await new Promise((next) => setTimeout(next, 500));
    getSelection().selectAllChildren(text);
    const took = await timed(() => document.execCommand("copy"));
    await new Promise((next) => setTimeout(next, 3000));
    text.replaceChildren();
    return took;
  };
`;

/** What a page takes to place everything, and to copy much, against the browser's and the editor's own ways. */
export async function run() {
  const served = await servePage(PAGE);
  const browser = await chromium.launch({ executablePath: findHeadless(), args: CHROMIUM_FLAGS });
  const page = await browser.newPage();
  await page.goto(served.address);
  await page.evaluate((count) => window.begin(count), COUNT);
  const median = async (deed) => {
    const times = [];
    for (let turn = 0; turn < 3; turn++) times.push(await deed());
    return times.sort((a, b) => a - b)[1];
  };
  const print = (name, ours, baseline) =>
    console.log(
      `${name.padEnd(78)} ${ours.toFixed(0).padStart(6)} ms ${baseline.toFixed(0).padStart(6)} ms   × ${(ours / baseline).toFixed(2)}`,
    );
  console.log("\nPlacing and copying in Chromium, against the editor's and the browser's own ways");
  const inEditor = await median(() => page.evaluate(() => window.inEditor()));
  print(
    `place all ${COUNT} in TipTap, read and composed, against its paste of the same HTML`,
    inEditor,
    await median(() => page.evaluate(() => window.ownPaste())),
  );
  const inField = await median(() => page.evaluate(() => window.inField()));
  print(`place all ${COUNT} in a textarea, against placing them in TipTap`, inField, inEditor);
  print(
    "copy 8,000 paragraphs while collecting, against the browser's own copy of them",
    await median(() => page.evaluate(() => window.copy(true))),
    await median(() => page.evaluate(() => window.copy(false))),
  );
  await browser.close();
  served.close();
}
