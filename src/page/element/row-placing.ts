import { addressesOf } from "../../content/traverse.js";
import type { Positioned } from "../../drawer/store.js";
import { page } from "../../messages/core/page-sentences.js";
import type { DesktopTarget, NextKey } from "../binding/host-desktop.js";
import { composed } from "../binding/lazy.js";
import type { PlaceRequest } from "../binding/placements.js";
import type { DrawerHost } from "./drawer-host.js";
import type { ListRow } from "./row.js";

/** What is placed, or copied: a block; or a single snippet, in the look that the sentence says. */

/** Places a block at the caret: of the page, or of the window that the user came from. Where there is none to reach it is copied. */
export async function placeBlockOf(
  host: DrawerHost,
  request: PlaceRequest | Promise<PlaceRequest>,
): Promise<void> {
  const { desktop } = host.binding?.options ?? {};
  const target = desktop?.target;
  if (desktop && !target) return copyBlockOf(host, request);
  const made = await request;
  if (target) return placeOnDesktop(host, [made], made.what, target);
  await host.binding?.place(made);
}

/** Places requests, each by itself, at the caret of the window that the user came from; until they are there, that is shown. */
export async function placeOnDesktop(
  host: DrawerHost,
  requests: readonly PlaceRequest[],
  what: string,
  target: DesktopTarget,
  between?: NextKey,
): Promise<void> {
  const { returns } = host.arrangement;
  host.showProgress("placing");
  try {
    await host.binding?.placeOnDesktop(requests, what, target, { returns, ...(between && { between }) });
  } finally {
    host.showProgress(undefined);
  }
}

/** Places a single snippet. */
export function placeRow(host: DrawerHost, row: ListRow): void {
  void placeBlockOf(host, requestOf(host, row));
}

/** Copies a single snippet to the clipboard. */
export function copyRow(host: DrawerHost, row: ListRow): void {
  void copyBlockOf(host, requestOf(host, row));
}

/** Copies a block to the clipboard; until it is there, that is shown. */
export async function copyBlockOf(
  host: DrawerHost,
  request: PlaceRequest | Promise<PlaceRequest>,
): Promise<void> {
  host.showProgress("copying");
  try {
    await host.binding?.copy(request);
  } finally {
    host.showProgress(undefined);
  }
}

/** A snippet as a block of its own. */
export function requestOf(host: DrawerHost, row: Positioned): PlaceRequest {
  return {
    ids: [row.entry.id],
    make: async (fit) => composed(await host.viewModel!.drawer.read([row]), { ...host.styleOfOne, fit }),
    what: page.snippet(row.position),
  };
}

/** Opens the address that a snippet is, in a window of its own that knows nothing of this one. */
export async function openRow(host: DrawerHost, row: ListRow): Promise<void> {
  const [snippet] = await host.viewModel!.drawer.read([row]);
  const [address] = addressesOf(snippet!.content);
  if (address !== undefined) window.open(address, "_blank", "noopener,noreferrer");
}
