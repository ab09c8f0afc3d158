/** Why a hub refuses. */
export type HubRefusal = Exclude<keyof typeof hubAnswers, "failed">;

/** What a hub answers when it does not do what it was asked. */
export const hubAnswers = {
  unsigned: "No device has signed this.",
  askew: "The clock of the device differs from that of the hub.",
  unknown: "No device of the group has signed this.",
  malformed: "This is no request to a hub.",
  nothing: "There is nothing here.",
  copied: "Another record has this number: the device goes on in two places.",
  gap: "A record before this one is missing.",
  part: "A part before this one is missing.",
  removed: "This device was removed from its group.",
  large: "This is too large.",
  often: "This was asked too often; ask again later.",
  full: "The group has no room for this here.",
  failed: "The hub could not do it.",
};
