import { toBase64 } from "../../content/base64.js";
import { LIMITS } from "../../content/limits.js";
import { readPictureBytes } from "../../content/picture.js";
import type { Flavours } from "../../formats/flavours.js";
import { trustedHtml } from "../places/trusted-html.js";

/**
 * Flavours whose pictures stand in their HTML: a page refers to them by an address, and the drawer keeps them when the page
 * is gone. One that the browser does not hand out stays an address, of which the reader says that it was left out.
 */
export async function withPictures(flavours: Flavours): Promise<Flavours> {
  const { html } = flavours;
  if (html === undefined || !/<img\b/i.test(html)) return flavours;
  const page = new DOMParser().parseFromString(trustedHtml(html), "text/html");
  const pictures = [...page.querySelectorAll<HTMLImageElement>("img[src]")].filter(
    (picture) => !picture.getAttribute("src")!.startsWith("data:"),
  );
  if (pictures.length === 0) return flavours;
  await Promise.all(pictures.map(embed));
  return { ...flavours, html: page.documentElement.outerHTML };
}

async function embed(picture: HTMLImageElement): Promise<void> {
  try {
    const address = new URL(picture.getAttribute("src")!, document.baseURI);
    // A page of another site may hand out its pictures to this one; nothing is sent that says who asks.
    const response = await fetch(address, {
      credentials: address.origin === location.origin ? "same-origin" : "omit",
    });
    const length = Number(response.headers.get("content-length") ?? 0);
    if (!response.ok || length > LIMITS.bytes / 4) return;
    const bytes = new Uint8Array(await response.arrayBuffer());
    const facts = readPictureBytes(bytes);
    if (facts) picture.setAttribute("src", `data:${facts.mediaType};base64,${toBase64(bytes)}`);
  } catch {
    // It stays an address: the reader says then that the picture was left out.
  }
}
