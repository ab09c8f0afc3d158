import type { Language } from "../core/language.js";
import { actErrors, actNotices } from "./acts.js";
import { cliErrors, cliNotices } from "./cli.js";
import { composerSentences } from "./composer.js";
import { argumentErrors, contentErrors, contentNotices } from "./content.js";
import { desktopErrors } from "./desktop.js";
import { drawerErrors, drawerNotices } from "./drawer.js";
import { editErrors, editNotices } from "./edit.js";
import { elementSentences } from "./element.js";
import { formatErrors, formatNotices } from "./formats.js";
import { pageErrors, pageNotices } from "./page.js";
import { panelSentences } from "./panels.js";
import { many } from "./phrases.js";
import { indexeddbErrors, indexeddbNotices, remoteErrors } from "./stores.js";
import { syncErrors, syncNotices } from "./sync.js";

/** German, for `setLanguage`: all that a page says. */
export const de: Language = {
  ...elementSentences,
  ...composerSentences,
  ...panelSentences,
  tag: "de",
  many,
  notices: {
    ...contentNotices,
    ...formatNotices,
    ...drawerNotices,
    ...actNotices,
    ...indexeddbNotices,
    ...pageNotices,
    ...editNotices,
    ...cliNotices,
    ...syncNotices,
  },
  errors: {
    ...argumentErrors,
    ...contentErrors,
    ...formatErrors,
    ...drawerErrors,
    ...actErrors,
    ...indexeddbErrors,
    ...remoteErrors,
    ...desktopErrors,
    ...pageErrors,
    ...editErrors,
    ...cliErrors,
    ...syncErrors,
  },
};
