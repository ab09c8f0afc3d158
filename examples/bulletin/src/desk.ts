import { writeHtml, type Origin } from "drawer";
import { readSource, type Source } from "drawer/files";

/** What lies on the desk: a tab's words, and the file behind it. */
const PAPERS = [
  { tab: "Field diary", file: "diary.docx" },
  { tab: "Ringing sheet", file: "ringing.xlsx" },
  { tab: "A letter", file: "letter.html" },
] as const;

/** Shows the papers to read, each in a tab. What is read in them are the files themselves. */
export async function showDesk(desk: HTMLElement): Promise<void> {
  desk.innerHTML = `<div role="tablist" aria-label="Papers"></div>`;
  const tabs = desk.querySelector("[role=tablist]")!;
  const papers = await Promise.all(
    PAPERS.map(async ({ tab, file }) => ({ tab, file, source: await fetchSource(file) })),
  );
  for (const [index, { tab, file, source }] of papers.entries()) {
    tabs.insertAdjacentHTML(
      "beforeend",
      `<button role="tab" id="tab-${index}" aria-controls="paper-${index}">${tab}</button>`,
    );
    const paper = document.createElement("div");
    // What is copied keeps the look that it has within its own paper.
    paper.dataset["drawerPage"] = "";
    paper.id = `paper-${index}`;
    paper.tabIndex = 0;
    paper.setAttribute("role", "tabpanel");
    paper.setAttribute("aria-labelledby", `tab-${index}`);
    paper.dataset["file"] = file;
    paper.dataset["drawerPage"] = "";
    show(source, paper);
    desk.append(paper);
  }
  const choose = (index: number) => {
    for (const [at, tab] of [...tabs.children].entries()) {
      tab.setAttribute("aria-selected", String(at === index));
      (tab as HTMLElement).tabIndex = at === index ? 0 : -1;
      desk.querySelector<HTMLElement>(`#paper-${at}`)!.hidden = at !== index;
    }
  };
  tabs.addEventListener("click", (event) => {
    const at = [...tabs.children].indexOf(event.target as Element);
    if (at >= 0) choose(at);
  });
  tabs.addEventListener("keydown", (event) => {
    const step = { ArrowRight: 1, ArrowLeft: -1 }[(event as KeyboardEvent).key];
    if (step === undefined) return;
    const at =
      ([...tabs.children].indexOf(document.activeElement!) + step + tabs.children.length) %
      tabs.children.length;
    choose(at);
    (tabs.children[at] as HTMLElement).focus();
  });
  choose(0);
}

async function fetchSource(file: string): Promise<Source> {
  const answer = await fetch(`../${file}`);
  if (!answer.ok) throw new Error(`“${file}” could not be fetched (${answer.status}).`);
  return readSource(new Uint8Array(await answer.arrayBuffer()), file);
}

/** A document is shown as it reads; a workbook's sheets stand under their names, with a handle before each row. */
function show(source: Source, paper: HTMLElement): void {
  if (source.format !== "xlsx") {
    paper.innerHTML = writeHtml(source.at().content);
    return;
  }
  for (const { spot } of source.parts()) {
    paper.insertAdjacentHTML(
      "beforeend",
      `<h2 class="sheet">${spot.split("!")[0]}</h2>${writeHtml(source.at(spot).content)}`,
    );
  }
  for (const row of paper.querySelectorAll("tr")) addHandle(row);
}

/** Clicking a row's handle selects the row, ready to be copied. */
function addHandle(row: HTMLTableRowElement): void {
  const handle = document.createElement("th");
  handle.className = "handle";
  handle.innerHTML = `<button tabindex="-1" title="Select this row">${row.closest("table")!.querySelectorAll("tr .handle").length + 1}</button>`;
  handle.addEventListener("click", () => {
    const cells = row.querySelectorAll("td, th:not(.handle)");
    const selection = document.getSelection()!;
    const range = document.createRange();
    range.setStartBefore(cells[0]!);
    range.setEndAfter(cells[cells.length - 1]!);
    selection.removeAllRanges();
    selection.addRange(range);
  });
  row.prepend(handle);
}

/** Where something on this page came from: the paper it was copied from, or the bulletin itself. */
export function originOf(element: Element): Origin {
  const file = element.closest<HTMLElement>("[data-file]")?.dataset["file"];
  return file === undefined ? { title: document.title } : { document: file };
}
