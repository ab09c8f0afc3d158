import * as ENGLISH from "../en/composer.js";
import { onLanguageChange, translated } from "./language.js";

/** What is said where snippets are put down, as it is said now. */

export let { composer, sentence, details, suggestions } = translated(ENGLISH);

onLanguageChange(() => {
  ({ composer, sentence, details, suggestions } = translated(ENGLISH));
});
