/** Where there is no room for all, one pane is shown at a time. */
export type Pane = "desk" | "bulletin" | "drawer";

/** Shows a pane. */
export function showPane(pane: Pane): void {
  document.body.dataset["pane"] = pane;
  for (const button of document.querySelectorAll<HTMLElement>("#panes button"))
    button.setAttribute("aria-current", String(button.dataset["shows"] === pane));
}

/** Lets the buttons above the panes choose which is shown, where there is room for one alone. */
export function choosePanes(): void {
  document.querySelector("#panes")!.addEventListener("click", (event) => {
    const pane = (event.target as HTMLElement).dataset["shows"];
    if (pane) showPane(pane as Pane);
  });
  showPane("desk");
}
