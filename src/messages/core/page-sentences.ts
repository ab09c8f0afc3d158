import * as english from "../en/element.js";
import { many as englishMany } from "../en/phrases.js";
import { onLanguageChange, translated } from "./language.js";

/** The sentences of the elements of a page, as they are said now: who imports one of these has the one that is spoken. */

const ENGLISH = { ...english, many: englishMany };

export let { page, row, many } = translated(ENGLISH);

onLanguageChange(() => {
  ({ page, row, many } = translated(ENGLISH));
});
