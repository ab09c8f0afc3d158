import { html } from "lit";
import { unsafeHTML } from "lit/directives/unsafe-html.js";

/** The attribute in which a look stands until it is set. */
const LOOK = "data-look";

/**
 * HTML that a block was written as, to be looked at. It is written from content, which can hold no script, and no `>` stands in an
 * attribute of it. Its looks stand in an attribute of their own until {@link setLooks}, and links say where they lead and do not
 * lead there.
 */
export function lookedAt(written: string) {
  const inert = written.replace(/<[^>]*>/g, (tag) =>
    tag.replace(' style="', ` ${LOOK}="`).replace(/^<a href="/, '<a title="'),
  );
  return html`${unsafeHTML(inert)}`;
}

/** A page may forbid style attributes; its own scripts may set looks all the same. */
export function setLooks(root: ParentNode): void {
  for (const element of root.querySelectorAll<HTMLElement>(`[${LOOK}]`)) {
    element.style.cssText = element.getAttribute(LOOK)!;
    element.removeAttribute(LOOK);
  }
}
