import { choosePanes, showPane } from "../../shared/panes.js";
import { originOf, showDesk } from "./desk.js";
import { showEditor } from "./editor.js";
import { Drawer } from "drawer";
import { openIndexedDb } from "drawer/indexeddb";
import { Binding } from "drawer/page";

/** The secretary's desk: things to read, the bulletin that is being written, and the drawer beside it. */
async function open(): Promise<void> {
  const drawer = new Drawer(await openIndexedDb("bulletin"));
  choosePanes("desk");
  document.querySelector("snippet-drawer")!.binding = new Binding(drawer, {
    origin: originOf,
    reveal: () => showPane("bulletin"),
  });
  showEditor(document.querySelector("#bulletin")!);
  await showDesk(document.querySelector("#desk")!);
}

open().catch((error: unknown) => {
  document.querySelector("#desk")!.textContent = error instanceof Error ? error.message : String(error);
  throw error;
});
