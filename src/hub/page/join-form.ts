import { reasonOf } from "../../content/error.js";
import type { phonePage } from "../../messages/en/phone.js";
import { make } from "./elements.js";

/** The form by which this device joins the others. */
export interface JoinForm {
  readonly element: HTMLElement;
  /** Writes an invitation into it. */
  fill(invitation: string): void;
}

/**
 * Makes the form by which this device joins the others. It is hidden when that is done.
 * @param join joins; what it throws is told below the fields, which stay as they are
 */
export function joinForm(
  words: (typeof phonePage)["join"],
  join: (invitation: string, name: string) => Promise<void>,
): JoinForm {
  const invitation = make("textarea", {
    name: "invitation",
    rows: 3,
    required: true,
    autocapitalize: "none",
  });
  const name = make("input", {
    name: "device",
    required: true,
    value: words.deviceName,
    autocomplete: "off",
  });
  const go = make("button", {}, words.go);
  const told = make("p", { className: "told" });
  told.setAttribute("role", "status");
  const form = make(
    "form",
    { className: "join", ariaLabel: words.name },
    make("h1", {}, words.name),
    make("p", {}, words.about),
    make("label", {}, words.invitation, invitation),
    make("label", {}, words.device, name),
    told,
    go,
  );
  form.addEventListener("submit", (event) => {
    event.preventDefault();
    go.disabled = true;
    told.textContent = words.joining;
    join(invitation.value, name.value.trim()).then(
      () => {
        form.hidden = true;
        invitation.value = "";
        told.textContent = "";
        go.disabled = false;
      },
      (error: unknown) => {
        told.textContent = reasonOf(error);
        go.disabled = false;
      },
    );
  });
  return { element: form, fill: (text) => void (invitation.value = text) };
}
