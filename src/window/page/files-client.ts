import { DrawerError, errorOf, type Refusal } from "../../content/error.js";
import { noticeOf, type Notice } from "../../content/notice.js";
import { remoteErrors } from "../../messages/en/stores.js";
import type { FileActed, HostFiles } from "../../page/binding/host-files.js";
import { MESSAGE, pack, unpack } from "../../stores/remote/wire.js";

/**
 * The user's files, as the server that the window is served by has them.
 * @param ask asks the server, with what authorises it
 */
export function filesClient(ask: typeof fetch): HostFiles {
  const asked = async <Answer>(name: keyof HostFiles, question: object): Promise<Answer> => {
    const headers = { "content-type": MESSAGE };
    const away = (reason: string, cause?: unknown) =>
      new DrawerError(remoteErrors, "store/away", { reason }, { cause });
    const response = await ask(`/files/${name}`, { method: "POST", headers, body: pack(question) }).catch(
      (error: unknown) => {
        throw away(String(error), error);
      },
    );
    if (response.ok) return unpack(new Uint8Array(await response.arrayBuffer())) as Answer;
    throw response.status === 422 ? errorOf((await response.json()) as Refusal) : away(await response.text());
  };
  const acted = async (name: "put" | "lift", question: object): Promise<FileActed> => {
    const { bytes, notices } = await asked<FileActed>(name, question);
    return { bytes, notices: notices.map(noticeOf) };
  };
  const told = async (name: "undo" | "redo" | "refresh", question: object) =>
    (await asked<readonly Notice[]>(name, question)).map(noticeOf);
  return {
    find: async (name, hash) => (await asked<string | null>("find", { name, hash })) ?? undefined,
    open: (drawer, id) => asked("open", { drawer, id }),
    reread: async (file) => (await asked<Uint8Array | null>("reread", { file })) ?? undefined,
    put: (file, where, what) => acted("put", { file, where, what }),
    lift: (file, spots, drawer) => acted("lift", { file, spots, drawer }),
    undo: (drawer) => told("undo", { drawer }),
    redo: (drawer) => told("redo", { drawer }),
    standings: (drawer) => asked("standings", { drawer }),
    refresh: (drawer, pick) => told("refresh", { drawer, pick }),
  };
}
