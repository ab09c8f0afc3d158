import { page } from "../../../messages/core/page-sentences.js";
import { fillPanel, partsPanel, snippetPanel } from "../../../messages/core/panel-sentences.js";

/** What may stand beside the list, or over it. */
export type Panel = keyof typeof page.panels | "fill" | "parts" | "snippet";

/**
 * What a panel is called.
 * @param position that of the snippet that it shows whole
 */
export function panelName(panel: Panel, position: number): string {
  const names: Readonly<Record<Panel, string>> = {
    ...page.panels,
    fill: fillPanel.name,
    parts: partsPanel.name,
    snippet: snippetPanel.name(position),
  };
  return names[panel];
}

/** The question whether words that are being changed are left as they were. */
export function askLeave(): string {
  return snippetPanel.askLeave;
}
