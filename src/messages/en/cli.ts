import { many, size } from "./phrases.js";
/** What a command refuses of the files and windows that it works on. */
export const cliErrors = {
  /** Another program collects the copies for this drawer already: each copy would be there twice. */
  watched: ({ drawer }: { drawer: string }) =>
    `Another program collects already what is copied, into the drawer “${drawer}”. End that one first, or name another drawer.`,
  /** The file cannot be read, whatever it is. Check its name and whether you may read it. */
  "no-file": ({ path, why }: { path: string; why: keyof typeof whyNotRead | { readonly text: string } }) =>
    `“${path}” cannot be read: ${typeof why === "string" ? whyNotRead[why] : why.text}.`,
  /** A device or a pipe was named as a file. Lead it into standard input, which ends at a limit. */
  "no-file/device": ({ path }: { path: string }) => `“${path}” is no file but a device or a pipe.`,
  /** The window was asked for a file that it did not open, or of which it is not known where it is. */
  "no-file/unknown": ({ path }: { path: string }) =>
    `It is not known where “${path}” is on this computer. Look into it in the window again, or collect from it by “drawer collect”.`,
  /** A key cannot do what it is to do. */
  "bad-option/own-key": ({ why }: { why: string }) => `The key was not set: ${why}`,
  /** The file of the user's keys holds something else. */
  "unreadable/keys": ({ file }: { file: string }) =>
    `“${file}” does not hold keys. Put it right, or take it away and set your keys again.`,
  /** A drawer file has a line longer than any that Drawer writes. */
  "too-large/line": ({ file, most }: { file: string; most: number }) =>
    `Nothing was imported: “${file}” has a line of more than ${size(most)}, which no drawer file has.`,
  /** A drawer file has more bytes than Drawer imports at once. */
  "too-large/import": ({ file, most }: { file: string; most: number }) =>
    `“${file}” has more than ${size(most)}; Drawer imports at most that. Export it in parts.`,
  /** There is no editor in which words could be changed. */
  "no-editor": () =>
    "No editor is named. Set EDITOR (export EDITOR=nano), or take the new words from a file: drawer edit 3 --with new.md.",
  /** The editor did not end well. */
  "no-editor/failed": ({ program, why }: { program: string; why: string }) =>
    `The editor “${program}” failed (${why}). Nothing was changed.`,
  /** What was typed in the editor was not taken, and is kept. */
  "no-editor/kept": ({ why, file }: { why: string; file: string }) => `${why} What you typed is in ${file}.`,
  /** The desktop does not let programs do something with the windows of others. */
  "no-windows": () =>
    "This desktop lets no program take keys, or copy in another. On X11 it does. Use “drawer watch”, and --to clipboard.",
  /** No block was pasted yet. */
  "no-window": () =>
    "It is not known where to send it: no block was pasted yet. Place one on the clipboard and paste it there first.",
  /** The window in which the last block was pasted is gone, or does not come to the front. */
  "no-window/gone": ({ title = "" }: { title?: string }) =>
    `The window “${title}” is gone, or does not come to the front. Paste a block where you want the next to go.`,
  /** A program was asked to copy, and did not. */
  "nothing/selected": ({ title = "" }: { title?: string }) =>
    `Nothing is selected in the window “${title}”, or it does not copy. Select something first.`,
  /** A program was asked to paste, and did not. */
  "not-pasted": ({ title = "" }: { title?: string }) =>
    `The window “${title}” did not paste it. It is on the clipboard: put the caret where it shall go, and paste.`,

  /** A file that is to be changed is a link to another. */
  "cannot-edit/link": ({ path, target }: { path: string; target: string }) =>
    `“${path}” was not changed: it is a link. Name the file that it leads to: ${target}.`,
  /** A file that is to be changed has other names too, which would stay as they are. */
  "cannot-edit/names": ({ path }: { path: string }) =>
    `“${path}” was not changed: it has another name on the disk, under which it would stay as it is. Copy it first.`,
  /** A program has the file open. */
  "cannot-edit/open": ({ path, lock }: { path: string; lock: string }) =>
    `“${path}” was not changed: a program has it open (it has laid “${lock}” beside it). Close it there first.`,
  /** The file was changed by somebody else meanwhile. */
  "cannot-edit/changed": ({ path }: { path: string }) =>
    `“${path}” was not changed: somebody has changed it meanwhile. Look at it again, and say it once more.`,
  /** Something that a file has beside its bytes cannot be kept. */
  "cannot-edit/attributes": ({ path, why }: { path: string; why: string }) =>
    `“${path}” was not changed: its owner, its mode or its extended attributes cannot be kept (${why}).`,
  /** A file was changed since something was put into it or taken out of it. */
  "conflict/file": ({ path, kept }: { path: string; kept: string }) =>
    `“${path}” was changed since, and stays as it is. As it was before it is kept in ${kept}: copy what you need from there.`,
  /** A file was changed since it was put back: what was undone is not done to it again. */
  "conflict/file-again": ({ path, kept }: { path: string; kept: string }) =>
    `“${path}” was changed since, and stays as it is. As it would be it is kept in ${kept}: copy what you need from there.`,
  /** A file is there already. */
  exists: ({ path }: { path: string }) =>
    `“${path}” is there already and was left as it is. Choose another name.`,
  /** A file could not be written. */
  "not-written": ({ path, why }: { path: string; why: WhyNotWritten }) =>
    `“${path}” was not written: ${whyText(why)}.`,
  /** A snippet could not be put onto the end of a file, and so was not handed out. */
  "not-written/hand-out": ({ path, why }: { path: string; why: WhyNotWritten }) =>
    `Nothing was put onto “${path}”: ${whyText(why)}. It has not been handed out.`,
};

