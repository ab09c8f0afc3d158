import type { contentErrors } from "./en/errors/content.js";
import type { officeErrors } from "./en/errors/office.js";
import type { filesErrors } from "./en/errors/files.js";
import type { drawerErrors } from "./en/errors/drawer.js";
import type { sqliteErrors } from "./en/errors/sqlite.js";
import type { indexeddbErrors } from "./en/errors/indexeddb.js";
import type { remoteErrors } from "./en/errors/remote.js";
import type { desktopErrors } from "./en/errors/desktop.js";
import type { pageErrors } from "./en/errors/page.js";
import type { cliErrors } from "./en/errors/cli.js";
import type { contentNotices } from "./en/notices/content.js";
import type { officeNotices } from "./en/notices/office.js";
import type { drawerNotices } from "./en/notices/drawer.js";
import type { sqliteNotices } from "./en/notices/sqlite.js";
import type { indexeddbNotices } from "./en/notices/indexeddb.js";
import type { placingNotices } from "./en/notices/placing.js";
import type { pageNotices } from "./en/notices/page.js";
import type { cliNotices } from "./en/notices/cli.js";

/** The sentences of Drawer's refusals, by their reason: a catalogue for each room, which is loaded with it. */
export type Errors = typeof contentErrors &
  typeof officeErrors &
  typeof filesErrors &
  typeof drawerErrors &
  typeof sqliteErrors &
  typeof indexeddbErrors &
  typeof remoteErrors &
  typeof desktopErrors &
  typeof pageErrors &
  typeof cliErrors;
/** The sentences of what Drawer tells, by their reason. */
export type Notices = typeof contentNotices &
  typeof officeNotices &
  typeof drawerNotices &
  typeof sqliteNotices &
  typeof indexeddbNotices &
  typeof placingNotices &
  typeof pageNotices &
  typeof cliNotices;
