import { readSecrets, writeSecrets, type SecretKeeper } from "../../sync/state.js";

/** Under which name the secrets of this device stand in what the browser keeps for this origin. */
const NAME = "drawer-device";

/** Keeps the secrets of this device where pages of this origin alone reach them. */
export const keeper: SecretKeeper = {
  read: () => Promise.resolve(readSecrets(localStorage.getItem(NAME) ?? "")),
  write(secrets) {
    if (secrets) localStorage.setItem(NAME, writeSecrets(secrets));
    else localStorage.removeItem(NAME);
    return Promise.resolve();
  },
};
