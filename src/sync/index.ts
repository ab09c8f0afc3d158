/** `drawer/sync`: drawers that are the same on several devices, through a hub that can read nothing. */
export { SyncClient, type Connect } from "./client.js";
export { type Exchanged, type ExchangeOptions } from "./exchange.js";
export { follow, type FollowOptions } from "./follow.js";
export { type ShownDevice } from "./group.js";
export { type Hub } from "./hub.js";
export { readSecrets, writeSecrets, type DeviceSecrets, type SecretKeeper } from "./state.js";
