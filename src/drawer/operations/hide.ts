import { checkValue } from "../../content/check.js";
import { notice, type Notice } from "../../content/notice.js";
import { actNotices } from "../../messages/en/acts.js";
import type { Operation } from "../transaction.js";
import { setPrivate } from "./set-private.js";

/**
 * Makes the snippets of a pick private: shown nowhere, not found, not exported. They stay so until a person says, or go after a time.
 * @param age that time, in milliseconds
 * @throws DrawerError `bad-pick`, `no-position`, `nothing`, `bad-option` for what is no time
 */
export const hide: Operation<[pick: string, age?: number], Notice[]> = {
  name: "hide",
  async plan(transaction, pick, age) {
    const isTime = age === undefined || (Number.isSafeInteger(age) && age > 0);
    checkValue("age", age, isTime, "a number of milliseconds");
    const { result: positions, ...planned } = await setPrivate(transaction, pick, true, age ?? null);
    return { ...planned, result: [notice(actNotices, "hidden", { positions, age: age ?? null })] };
  },
};
