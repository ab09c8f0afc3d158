import { choosePanes, showPane } from "../../shared/panes.js";
import { places } from "./places.js";
import { Binding, openPageDrawer } from "drawer/page";

/** All the places that take text, side by side, and the drawer beside them. */
async function open(): Promise<void> {
  choosePanes("page");
  const drawer = await openPageDrawer({ database: "anywhere" });
  document.querySelector("snippet-drawer")!.binding = new Binding(drawer, { reveal: () => showPane("page") });
  const sheet = document.querySelector("#places")!;
  // `?only=quill` shows that place alone.
  const only = new URLSearchParams(location.search).get("only");
  for (const [name, { title, show }] of Object.entries(places)) {
    if (only !== null && only !== name) continue;
    const place = document.createElement("section");
    place.className = "place";
    place.id = name;
    const heading = document.createElement("h2");
    heading.textContent = title;
    const holder = document.createElement("div");
    place.append(heading, holder);
    sheet.append(place);
    await show(holder);
  }
  document.body.dataset["ready"] = "yes";
}

open().catch((error: unknown) => {
  document.querySelector("main")!.append(error instanceof Error ? error.message : String(error));
  throw error;
});
