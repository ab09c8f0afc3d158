import * as ENGLISH from "../en/panels.js";
import { onLanguageChange, translated } from "./language.js";

/** What the panels beside the list say, as it is said now. */

export let {
  aside,
  snippetPanel,
  gone,
  done,
  partsPanel,
  ruleSentences,
  rulesPanel,
  recipesPanel,
  fillPanel,
  computerPanel,
  keysPanel,
} = translated(ENGLISH);

onLanguageChange(() => {
  ({
    aside,
    snippetPanel,
    gone,
    done,
    partsPanel,
    ruleSentences,
    rulesPanel,
    recipesPanel,
    fillPanel,
    computerPanel,
    keysPanel,
  } = translated(ENGLISH));
});
