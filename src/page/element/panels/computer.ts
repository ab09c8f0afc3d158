import { html } from "lit";
import { computerPanel as words } from "../../../messages/core/panel-sentences.js";
import type { ComputerSettings, DeviceInvitation, OwnKey, StartPlace } from "../../binding/host-desktop.js";
import { timeOfDay } from "../day.js";
import { saidTime } from "./time.js";

/** What is set on this computer now. */
export type Computer = Awaited<ReturnType<ComputerSettings["read"]>>;

/** What keys of one's own can do, as on the command line; that which places is told which snippets, and how, beside it. */
const ACTS = Object.keys(words.acts) as (keyof typeof words.acts)[];

/** What can be done on the panel. */
export interface ComputerActions {
  readonly setKey: (key: OwnKey) => void;
  readonly setStart: (place: StartPlace, isThere: boolean) => void;
  /** Invites another device; the first says at which hub they meet. */
  readonly invite: (hub: string | undefined) => void;
  readonly join: (invitation: string) => void;
}

/**
 * What the user can set of Drawer on this computer: from where it is started, the devices that have the same drawers, and keys that
 * work in every program.
 * @param invitation that of another device, while it is shown
 */
export function computerPanel(
  { keys, startsFrom, devices }: Computer,
  invitation: DeviceInvitation | undefined,
  actions: ComputerActions,
) {
  const set = (event: SubmitEvent) => {
    event.preventDefault();
    const form = event.target as HTMLFormElement;
    const said = (name: string) => (form.elements.namedItem(name) as HTMLInputElement).value.trim();
    const act = said("act");
    actions.setKey({ key: said("key"), act: act === "place" ? `place ${said("which") || "last"}` : act });
    form.reset();
  };
  const start = (place: StartPlace) => html`
    <p class="rule">
      <label
        ><input
          type="checkbox"
          .checked=${startsFrom.includes(place)}
          @change=${(event: Event) => actions.setStart(place, (event.target as HTMLInputElement).checked)}
        />
        ${words.starts[place]}</label
      >
    </p>
  `;
  return html`
    <section class="panel computer" aria-label=${words.name} part="panel">
      ${start("menu")} ${start("login")} ${devicesPart(devices, invitation, actions)}
      <h3>${words.keys}</h3>
      ${keys.length === 0 ? html`<p class="note">${words.noKeys}</p>` : ""}
      <ul>
        ${keys.map(
          ({ key, act }) => html`
            <li>
              <span class="says"><kbd>${key}</kbd></span>
              <span class="from">${saying(act)}</span>
              <button
                aria-label=${`${words.remove}: ${key}`}
                @click=${() => actions.setKey({ key, act: "" })}
              >
                ${words.remove}
              </button>
            </li>
          `,
        )}
      </ul>
      <form class="note" @submit=${set}>
        <label
          >${words.key} <input name="key" required placeholder="Super+F9" @keydown=${writeChord}
        /></label>
        <label
          >${words.does}
          <select name="act">
            ${ACTS.map((act) => html`<option value=${act}>${words.acts[act]}</option>`)}
          </select></label
        >
        <label class="which">${words.which} <input name="which" placeholder="last" /></label>
        <button>${words.set}</button>
      </form>
      <p class="note">${words.note}</p>
    </section>
  `;
}

/** The devices with which the drawers are shared, and how there come to be more. */
function devicesPart(
  devices: Computer["devices"],
  invitation: DeviceInvitation | undefined,
  actions: ComputerActions,
) {
  const isAlone = devices.length === 0;
  const submitted = (name: string, act: (said: string) => void) => (event: SubmitEvent) => {
    event.preventDefault();
    const form = event.target as HTMLFormElement;
    act((form.elements.namedItem(name) as HTMLInputElement | null)?.value.trim() ?? "");
  };
  return html`
    <h3>${words.devices}</h3>
    ${isAlone ? html`<p class="note">${words.alone}</p>` : deviceList(devices)}
    ${invitation === undefined ? "" : invitationView(invitation)}
    <form class="note" @submit=${submitted("hub", (hub) => actions.invite(hub || undefined))}>
      ${
        isAlone
          ? html`<label
              >${words.hub} <input name="hub" type="url" required placeholder="https://hub.example"
            /></label>`
          : ""
      }
      <button>${words.invite}</button>
    </form>
    ${
      isAlone
        ? html`<form class="note" @submit=${submitted("invitation", actions.join)}>
            <label>${words.joinBy} <input name="invitation" required autocomplete="off" /></label>
            <button>${words.join}</button>
          </form>`
        : ""
    }
  `;
}

/** An invitation: as a code for a camera, and in words. */
function invitationView({ invitation, code, until }: DeviceInvitation) {
  return html`<div class="invited">
    <img src=${code} alt=${words.code} />
    <p class="note" role="status">${words.invited(timeOfDay(until))}</p>
    <p class="words">${invitation}</p>
  </div>`;
}

/** The devices with which the drawers are shared: when each was heard, and the words by which it is known. */
function deviceList(devices: Computer["devices"]) {
  const heard = ({ isThis, lastThere }: Computer["devices"][number]) =>
    isThis ? words.thisDevice : lastThere === undefined ? words.notHeard : words.heard(saidTime(lastThere));
  return html`
    <ul>
      ${devices.map(
        (device) => html`
          <li>
            <span class="says">${device.name}: ${heard(device)}</span>
            <span class="from">${device.words}</span>
          </li>
        `,
      )}
    </ul>
  `;
}

/** What a key does, in words where there are some. */
function saying(act: string): string {
  const known = ACTS.find((name) => name === act);
  return known === undefined ? act : words.acts[known];
}

/** Names of keys that a browser calls otherwise. */
const NAMES: Readonly<Record<string, string>> = {
  " ": "Space",
  ArrowUp: "Up",
  ArrowDown: "Down",
  ArrowLeft: "Left",
  ArrowRight: "Right",
  PrintScreen: "Print",
  ContextMenu: "Menu",
};

/** Writes the key that is pressed into its field: one that types nothing, or is held with another that does not. */
function writeChord(event: KeyboardEvent): void {
  const { key, code } = event;
  const held = [
    event.ctrlKey && "Ctrl",
    event.altKey && "Alt",
    event.shiftKey && "Shift",
    event.metaKey && "Super",
  ].filter((name) => name !== false);
  const isQuiet = /^F\d+$|^Pause$|^ScrollLock$|^PrintScreen$/.test(key);
  const isHeld = held.some((name) => name !== "Shift");
  if (/^(Control|Alt|Shift|Meta|AltGraph|Dead|Process|Unidentified)$/.test(key) || !(isQuiet || isHeld))
    return;
  // What edits the field, and leaves it, still does.
  if (held.length === 1 && held[0] === "Ctrl" && /^[acvxz]$/i.test(key)) return;
  event.preventDefault();
  event.stopPropagation();
  // With others held a letter may come as the sign that they make of it.
  const letter = /^(?:Key|Digit)(.)$/.exec(code)?.[1];
  const name = NAMES[key] ?? (key.length === 1 ? (letter ?? key.toUpperCase()) : key);
  (event.target as HTMLInputElement).value = [...held, name].join("+");
}