/** Why a file cannot be read. */
export const whyNotRead = {
  ENOENT: "there is no such file",
  EISDIR: "it is a folder",
  EACCES: "you are not allowed to",
  ENOTDIR: "a part of its path is not a folder",
  ENAMETOOLONG: "its name is too long",
};

/** Why a file cannot be written. */
export const whyNotWritten = {
  ENOENT: "there is no such folder",
  ENOTDIR: "a part of its path is not a folder",
  EISDIR: "it is a folder",
  EACCES: "you are not allowed to write there",
  EPERM: "you are not allowed to write there",
  EROFS: "the disk is read-only",
  ENOSPC: "the disk is full",
  ELOOP: "its links lead in a circle",
  "no-file": "it is no file",
  "no-text": "it is no text file; onto the end of documents nothing can be put yet",
};

/** A known reason, or what the system says. */
export type WhyNotWritten = keyof typeof whyNotWritten | { readonly text: string };

/** Why a file cannot be written, in words. */
export function whyText(why: WhyNotWritten): string {
  return typeof why === "string" ? whyNotWritten[why] : why.text;
}

/** What a command tells of placing and dealing on a desktop. */
export const cliNotices = {
  /** A drawer of this name does not exist yet, and another is called much the same. */
  "new-drawer": ({ drawer, near }: { drawer: string; near: string }) =>
    `There is no drawer “${drawer}” yet. Did you mean “${near}”?`,
  /** A deal has begun. */
  dealing: ({ of }: { left: number; of: number }) => `Dealing ${of === 1 ? "1 snippet" : many(of)}.`,
  /** A deal has begun on the clipboard of a desktop that does not tell of pastes. */
  "dealing/by-hand": ({ of }: { of: number }) =>
    `Dealing ${of === 1 ? "1 snippet" : many(of)} on the clipboard. The first is there; “drawer next” brings the next.`,
  /** So many snippets of a deal are left. */
  "dealing/left": ({ left, of }: { left: number; of: number }) =>
    `${left === 1 ? "One is" : `${left} are`} left of ${of}.`,
  /** Of a deal nothing is left. */
  "done/none-left": ({ of }: { of: number }) => `None is left of ${of}.`,
  /** A block was pasted into a window. */
  "placed/window": ({ count, title }: { count: number; title: string }) =>
    title === "" ? `Pasted ${many(count)}.` : `Pasted ${many(count)} into “${title}”.`,
  /** What was on the clipboard before a key was pressed could not be put back, or not all of it. */
  "not-restored": () =>
    "What was on the clipboard before could not be put back whole. Copy it again where you still need it.",
  /** A key does something from now on. */
  "key/set": ({ key, act }: { key: string; act: string }) => `${key}: ${act}.`,
  /** The window is started from the system's menu. */
  "start/menu": ({ path }: { path: string }) => `The window is in the system's menu (${path}).`,
  /** The window starts by itself. */
  "start/login": ({ path }: { path: string }) => `The window starts quietly when you log in (${path}).`,
  /** The window is not in the system's menu any more. */
  "start/not-menu": ({ path }: { path: string }) => `Taken out of the system's menu: ${path}.`,
  /** The window does not start by itself any more. */
  "start/not-login": ({ path }: { path: string }) =>
    `It does not start when you log in any more: ${path} is taken out.`,
  /** A key does nothing more. */
  "key/removed": ({ key }: { key: string }) => `${key} does nothing any more.`,
  /** A block was put into a file that is there. */
  "placed/into": ({ count, file, spot, put }: { count: number; file: string; spot: string; put: string }) =>
    `Put ${count === 1 ? "1 snippet" : many(count)} ${put === "instead" ? "instead of" : put} ${spot} in “${file}”. Undo puts the file back as it was.`,
  /** A block was put into a copy of a file. */
  "placed/into-new": ({ count, file, path }: { count: number; file: string; path: string }) =>
    `Put ${count === 1 ? "1 snippet" : many(count)} into “${path}”; “${file}” stays as it is.`,
  /** The named places of a file are filled. */
  filled: ({ count, path }: { count: number; path: string }) =>
    count === 1 ? `Filled into “${path}”.` : `Filled into ${count} files, the last of which is “${path}”.`,
  /** The named places of a file are filled for each of some rows, on pages of their own. */
  "filled/pages": ({ pages, path }: { pages: number; path: string }) =>
    `Filled into “${path}”, for each of ${pages} rows on pages of its own.`,
  /** Places of a file have nothing from the snippets. */
  "filled/empty": ({ names }: { names: readonly string[] }) =>
    `Nothing was there for ${names.join(", ")}: ${names.length === 1 ? "it stays" : "they stay"} as ${names.length === 1 ? "it is" : "they are"}. Label a snippet so (drawer label 3 ${names[0]}).`,
  /** A file has no place for some snippets. */
  "filled/unused": ({ names }: { names: readonly string[] }) =>
    `The file has no place for ${names.join(", ")}.`,
  /** No snippet needs to be taken anew. */
  "refresh/same": () => "All of them say what their files say.",
  /** Snippets could not be taken anew. */
  "refresh/left": ({ positions }: { positions: readonly number[] }) =>
    `Left as ${positions.length === 1 ? "it is" : "they are"}: ${positions.join(", ")}. “drawer check ${positions.join(" ")}” says why.`,
  /** What was collected is out of its file. */
  lifted: ({ file, spots }: { file: string; spots: readonly string[] }) =>
    `Taken out of “${file}”: ${spots.join(", ")}. Undo puts ${spots.length === 1 ? "it" : "them"} back.`,
  /** What was lifted is in the drawer, and still in its file. */
  "lift/broken-off": ({ file, spots }: { file: string; spots: readonly string[] }) =>
    `What was lifted last (${spots.join(", ")}) is in the drawer, and still in “${file}”: it was broken off. “drawer lift --finish” takes it out, “drawer undo” leaves it there alone.`,
  /** What was broken off is done. */
  "lift/finished": ({ file, spots }: { file: string; spots: readonly string[] }) =>
    `Taken out of “${file}”: ${spots.join(", ")}.`,
  /** Nothing was broken off. */
  "lift/nothing": () => "No lift was broken off.",
  /** A file is as it was before it was put back. */
  "redone/file": ({ file }: { file: string }) => `“${file}” is changed again as it was.`,
  /** A file is as it was before. */
  "undone/file": ({ file }: { file: string }) => `“${file}” is as it was before.`,
  /** A block was placed into a file. */
  placed: ({ count, path }: { count: number; path: string }) =>
    `Placed ${count === 1 ? "1 snippet" : many(count)} in “${path}”.`,
  /** A block was put on the desktop's clipboard. */
  "placed/clipboard": ({ count }: { count: number }) =>
    `Placed ${many(count)} on the clipboard. Paste ${count === 1 ? "it" : "them"} where you like; the next copy takes its place.`,
};
