/** A store over HTTP: what serves one, and what works on one from a page or another program. */
export { openRemote, type RemoteOptions, type RemoteStore } from "./client.js";
export { remoteHandler, type RemoteHandlerOptions } from "./handler.js";
