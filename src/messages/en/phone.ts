import { counted } from "./phrases.js";

/** What the page for the telephone says beside what its element says. */
export const phonePage = {
  title: "Drawer",
  /** The form by which one joins one's other devices. */
  join: {
    name: "Your drawers on this device",
    about:
      "On the computer, “More”, “This computer”, “Invite a device” shows a code: point this camera at it. Or write here what it says.",
    invitation: "The invitation",
    device: "What this device is called",
    deviceName: "Telephone",
    go: "Join",
    /** It is being done. */
    joining: "Joining …",
  },
  /** It has joined. */
  joined: (words: string) => `Joined. On the computer this device has the same four words: ${words}.`,
  /** When each other device was heard last. */
  inStep: (others: readonly { readonly name: string; readonly time: string | undefined }[]) =>
    others.length === 0
      ? "No other device has joined yet."
      : `In step. ${others.map(({ name, time }) => `${name}: ${time ?? "not heard yet"}`).join(" · ")}`,
  /** There is no way to the hub. */
  away: "No connection to your other devices. What you collect waits here, and goes out when there is one.",
  /** It was taken out of the group on another device. */
  removed: "This device was removed on another one. What is here stays; nothing new comes.",
  again: "Join again",
  /** Another device holds more than fits here. */
  more: (count: number) => `${counted(count, "snippet")} more than fit here by the rules.`,
  takeAll: "Take them too",
  /** What is written, or pasted where the browser lets no page read the clipboard. */
  field: "Write or paste here",
  collect: "Collect",
  paste: "Paste",
  /** What is said when the clipboard cannot be read. */
  noClipboard: "The browser does not hand out the clipboard. Hold a finger in the field, and paste there.",
  emptyClipboard: "On the clipboard is nothing that could be collected.",
  begin: [
    "Paste or write something below: it stands here, and on your computer a moment later.",
    "Touch a piece that was collected there, and it is copied here.",
  ] as readonly string[],
};
