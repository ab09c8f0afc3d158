/** The lines of a text file, without their line ends, read in pieces. */
export async function* linesOf(file: Blob): AsyncGenerator<string> {
  const reader = file.stream().pipeThrough(new TextDecoderStream()).getReader();
  let rest = "";
  for (;;) {
    const { done, value } = await reader.read();
    if (done) break;
    const lines = (rest + value).split("\n");
    rest = lines.pop()!;
    for (const line of lines) yield line.replace(/\r$/, "");
  }
  if (rest !== "") yield rest;
}
