import { readText } from "../dist/index.js";

const WORDS =
  "net round began heath rides warden wheatear seawall morning tide repair costs letter visitor spring bulletin ringing sheet reed bunting migrant dusk hide gauge storm roof paint timber grant minutes meeting observatory spit Merrow Réti tern 05:50".split(
    " ",
  );

/** Made-up prose, the same for the same number. */
export function piece(number) {
  let seed = number + 1;
  const next = () => (seed = (seed * 16807) % 2147483647);
  const words = Array.from({ length: 12 + (next() % 14) }, () => WORDS[next() % WORDS.length]);
  return {
    ...readText(`Round ${number}: ${words.join(" ")}.`),
    origin: { document: number % 3 ? "log.txt" : "diary.docx" },
  };
}
