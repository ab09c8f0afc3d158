import * as english from "../en/element.js";
import { many as englishMany } from "../en/phrases.js";
import { onLanguageChange, translated, type Language } from "./language.js";

/** The sentences of the elements of a page, as they are said now: who imports one of these has the one that is spoken. */

type PageLanguage = Omit<Language, "notices" | "errors" | "tag">;

const ENGLISH: PageLanguage = { ...english, many: englishMany };

export let {
  page,
  row,
  snippetPanel,
  gone,
  done,
  partsPanel,
  sentence,
  suggestions,
  details,
  ruleSentences,
  rulesPanel,
  recipesPanel,
  fillPanel,
  computerPanel,
  keysPanel,
  many,
} = translated(ENGLISH);

onLanguageChange(() => {
  ({
    page,
    row,
    snippetPanel,
    gone,
    done,
    partsPanel,
    sentence,
    suggestions,
    details,
    ruleSentences,
    rulesPanel,
    recipesPanel,
    fillPanel,
    computerPanel,
    keysPanel,
    many,
  } = translated(ENGLISH));
});
