import { counted } from "./phrases.js";

/** Why a hub does not answer as it should. */
export const hubFaults = {
  gap: "it leaves out what a device has written",
  forged: "something there was not written by one of your devices",
  swapped: "something there stands in another place than the one it was written for",
  copied: "this home was copied, or put back from an older one, and goes on in two places",
  closed: "something there cannot be opened with the keys that this device has",
};

/** What is refused when devices meet. */
export const syncErrors = {
  /** This device has not joined any other. */
  "not-joined": () =>
    "These drawers are on this device alone. “drawer devices invite --hub URL” begins a group of devices, “drawer devices join” enters one.",
  /** The secrets of this device are missing or cannot be read. */
  "not-joined/secrets": ({ file }: { file: string }) =>
    `“${file}” has not the keys of this device. Remove it from the group on another device (“drawer devices remove”), then let it join anew (“drawer devices join”).`,
  /** This device is in a group already. */
  joined: ({ hub }: { hub: string }) =>
    `These drawers are in a group of devices at ${hub} already. “drawer devices leave” takes them out of it first.`,
  /** This device was removed from its group. */
  removed: () =>
    "This device was removed from its group: nothing comes from the others any more, and all that is here stays. “drawer devices leave” forgets the group.",
  /** The hub cannot be reached. */
  "hub-away": ({ hub, reason }: { hub: string; reason: string }) =>
    `The hub at ${hub} cannot be reached (${reason}). Nothing is lost: what was done here goes out when it is there again.`,
  /** The hub refused something. */
  "hub-refused": ({ hub, reason }: { hub: string; reason: string }) =>
    `The hub at ${hub} refused (${reason}). Nothing is lost: it waits here.`,
  /** What the hub gives cannot be right. */
  "hub-wrong": ({ hub, why }: { hub: string; why: keyof typeof hubFaults }) =>
    `What the hub at ${hub} gives cannot be right: ${hubFaults[why]}. Nothing of it was taken. Ask whoever runs the hub; if it is not to be trusted, let your devices meet at another (“drawer devices leave”, then “invite”).`,
  /** An invitation has a word that is none. */
  "invitation/word": ({ word, like }: { word: string; like: readonly string[] }) =>
    `“${word}” is no word of an invitation.${like.length > 0 ? ` Is it ${like.map((one) => `“${one}”`).join(" or ")}?` : ""}`,
  /** An invitation is not whole. */
  "invitation/words": ({ count, of }: { count: number; of: number }) =>
    `An invitation has ${of} words; here are ${count}. “drawer devices invite” on the other device makes one.`,
  /** An invitation does not say where the hub is. */
  "invitation/hub": () =>
    "The invitation does not say where the hub is. Put its address before the words, or name it with --hub.",
  /** An invitation is not good any more. */
  "invitation/over": () =>
    "This invitation is not good: it was used, its ten minutes are over, or a word is another. “drawer devices invite” on the other device makes a new one.",
  /** There is no such device. */
  "no-device": ({ name, names }: { name: string; names: readonly string[] }) =>
    `There is no device “${name}”. There are: ${names.join(", ")}.`,
  /** Two devices have the same name. */
  "no-device/two": ({ name, words }: { name: string; words: readonly string[] }) =>
    `Two devices are called “${name}”. Name one by its four words: ${words.map((each) => `“${each}”`).join(" or ")}.`,
  /** A device is this one. */
  "no-device/own": ({ name }: { name: string }) =>
    `“${name}” is this device. “drawer devices leave” takes it out of the group.`,
  /** The address of a hub is none. */
  "bad-option/hub": ({ address }: { address: string }) =>
    `“${address}” is no address of a hub. Write it as https://hub.example.`,
  /** The name of a device is blank or too long. */
  "bad-option/device-name": ({ most }: { most: number }) =>
    `The name of a device has 1 to ${most} characters, all of them ones that can be seen.`,
};

/** What is told when devices have met. */
export const syncNotices = {
  /** Nothing was to be sent or taken. */
  "synced/same": ({ devices }: { devices: number }) =>
    devices <= 1
      ? "No other device has joined yet."
      : "In step with your other devices: nothing new there, nothing new here.",
  /** What came and went. */
  synced: ({ came, changed, left, sent }: { came: number; changed: number; left: number; sent: number }) => {
    const parts = [
      ...(came > 0 ? [`${counted(came, "snippet")} came`] : []),
      ...(changed > 0 ? [`${counted(changed, "snippet")} changed`] : []),
      ...(left > 0 ? [`${counted(left, "snippet")} left`] : []),
      ...(sent > 0 ? [`${counted(sent, "change")} went out`] : []),
    ];
    return `In step with your other devices: ${parts.join(", ")}.`;
  },
  /** Snippets of other devices that there is no room for here. */
  "synced/waiting": ({ drawer, count, most }: { drawer: string; count: number; most: number | null }) =>
    `${counted(count, "snippet")} of “${drawer}” ${count === 1 ? "stays" : "stay"} on your other devices: there is no room here${
      most === null ? "" : `, where there are at most ${most}`
    }. “drawer rules snippets=N” and “drawer sync” bring ${count === 1 ? "it" : "them"}.`,
  /** Snippets that left by limits, for those that came. */
  "synced/made-room": ({ count }: { count: number }) =>
    `${counted(count, "snippet")} left this device to make room for what came; the others have ${count === 1 ? "it" : "them"} still.`,
  /** Snippets whose contents the hub does not have. */
  "synced/missing": ({ count }: { count: number }) =>
    `${counted(count, "snippet")} cannot come yet: what ${count === 1 ? "it holds" : "they hold"} is not at the hub. “drawer sync” asks again, best after the device where ${count === 1 ? "it was" : "they were"} collected has met the hub.`,
  /** Some of a group's past is still to come. */
  "synced/more": () => "What your other devices collected before is still coming.",
  /** A key is not here yet. */
  "synced/key": () =>
    "What your other devices wrote last cannot be read here yet: one of them is still to hand on a key. It does so when it meets the hub.",
};
