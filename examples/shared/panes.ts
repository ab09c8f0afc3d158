/** Shows a pane, by its id, where there is no room for all. */
export function showPane(id: string): void {
  for (const pane of document.querySelectorAll(".pane")) pane.classList.toggle("shown", pane.id === id);
  for (const button of document.querySelectorAll<HTMLElement>("#panes button"))
    button.setAttribute("aria-current", String(button.dataset["shows"] === id));
}

/** Lets the buttons above the panes choose which is shown, where there is room for one alone. */
export function choosePanes(first: string): void {
  document.querySelector("#panes")!.addEventListener("click", (event) => {
    const id = (event.target as HTMLElement).dataset["shows"];
    if (id) showPane(id);
  });
  showPane(first);
}
