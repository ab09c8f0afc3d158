import type { phonePage } from "../../messages/en/phone.js";
import { make } from "./elements.js";

/** What the user gives: as a paste would offer it. */
export interface Given {
  readonly html?: string;
  readonly text?: string;
  readonly files?: readonly File[];
}

/**
 * Makes the bar by which the user gives something: what is on the clipboard by one touch; or what is written, or pasted, into a
 * field.
 * @param collect collects it; the field is empty when it has been
 * @param tell tells in a sentence why there is nothing to collect
 */
export function givingBar(
  words: typeof phonePage,
  collect: (given: Given) => Promise<void>,
  tell: (sentence: string) => void,
): HTMLElement {
  const field = make("textarea", { rows: 1, placeholder: words.field, ariaLabel: words.field });
  const button = make("button", { type: "button" });
  const show = () => void (button.textContent = field.value.trim() === "" ? words.paste : words.collect);
  const given = async (what: Given) => {
    button.disabled = true;
    try {
      await collect(what);
    } finally {
      button.disabled = false;
    }
  };
  button.addEventListener("click", () => {
    const text = field.value.trim();
    if (text === "") return void pasted(words, tell).then((what) => what && given(what));
    void given({ text }).then(() => {
      field.value = "";
      show();
    });
  });
  field.addEventListener("input", show);
  // What is pasted has looks, tables and pictures, which the field would drop.
  field.addEventListener("paste", (event) => {
    const { clipboardData } = event;
    if (!clipboardData || field.value.trim() !== "") return;
    event.preventDefault();
    event.stopPropagation();
    const of = (type: string) => clipboardData.getData(type);
    void given({ html: of("text/html"), text: of("text/plain"), files: [...clipboardData.files] });
  });
  show();
  return make("div", { className: "give" }, field, button);
}

/** A clipboard that hands out HTML as it was copied (Clipboard API); where it does not know of that, it hands out its own. */
interface UnsanitizedClipboard {
  read(options: { readonly unsanitized: readonly string[] }): Promise<ClipboardItems>;
}

/** What is on the clipboard; nothing, which is told, where the browser does not hand it out or there is nothing. */
async function pasted(words: typeof phonePage, tell: (sentence: string) => void): Promise<Given | undefined> {
  let items: ClipboardItems;
  if (!isSecureContext) {
    tell(words.noClipboard);
    return undefined;
  }
  try {
    // As it was copied: what reads it keeps nothing that could do harm.
    items = await (navigator.clipboard as UnsanitizedClipboard).read({ unsanitized: ["text/html"] });
  } catch {
    tell(words.noClipboard);
    return undefined;
  }
  const blobOf = async (isType: (type: string) => boolean) => {
    for (const item of items) {
      const type = item.types.find(isType);
      if (type !== undefined) return item.getType(type);
    }
    return undefined;
  };
  const [html, text, picture] = await Promise.all([
    blobOf((type) => type === "text/html"),
    blobOf((type) => type === "text/plain"),
    blobOf((type) => type.startsWith("image/")),
  ]);
  if (!html && !text && !picture) {
    tell(words.emptyClipboard);
    return undefined;
  }
  return {
    html: (await html?.text()) ?? "",
    text: (await text?.text()) ?? "",
    files: picture ? [new File([picture], "", { type: picture.type })] : [],
  };
}
