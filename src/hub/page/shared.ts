/** Where the worker lays what was shared into the page until it is collected: a cache of this origin, and what its entries begin with. */
export const SHARED = { cache: "drawer-shared", path: "shared/" };

/**
 * Hands on what was shared into the page, one after another, and lets go of each when it has been collected.
 * @param collect collects what a form holds: files, or texts
 */
export async function takeShared(
  collect: (given: {
    readonly files: readonly File[];
    readonly html: string;
    readonly text: string;
  }) => Promise<void>,
): Promise<void> {
  const cache = await caches.open(SHARED.cache);
  for (const request of await cache.keys()) {
    const form = await (await cache.match(request))!.formData();
    const said = (name: string) => String(form.get(name) ?? "").trim();
    const files = form.getAll("files").filter((each) => each instanceof File && each.size > 0) as File[];
    const [title, text, url] = [said("title"), said("text"), said("url")];
    // Some systems give the address as the text.
    const address = [url, text].find((each) => URL.canParse(each) && /^https?:/.test(each));
    const words = text === address ? "" : text;
    await collect({
      files,
      html:
        address === undefined
          ? ""
          : (words === "" ? "" : paragraph(words)) + linkTo(address, title || address),
      text: address === undefined ? [title, words].filter(Boolean).join("\n") : "",
    });
    await cache.delete(request);
  }
}

function paragraph(text: string): string {
  const made = document.createElement("p");
  made.textContent = text;
  return made.outerHTML;
}

function linkTo(address: string, text: string): string {
  const made = document.createElement("p");
  made.append(Object.assign(document.createElement("a"), { href: address, textContent: text }));
  return made.outerHTML;
}
