import type { actErrors, actNotices } from "../en/acts.js";
import type { cliErrors, cliNotices } from "../en/cli.js";
import type { argumentErrors, contentErrors, contentNotices } from "../en/content.js";
import type { desktopErrors } from "../en/desktop.js";
import type { drawerErrors, drawerNotices } from "../en/drawer.js";
import type { editErrors, editNotices } from "../en/edit.js";
import type { filesErrors } from "../en/files.js";
import type { formatErrors, formatNotices } from "../en/formats.js";
import type { pageErrors, pageNotices } from "../en/page.js";
import type {
  indexeddbErrors,
  indexeddbNotices,
  postgresErrors,
  postgresNotices,
  remoteErrors,
  sqliteErrors,
  sqliteNotices,
} from "../en/stores.js";
import type { syncErrors, syncNotices } from "../en/sync.js";

/** The sentences of Drawer's refusals, by their reason: a catalogue for each room, which is loaded with it. */
export type Errors = typeof argumentErrors &
  typeof contentErrors &
  typeof formatErrors &
  typeof filesErrors &
  typeof editErrors &
  typeof drawerErrors &
  typeof actErrors &
  typeof sqliteErrors &
  typeof postgresErrors &
  typeof indexeddbErrors &
  typeof remoteErrors &
  typeof desktopErrors &
  typeof pageErrors &
  typeof cliErrors &
  typeof syncErrors;
/** The sentences of Drawer's notices, by their reason. */
export type Notices = typeof contentNotices &
  typeof formatNotices &
  typeof drawerNotices &
  typeof actNotices &
  typeof editNotices &
  typeof sqliteNotices &
  typeof postgresNotices &
  typeof indexeddbNotices &
  typeof pageNotices &
  typeof cliNotices &
  typeof syncNotices;
