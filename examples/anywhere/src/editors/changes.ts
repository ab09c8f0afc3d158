/** Returns what an editor calls each time when it tells of a change: the section of its place counts them. */
export function changesOf(holder: HTMLElement): () => void {
  return () => {
    const { dataset } = holder.closest<HTMLElement>(".place")!;
    dataset["changes"] = String(Number(dataset["changes"] ?? 0) + 1);
  };
}
