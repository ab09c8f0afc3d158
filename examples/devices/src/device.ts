import "../../shared/look.css";
import { Drawer } from "drawer";
import { openIndexedDb } from "drawer/indexeddb";
import { Binding, SnippetDrawer } from "drawer/page";
import { follow, readSecrets, SyncClient, writeSecrets, type SecretKeeper } from "drawer/sync";

/** One of the two devices: a letter, and a drawer that the other device has too. */

const asked = new URLSearchParams(location.search);
const name = asked.get("name") ?? "Desk";

/** What each has to copy from. */
const LETTERS: Readonly<Record<string, string>> = {
  Desk: "<p>First wheatear on the seawall at 05:50; wind south-east, force 3.</p><p>Boardwalk plank 31 is loose. Do not lean on the rail.</p>",
  Laptop:
    "<p>Net round 1 began at 06:10: nine birds in the heath rides.</p><p>Two sandwich terns over the bar.</p>",
};

/** The secrets of this device, where pages of this origin alone reach them. */
const keeper: SecretKeeper = {
  read: async () => readSecrets(localStorage.getItem(`device ${name}`) ?? ""),
  write: async (secrets) => localStorage.setItem(`device ${name}`, secrets ? writeSecrets(secrets) : ""),
};

/** The two pages speak to each other only to join; in life, a person carries the words from one to the other. */
const words = new BroadcastChannel("an invitation");

async function meet(client: SyncClient, hub: string): Promise<void> {
  // The hub of the examples is another one each time they are served.
  const before = await keeper.read();
  if (before && before.hub !== hub) await client.leave();
  const isIn = before?.hub === hub && (await client.devices()).length > 0;
  if (name === "Desk") {
    if (!isIn) await client.begin({ hub, name });
    words.onmessage = ({ data }: MessageEvent<string>) => {
      if (data === "please") void client.invite().then((invitation) => words.postMessage(invitation));
    };
    words.postMessage("ready");
  } else if (!isIn) {
    const invitation = await new Promise<string>((settle) => {
      words.onmessage = ({ data }: MessageEvent<string>) =>
        data === "ready" ? words.postMessage("please") : settle(data);
      words.postMessage("please");
    });
    await client.join(invitation, { name });
  }
}

async function open(): Promise<void> {
  document.title = `${name} of Merrow Spit`;
  document.querySelector("h1")!.textContent = name;
  document.querySelector("#paper")!.innerHTML = LETTERS[name] ?? "";
  const hub = asked.get("hub") ?? (await (await fetch("hub.txt")).text());
  const store = await openIndexedDb(`devices ${name}`);
  const element = new SnippetDrawer();
  element.setAttribute("panel", "");
  element.binding = new Binding(new Drawer(store, "main"));
  document.querySelector("#drawer")!.append(element);

  const client = new SyncClient(store, keeper);
  const state = document.querySelector("#state")!;
  await meet(client, hub);
  let ending = new AbortController();
  const inStep = async () => {
    await follow(client, {
      signal: ending.signal,
      exchanged: ({ notices }) => (state.textContent = notices.map(({ message }) => message).join(" ")),
      failed: ({ message }) => (state.textContent = message),
    });
  };
  let following = inStep();
  const cut = document.querySelector<HTMLButtonElement>("#cut")!;
  cut.addEventListener("click", () => {
    const isCut = cut.getAttribute("aria-pressed") !== "true";
    cut.setAttribute("aria-pressed", String(isCut));
    cut.textContent = isCut ? "Connect again" : "Cut off";
    if (isCut) {
      ending.abort();
      state.textContent = "Cut off. What is done here goes out when it is connected again.";
      return;
    }
    ending = new AbortController();
    following = following.then(inStep);
  });
}

void open();
