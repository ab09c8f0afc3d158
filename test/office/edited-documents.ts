import { readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { unzipSync } from "fflate";
import { readZipDirectory } from "../../dist/formats/office/zip-directory.js";
import { demoFile } from "../support/demo";
import { convert } from "../support/libreoffice";
import { faultsOfOoxml } from "../support/schemas";
import { compose, readHtml, type Block } from "drawer";
import { putInto, readSource, takeOut, type Part } from "drawer/files";

/** Parts of a document that something put into it may change. */
const MAY_CHANGE =
  /^(word\/(document|styles|numbering)\.xml|word\/_rels\/document\.xml\.rels|\[Content_Types\]\.xml|word\/media\/|content\.xml|styles\.xml|META-INF\/manifest\.xml|Pictures\/)/;

/** What is asked of documents in a folder that something is put into, or taken out of; LibreOffice says what they show. */
export function editedDocuments(folder: string) {
  const bytesOf = (name: string) => new Uint8Array(readFileSync(join(folder, name)));

  /** The lines that LibreOffice shows of files, by their names. */
  function shownLines(names: readonly string[]): Map<string, string[]> {
    convert(folder, "txt:Text (encoded):UTF8", names);
    return new Map(
      names.map((name) => {
        const text = readFileSync(join(folder, name.replace(/\.\w+$/, ".txt")), "utf8");
        return [
          name,
          text
            .replace(/^\ufeff/, "")
            .split(/\r?\n/)
            .map((line) => line.replace(/\s+/g, " ").trim())
            .filter(Boolean),
        ];
      }),
    );
  }

  /** Three parts of a document, from its beginning to its end, that are spots of their own. */
  async function threeSpots(name: string): Promise<string[]> {
    const parts = (await readSource(bytesOf(name), name))
      .parts()
      .filter(({ type }: Part) => type !== "picture");
    return [0.2, 0.5, 0.95].map((share) => parts[Math.floor(share * parts.length)]!.spot);
  }

  /** Puts a rich block at three spots. */
  async function putAtThreeSpots(name: string, style: "own" | "host" = "own"): Promise<string[]> {
    const stem = name.replace(/\.\w+$/, "");
    const format = name.slice(stem.length + 1);
    const block = await richBlock(style);
    const before = format === "docx" ? faultsOfOoxml(bytesOf(name), name).length : 0;
    const files: string[] = [];
    for (const [at, spot] of (await threeSpots(name)).entries()) {
      const { data, notices } = await putInto(bytesOf(name), name, spot, block, {
        put: at === 1 ? "before" : "after",
      });
      expect(notices).toEqual([]);
      const file = `${stem}-put-${at}.${format}`;
      writeFileSync(join(folder, file), data);
      files.push(file);
      if (format === "docx" && at === 1) expect(faultsOfOoxml(data, file).length).toBe(before);
      // What needs no change is there as it was packed.
      const [old, made] = [readZipDirectory(bytesOf(name)), readZipDirectory(data)];
      for (const [part, entry] of old)
        if (!MAY_CHANGE.test(part)) expect(Buffer.compare(made.get(part)!.stored, entry.stored)).toBe(0);
      // Put in and taken out again, the text is the first one.
      const putParts = (await readSource(data, file))
        .parts()
        .filter(({ text, type }) => text.includes("PUT") || (type === "picture" && text.includes("tide")));
      expect(putParts).toHaveLength(8);
      const { data: again } = await takeOut(
        data,
        file,
        putParts.map((part) => part.spot),
      );
      const main = format === "docx" ? "word/document.xml" : "content.xml";
      if (format === "docx")
        expect(new TextDecoder().decode(unzipSync(again)[main])).toBe(
          new TextDecoder().decode(unzipSync(bytesOf(name))[main]),
        );
    }
    const shown = shownLines([name, ...files]);
    const was = shown.get(name)!;
    for (const file of files) {
      const now = shown.get(file)!;
      const put = now.filter((line) => line.includes("PUT"));
      expect(put.map((line) => line.replace(/^.*?(?=PUT)/, ""))).toEqual([
        ...["PUT heading", "PUT first bold and PUT link", "PUT item", "PUT inner", "PUT one"],
        ...["PUT a", "PUT b", "PUT c", "PUT d", "PUT quote"],
      ]);
      expect(bare(now.filter((line) => !line.includes("PUT")))).toEqual(bare(was));
      // It stands together, in one place.
      const places = now.flatMap((line, index) => (line.includes("PUT") ? [index] : []));
      expect(places.at(-1)! - places[0]!).toBe(places.length - 1);
    }
    return files;
  }

  /** Takes what stands at three spots out, one by one. */
  async function takeThreeOut(name: string): Promise<void> {
    const stem = name.replace(/\.\w+$/, "");
    const format = name.slice(stem.length + 1);
    const source = await readSource(bytesOf(name), name);
    const spots = await threeSpots(name);
    const files: string[] = [];
    const gone: string[][] = [];
    for (const [at, spot] of spots.entries()) {
      const outcome = await takeOut(bytesOf(name), name, [spot]).catch(
        (error: { code: string }) => error.code,
      );
      if (typeof outcome === "string") {
        expect(outcome).toBe("cannot-edit");
        continue;
      }
      const file = `${stem}-out-${at}.${format}`;
      writeFileSync(join(folder, file), outcome.data);
      files.push(file);
      gone.push(
        compose([source.at(spot)])
          .text.split(/[\n\t]/)
          .map((line) => line.replace(/\s+/g, " ").trim())
          .filter(Boolean),
      );
      if (format === "docx" && at === 1)
        expect(faultsOfOoxml(outcome.data, file).length).toBeLessThanOrEqual(
          faultsOfOoxml(bytesOf(name), name).length,
        );
    }
    expect(files.length).toBeGreaterThan(0);
    const shown = shownLines([name, ...files]);
    const was = bare(shown.get(name)!);
    for (const [index, file] of files.entries()) {
      const now = bare(shown.get(file)!);
      const missing = [...was];
      for (const line of now) {
        const found = missing.indexOf(line);
        // Nothing is there that was not there before.
        expect([file, found >= 0 ? "" : line]).toEqual([file, ""]);
        missing.splice(found, 1);
      }
      // What is missing is what was taken out.
      const taken = bare(gone[index]!).join(" ");
      const plain = (line: string) => line.replace(/[^\p{L}\p{N} ]/gu, "");
      for (const line of missing) expect(plain(taken)).toContain(plain(line).trim().slice(0, 20));
      // Equations it shows in no text.
      if (was.some((line) => taken.includes(line))) expect(missing).not.toEqual([]);
    }
  }

  return { bytesOf, shownLines, putAtThreeSpots, takeThreeOut };
}

/** A sentence, a list, a table and a picture: each line of it stands nowhere else. */
async function richBlock(style: "own" | "host" = "own"): Promise<Block> {
  const words = await readHtml(
    '<h2>PUT heading</h2><p>PUT first <b>bold</b> and <a href="https://merrow-spit.example/put">PUT link</a></p><ul><li>PUT item<ul><li>PUT inner</ul></ul><ol><li>PUT one</ol><table><tr><th>PUT a<th>PUT b<tr><td>PUT c<td>PUT d</table><blockquote><p>PUT quote</p></blockquote>',
  );
  const sketch = (await readSource(demoFile("sketches/tide.png"), "tide.png")).at();
  return compose([words, sketch], { style });
}

/** Lines without the numbers and bullets before them, and those of notes behind them, which go on counting. */
export const bare = (lines: readonly string[]) =>
  lines
    .map((line) =>
      line
        .replace(/(?<=\p{L})\d+$/u, "")
        .replace(/^(?:(?:(?:(?:\d+|[ivx]+|[a-z])\.)*(?:\d+|[ivx]+|[a-z])[.)]?|[•●◦▪o-]|\p{Co})\s+)+/iu, ""),
    )
    .filter(Boolean);
