import { DrawerError, errorOf, type Refusal } from "../../content/error.js";
import { Drawer } from "../../drawer/drawer.js";
import { windowPage } from "../../messages/en/window.js";
import { Binding } from "../../page/binding/binding.js";
import { SnippetDrawer } from "../../page/element/snippet-drawer.js";
import { speakToReader } from "../../page/reader-language.js";
import { openRemote } from "../../stores/remote/client.js";
import type { WindowNews } from "../window-desktop.js";
import { keepBounds } from "./bounds.js";
import { DesktopClient } from "./desktop-client.js";

/** The window: a drawer of the user's, as the server that serves this page has it, and the desktop around it. */

/** What the page says, in the reader's language. */
let words = windowPage;

async function speak(): Promise<void> {
  if ((await speakToReader()) === "de") words = (await import("../../messages/de/window.js")).windowPage;
}

const main = document.querySelector("main")!;

/** A line above the drawer, for what concerns the window as a whole. */
const line = Object.assign(document.createElement("p"), { className: "notice", hidden: true });
line.setAttribute("role", "status");

function show(text: string | undefined, ...more: readonly (string | Node)[]): void {
  line.hidden = text === undefined;
  line.replaceChildren(text ?? "", ...more);
}

/** A word that does something. */
function wordThat(does: () => void, textContent: string): HTMLButtonElement {
  return Object.assign(document.createElement("button"), { className: "word", textContent, onclick: does });
}

/** Where the token stands: pages of this origin alone reach it, and a page that is loaded again has it. */
const TOKEN = "drawer-token";

/**
 * The key of the address is exchanged for a token, and taken out of the address, so that it stays in no history.
 * @returns what asks the server with that token
 */
async function enter(): Promise<typeof fetch> {
  const key = location.hash.slice(1);
  if (key !== "") {
    history.replaceState(null, "", location.pathname + location.search);
    const headers = { "content-type": "application/json" };
    const entered = await fetch("/enter", { method: "POST", headers, body: JSON.stringify({ key }) });
    if (entered.ok) sessionStorage.setItem(TOKEN, ((await entered.json()) as { token: string }).token);
  }
  const authorization = `Bearer ${sessionStorage.getItem(TOKEN) ?? ""}`;
  return (input, init = {}) => {
    const headers = new Headers(init.headers);
    headers.set("authorization", authorization);
    return fetch(input, { ...init, headers });
  };
}

/** How one begins, while the drawer is empty. */
function beginning(fill: () => void): HTMLElement {
  const part = document.createElement("div");
  part.slot = "empty";
  const list = document.createElement("ol");
  list.className = "begin";
  for (const line of words.begin)
    list.append(Object.assign(document.createElement("li"), { textContent: line }));
  part.append(list, `${words.sample[0]} `, wordThat(fill, words.sample[1]), ".");
  return part;
}

/** Why copies are not heard, where there is more to say than that. */
function whyNotListening(refusal: Refusal): string | undefined {
  return refusal.reason === "no-clipboard" ? undefined : errorOf(refusal).message;
}

/** Has the window's title say which drawer it shows, and how much is in it. */
function followTitle(binding: Binding): void {
  let stop = () => {};
  const say = async () => {
    const { drawer } = binding;
    document.title = words.title({ drawer: drawer.name, count: await drawer.count() });
  };
  const follow = () => {
    stop();
    stop = binding.drawer.watch(() => void say());
    void say();
  };
  binding.on("opened", follow);
  follow();
}

/** Tells the desktop which window is this one, whenever it comes to the front. */
function noteOwn(desktop: DesktopClient): void {
  // The desktop hears of a title a moment after the page has it; what all titles of this page begin with it has at once.
  const note = () => void desktop.noteOwn(document.title.split("·", 1)[0]!).catch(() => undefined);
  addEventListener("focus", note);
  if (document.hasFocus()) note();
}

async function open(): Promise<void> {
  await speak();
  const ask = await enter();
  const store = await openRemote("/store/", { fetch: ask });
  const desktop = new DesktopClient(ask);
  const name = new URLSearchParams(location.search).get("drawer") ?? "main";
  // What is copied in the window itself is heard as all copies on the desktop are.
  const binding = new Binding(new Drawer(store, name), { desktop, exclude: "*" });
  const element = new SnippetDrawer();
  element.binding = binding;
  element.append(
    beginning(() => {
      void desktop.fillSample().then(
        (sample) => binding.open(sample),
        (error: unknown) => binding.report({ notices: [], error: error as DrawerError }),
      );
    }),
  );
  main.append(element);
  followTitle(binding);
  noteOwn(desktop);
  void keepBounds(store, (error) => binding.report({ notices: [], error: error as DrawerError }));
  // What is dropped or pasted beside the drawer is meant for it; a browser would leave the page for a file.
  document.addEventListener("dragover", (event) => event.preventDefault());
  for (const type of ["drop", "paste"] as const)
    document.addEventListener(type, (event) => {
      if (event.composedPath().includes(element)) return;
      event.preventDefault();
      const transfer = "dataTransfer" in event ? event.dataTransfer : event.clipboardData;
      if (transfer) void element.take(transfer, type === "drop");
    });

  let isReached = true;
  let obstacle: string | undefined;
  let into = name;
  const say = () => {
    const { drawer } = binding;
    if (!isReached) return show(words.away);
    if (obstacle !== undefined || into === drawer.name) return show(obstacle);
    const here = () => void desktop.collectInto(drawer.name, binding.appends);
    show(words.elsewhere(into), " ", wordThat(here, words.here));
  };
  binding.on("opened", say);
  store.whenReached((is) => {
    isReached = is;
    say();
  });
  desktop.listen((news: WindowNews) => {
    const { notices, refused, listening } = news;
    if (listening?.isListening) obstacle = listening.isWatched ? words.watched : undefined;
    else if (listening) obstacle = words.notListening(whyNotListening(listening));
    if (news.into) into = news.into.drawer;
    // What is said of where a block goes is another.
    if (news.caret) element.requestUpdate();
    if (news.isShown) element.focusFind();
    if (listening || news.into) say();
    if (notices.length > 0 || refused)
      binding.report({ notices, ...(refused && { error: errorOf(refused) }) });
  });
}

main.append(line);
open().catch((error: unknown) => {
  show(error instanceof DrawerError ? words.locked : String(error));
  if (!(error instanceof DrawerError)) throw error;
});
