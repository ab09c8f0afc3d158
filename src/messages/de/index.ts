import type { Language } from "../spoken.js";
import { errors } from "./errors.js";
import { notices } from "./notices.js";
import { pageSentences } from "./page.js";
import { many } from "./phrases.js";

/** German, for `speak`: all that a page says. */
export const de: Language = { ...pageSentences, many, notices, errors };
