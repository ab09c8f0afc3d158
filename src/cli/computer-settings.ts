import { readFile } from "node:fs/promises";
import { hostname } from "node:os";
import { fileURLToPath } from "node:url";
import { DrawerError } from "../content/error.js";
import { notice, type Notice } from "../content/notice.js";
import { cliErrors, cliNotices } from "../messages/en/cli.js";
import { openWindow as says } from "../messages/en/window.js";
import type { ComputerSettings, OwnKey, StartPlace } from "../page/binding/host-desktop.js";
import type { RowStore } from "../stores/row-store.js";
import { isJoined } from "../sync/joined.js";
import { changeKeys, parseKey, readKeys } from "./keys.js";
import { ownCommand } from "./own-command.js";
import { UsageError } from "./refusal.js";

/**
 * What the window can set on this computer: keys of the user's own, from where it is started, and with which devices the drawers
 * are shared.
 * @param joined is called when they are from now on
 */
export function computerSettings(drawer: string, store: RowStore, joined: () => void): ComputerSettings {
  const client = async () => (await import("./device-keeper.js")).syncClient(store);
  return {
    async read() {
      const { isInMenu } = await menus();
      return {
        keys: Object.entries(readKeys()).map(([key, act]) => ({ key, act })),
        startsFrom: (["menu", "login"] as const).filter((place) => isInMenu(place)),
        devices: (await store.engine.read(isJoined)) ? await (await client()).devices() : [],
      };
    },
    async setKey({ key, act }: OwnKey) {
      try {
        return await changeKeys([await parseKey(`${key}=${act}`)]);
      } catch (error) {
        if (!(error instanceof UsageError)) throw error;
        throw new DrawerError(cliErrors, "bad-option/own-key", { why: error.message }, { cause: error });
      }
    },
    setStart: async (place, isThere) => [await setStart(drawer, place, isThere)],
    async invite(hub) {
      const { inviteDevice } = await import("./invite-device.js");
      const devices = await client();
      // The first invitation says where the hub is; later ones go on there.
      const isAlone = (await devices.devices()).length === 0;
      const { invitation, link, until } = await inviteDevice(devices, isAlone ? { hub: hub ?? "" } : {});
      joined();
      const { default: code } = await import("qrcode");
      const svg = await code.toString(link, { type: "svg", errorCorrectionLevel: "L" });
      return { invitation, until, code: `data:image/svg+xml,${encodeURIComponent(svg)}` };
    },
    async join(invitation) {
      const devices = await client();
      await devices.join(invitation, { name: hostname() });
      const { notices } = await devices.exchange();
      joined();
      return notices;
    },
  };
}

/**
 * Puts the window into the system's menu, or among what starts when one logs in; or takes it out of there.
 * @param drawer which drawer it opens
 * @throws DrawerError `no-menu`
 */
export async function setStart(drawer: string, place: StartPlace, isThere: boolean): Promise<Notice> {
  const { addToMenu, removeFromMenu } = await menus();
  if (!isThere) return notice(cliNotices, `start/not-${place}`, { path: await removeFromMenu(place) });
  const words = [
    ...(drawer === "main" ? [] : ["--drawer", drawer]),
    ...(place === "login" ? ["--quiet"] : []),
  ];
  const icon = await readFile(fileURLToPath(new URL("../window/page/icon.svg", import.meta.url)), "utf8");
  const program = { ...says.entry, command: ownCommand("open", ...words), icon };
  return notice(cliNotices, `start/${place}`, { path: await addToMenu(place, program) });
}

const menus = () => import("../desktop/menus/index.js");
