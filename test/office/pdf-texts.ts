/** A text whose parts are known: what it says in Markdown, and what a reader of it should find. */
export interface KnownText {
  readonly markdown: string;
  /** Every heading, paragraph and item, in order. */
  readonly lines: readonly string[];
  /** Every table, as its rows of cells. */
  readonly tables: readonly (readonly (readonly string[])[])[];
}

const WORDS =
  "wheatear chiffchaff dunlin knot tern plover curlew seawall spit ride net ring hut tide log warden visitor morning evening wind rain south east westerly force light strong early late first second again under over between after before through along count counted caught released weighed seen heard repaired closed opened began ended returned observatory bulletin boardwalk saltmarsh shingle causeway lighthouse observation measurement registration temperature approximately nevertheless".split(
    " ",
  );

/** A generator of numbers from 0 to 1 that gives the same for the same seed. */
function numbersFrom(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
    return state / 2 ** 32;
  };
}

/** Makes a text of some pages: sections with headings, paragraphs, lists that nest, and tables. */
export function knownText(seed: number, sections: number): KnownText {
  const next = numbersFrom(seed);
  const upTo = (most: number) => Math.floor(next() * most);
  const word = () => WORDS[upTo(WORDS.length)]!;
  /** One that no narrow column breaks. */
  const short = () => {
    for (;;) {
      const found = word();
      if (found.length <= 7) return found;
    }
  };
  const words = (count: number) => Array.from({ length: count }, word).join(" ");
  const capital = (text: string) => text[0]!.toUpperCase() + text.slice(1);
  const sentence = () => `${capital(words(5 + upTo(12)))}${upTo(4) === 0 ? `, ${words(3)}` : ""}.`;
  const markdown: string[] = [];
  const lines: string[] = [];
  const tables: string[][][] = [];
  const say = (line: string, before = "", after = "") => {
    lines.push(line);
    markdown.push(`${before}${line}${after}`, "");
  };
  const paragraph = () => {
    const sentences = Array.from({ length: 1 + upTo(7) }, sentence);
    const text = sentences.join(" ");
    lines.push(text);
    const marked = upTo(3) === 0 ? [`**${sentences[0]}**`, ...sentences.slice(1)].join(" ") : text;
    markdown.push(marked, "");
  };
  const list = () => {
    const isOrdered = upTo(2) === 0;
    const count = 2 + upTo(4);
    for (let at = 0; at < count; at++) {
      const text = upTo(3) === 0 ? `${sentence()} ${sentence()}` : capital(words(3 + upTo(5)));
      lines.push(text);
      markdown.push(`${isOrdered ? `${at + 1}.` : "-"} ${text}`);
      if (!isOrdered && upTo(4) === 0) {
        const inner = capital(words(4));
        lines.push(inner);
        markdown.push(`    - ${inner}`);
      }
    }
    markdown.push("", "<!-- -->", "");
  };
  const table = () => {
    const columns = 2 + upTo(4);
    const rows = 3 + upTo(6);
    const names = Array.from({ length: columns }, (_, at) => `${capital(short())} ${at + 1}`);
    const cells = Array.from({ length: rows }, () =>
      names.map((_, at) => (at === 0 ? capital(short()) : String(upTo(9000) / 10))),
    );
    tables.push([names, ...cells]);
    const line = (row: readonly string[]) => `| ${row.join(" | ")} |`;
    markdown.push(line(names), line(names.map(() => "---")), ...cells.map(line), "");
  };
  for (let section = 0; section < sections; section++) {
    say(capital(words(2 + upTo(4))), section % 3 === 0 ? "# " : "## ");
    for (let part = 0; part < 3 + upTo(4); part++) [paragraph, paragraph, list, table][upTo(4)]!();
    paragraph();
  }
  return { markdown: markdown.join("\n"), lines, tables };
}
