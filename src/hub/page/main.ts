import { DrawerError, reasonOf } from "../../content/error.js";
import { Drawer } from "../../drawer/drawer.js";
import { phonePage } from "../../messages/en/phone.js";
import { Binding } from "../../page/binding/binding.js";
import { saidTime } from "../../page/element/panels/time.js";
import { SnippetDrawer } from "../../page/element/snippet-drawer.js";
import { speakToReader } from "../../page/reader-language.js";
import { openIndexedDb } from "../../stores/indexeddb/index.js";
import { SyncClient } from "../../sync/client.js";
import { follow } from "../../sync/follow.js";
import { keeper } from "./device-keeper.js";
import { make } from "./elements.js";
import { givingBar, type Given } from "./giving.js";
import { joinForm } from "./join-form.js";
import { PhoneDesktop } from "./phone-desktop.js";
import { takeShared } from "./shared.js";

/**
 * The page for the telephone: the user's drawers in the browser, in step with those on their computers. What is pasted or shared
 * into it is collected; what is touched is copied.
 */

/** What the page says, in the reader's language. */
let words = phonePage;

const main = document.querySelector("main")!;

/** The line about the other devices. */
const line = make("p", { className: "state", hidden: true });
line.setAttribute("role", "status");

function show(text: string, isWrong = false, ...more: readonly Node[]): void {
  line.hidden = false;
  line.className = isWrong ? "state wrong" : "state";
  line.replaceChildren(text, ...more);
}

/** The invitation in the address, which is taken out of it: it stays in no history. */
function takeInvitation(): string {
  const invitation = decodeURIComponent(location.hash.slice(1));
  if (invitation !== "") history.replaceState(null, "", location.pathname);
  return invitation;
}

async function open(): Promise<void> {
  const invitation = takeInvitation();
  if ((await speakToReader()) === "de") words = (await import("../../messages/de/phone.js")).phonePage;
  document.title = words.title;
  const store = await openIndexedDb("drawer");
  const client = new SyncClient(store, keeper);
  const desktop = new PhoneDesktop((name) => new Drawer(store, name));
  const binding = new Binding(new Drawer(store, "main"), { desktop, exclude: "*" });
  const element = new SnippetDrawer();
  element.setAttribute("panel", "");
  element.binding = binding;
  const begin = make("ol", { className: "begin", slot: "empty" });
  begin.append(...words.begin.map((each) => make("li", {}, each)));
  element.append(begin);
  const failed = (error: unknown) => show(reasonOf(error), true);

  const collect = async ({ html = "", text = "", files = [] }: Given) => {
    const { name: app = words.join.deviceName } = (await client.devices()).find(({ isThis }) => isThis) ?? {};
    const transfer = new DataTransfer();
    if (html !== "") transfer.setData("text/html", html);
    if (text !== "") transfer.setData("text/plain", text);
    for (const file of files) transfer.items.add(file);
    await element.take(transfer, false, { app });
  };
  const form = joinForm(words.join, async (invitation, name) => {
    await client.join(invitation, { name, hub: hubHere() });
    // What is here is kept until the user says otherwise, also where room is scarce.
    if (isSecureContext) await navigator.storage.persist();
    const own = (await client.devices()).find(({ isThis }) => isThis);
    if (own) show(words.joined(own.words));
    void keepInStep(client, form.element).catch(failed);
  });
  const giving = givingBar(words, collect, (sentence) => show(sentence, true));
  main.append(line, form.element, element, giving);

  form.element.hidden = (await client.devices()).length > 0;
  form.fill(invitation);
  addEventListener("hashchange", () => form.fill(takeInvitation()));
  if (form.element.hidden) void keepInStep(client, form.element).catch(failed);
  const takeAllShared = () => takeShared(collect).catch(failed);
  await takeAllShared();
  document.addEventListener("visibilitychange", () => void (document.hidden || takeAllShared()));
}

/** The address of the hub that serves this page: an invitation that does not say its hub means that. */
function hubHere(): string {
  return new URL(".", location.href).href.replace(/\/$/, "");
}

/** Exchanges with the other devices for as long as the page is open, and says how that goes. */
async function keepInStep(client: SyncClient, form: HTMLElement): Promise<void> {
  try {
    await follow(client, {
      signal: new AbortController().signal,
      exchanged: ({ absent }) => {
        void sayInStep(
          client,
          absent.filter(({ why }) => why === "waiting").map(({ drawer }) => drawer),
        );
      },
      failed: (error) => show(error.code === "hub-away" ? words.away : error.message, true),
    });
  } catch (error) {
    if (!(error instanceof DrawerError) || error.code !== "removed") throw error;
    const again = make("button", { textContent: words.again, type: "button" });
    again.addEventListener("click", () => {
      void client.leave().then(() => {
        line.hidden = true;
        form.hidden = false;
      });
    });
    show(words.removed, true, again);
  }
}

/** Says when the others were heard, and what does not fit here. `waiting` has a drawer for each snippet that does not. */
async function sayInStep(client: SyncClient, waiting: readonly string[]): Promise<void> {
  const others = (await client.devices()).filter(({ isThis }) => !isThis);
  const said = words.inStep(
    others.map(({ name, lastThere }) => ({
      name,
      time: lastThere === undefined ? undefined : saidTime(lastThere),
    })),
  );
  if (waiting.length === 0) return show(said);
  const take = make("button", { textContent: words.takeAll, type: "button" });
  take.addEventListener("click", () => {
    take.disabled = true;
    void takeWaiting(client, waiting).catch((error: unknown) => show(reasonOf(error), true));
  });
  show(`${said} ${words.more(waiting.length)}`, false, take);
}

/** Raises the rules of drawers, so that what the others hold has room, and fetches it. */
async function takeWaiting(client: SyncClient, waiting: readonly string[]): Promise<void> {
  for (const name of new Set(waiting)) {
    const drawer = new Drawer(client.store, name);
    const more = waiting.filter((each) => each === name).length;
    await drawer.setRules({ snippets: (await drawer.count()) + more });
  }
  await client.exchange();
  await sayInStep(client, []);
}

/** Has the browser keep the page itself, so that it opens without a network, and hear what is shared into it. */
async function install(): Promise<void> {
  if (!("serviceWorker" in navigator)) return;
  const address = "./worker.js";
  const policy = (
    globalThis as {
      trustedTypes?: { createPolicy(name: string, rules: object): { createScriptURL(url: string): string } };
    }
  ).trustedTypes?.createPolicy("drawer-worker", { createScriptURL: () => address });
  await navigator.serviceWorker.register(policy?.createScriptURL(address) ?? address);
}

open().catch((error: unknown) => {
  show(reasonOf(error), true);
  if (!(error instanceof DrawerError)) throw error;
});
install().catch((error: unknown) => show(reasonOf(error), true));
