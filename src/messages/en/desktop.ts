import { size } from "./phrases.js";

/** What is refused of a desktop: its clipboard, its keys. */
export const desktopErrors = {
  /** What was copied has more bytes than Drawer takes at once. */
  "too-large/clipboard": ({ most }: { most: number }) =>
    `What was copied has more than ${size(most)}; Drawer takes at most that. Copy it in parts.`,

  /** There is no desktop whose clipboard Drawer reaches. */
  "no-clipboard": () =>
    "There is no desktop here whose clipboard Drawer reaches. Pipe it in (… | drawer collect), and out (drawer place … | …).",
  /** The desktop's display does not let Drawer in. */
  "no-clipboard/display": ({ display }: { display: string }) =>
    `The desktop's display “${display}” could not be reached, or lets nobody in. Look whether DISPLAY names the right one.`,
  /** The desktop's display went away. */
  "no-clipboard/gone": () => "The desktop's display is gone.",
  /** The program that owns the clipboard does not answer. */
  "no-clipboard/silent": () =>
    "The program that was copied in did not give what it offers: it hangs, or has ended. Copy it again.",
  /** Something was copied before what was copied before it could be read. */
  "no-clipboard/missed": () =>
    "One copy was not collected: something else was copied before it could be read. Copy it again.",
  /** Another program does not give the clipboard away. */
  "no-clipboard/kept": () => "Another program keeps the clipboard to itself. Try again.",
  /** The program that was to hold a block on the clipboard could not begin. */
  "no-clipboard/holder": ({ why }: { why: string }) =>
    `The block could not be put on the clipboard (${why}). Try again.`,
  /** Nothing was copied. */
  "no-clipboard/empty": () => "The clipboard is empty. Copy something first.",

  /** The program that reaches this desktop's clipboard is not there. */
  "no-clipboard/not-installed": ({ program, hint }: { program: string; hint: string }) =>
    `The clipboard of this desktop is reached by “${program}”, which is not there. ${hint}`,
  /** The program that reaches this desktop's clipboard has failed. */
  "no-clipboard/program": ({ program, why }: { program: string; why: string }) =>
    `The clipboard could not be reached: “${program}” says “${why}”. Try again.`,

  /** The system does not let Drawer see the window in front, or press keys there. */
  "no-caret": ({ program, why }: { program: string; why: string }) =>
    `Nothing can be put at the caret of another program, so it is copied instead: “${program}” says “${why}”. Give it leave in the system's settings (on macOS: Privacy & Security, Accessibility).`,
  /** The system has no menu that is known. */
  "no-menu": ({ system }: { system: string }) =>
    `The menu of this system (${system}) is not known. Make an entry there for “drawer open” by its own means.`,
  /** The system's menu could not be written. */
  "no-menu/failed": ({ why }: { why: string }) =>
    `The system's menu could not be written (${why}). Nothing was changed there.`,

  /** The desktop shows no notifications. */
  "no-notifications": () =>
    "This desktop shows no notifications: no program for them answers on the session's D-Bus.",
  /** There is no such key. */
  "bad-key": ({ typed }: { typed: string }) =>
    `“${typed}” is no key that Drawer knows. Keys look like this: Super+F9, Ctrl+Alt+B, Pause.`,
  /** The key is one that people type with. */
  "bad-key/typing": ({ typed }: { typed: string }) =>
    `People type with “${typed}”. Add Ctrl, Alt or Super to it.`,
  /** The keyboard has no such key. */
  "bad-key/missing": ({ key }: { key: string }) => `This keyboard has no key “${key}”. Choose another.`,
  /** Another program has taken the key. */
  "key-taken": ({ key }: { key: string }) =>
    `Another program, or the desktop, has taken “${key}” for itself. Choose another key.`,
};
