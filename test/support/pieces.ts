import { Drawer, readText, type Incoming, type Store } from "drawer";

/** Something to collect: text, from a document. */
export function piece(text: string, document = "notes.txt"): Incoming {
  return { ...readText(text), origin: { document } };
}

/** A drawer in a store, with these texts in it. */
export async function drawerWith(store: Store, ...texts: string[]): Promise<Drawer> {
  const drawer = new Drawer(store, "spring");
  await drawer.collect(texts.map((text) => piece(text)));
  return drawer;
}

/** The texts of a drawer, in order. */
export async function textsOf(drawer: Drawer): Promise<string[]> {
  return (await drawer.list()).map(({ entry }) => entry.text);
}

/** The lines of a drawer file with these texts. */
export function drawerFileOf(texts: readonly string[]): string[] {
  const snippets = texts.map((text) => ({
    origin: { document: "notes.txt" },
    collectedAt: new Date().toISOString(),
    content: [{ type: "paragraph", runs: [{ type: "text", text }] }],
  }));
  const header = { format: "drawer-snippets", version: 1, snippets: texts.length };
  return [header, ...snippets].map((line) => JSON.stringify(line));
}
