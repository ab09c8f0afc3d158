import * as english from "./en/page.js";
import { many as englishMany } from "./en/phrases.js";
import { whenSpoken, withSaid, type Language } from "./spoken.js";

/** The sentences of the elements of a page, as they are said now: who imports one of these has the one that is spoken. */

type PageLanguage = Omit<Language, "notices" | "errors">;

const ENGLISH: PageLanguage = { ...english, many: englishMany };

export let {
  page,
  row,
  gone,
  done,
  partsPanel,
  sentence,
  ruleSentences,
  rulesPanel,
  recipesPanel,
  fillPanel,
  keysPanel,
  many,
} = withSaid(ENGLISH);

whenSpoken(() => {
  ({
    page,
    row,
    gone,
    done,
    partsPanel,
    sentence,
    ruleSentences,
    rulesPanel,
    recipesPanel,
    fillPanel,
    keysPanel,
    many,
  } = withSaid(ENGLISH));
});
