import type { Content } from "../content/model.js";
import { writeText } from "../content/write/text.js";

/** What a private snippet shows in place of what it says. */
export const MASK = "••••••";

/** What a secret looks like to be. */
export type SecretKind = "a card number" | "an account number" | "a key" | "a password" | "a one-time code";

/**
 * How much text a snippet has at most to be taken for a secret: a secret is copied by itself or with a few words
 * around it. A report in which a card number stands is a report.
 */
const LONGEST = 300;
/** The same for keys, which are long themselves and cannot be mistaken. */
const LONGEST_KEY = 12_000;

/**
 * Tells whether a piece looks like a secret, and which; nothing when it does not. Made to be right about ordinary
 * prose and figures rather than to find every secret.
 */
export function looksSecret(content: Content): SecretKind | undefined {
  const text = shortText(content);
  if (text === undefined) return undefined;
  if (KEYS.some((key) => key.test(text)) || hasRandomToken(text)) return "a key";
  if (text.length > LONGEST) return undefined;
  if (hasCardNumber(text)) return "a card number";
  if (hasAccountNumber(text)) return "an account number";
  if (PASSWORD.test(text)) return "a password";
  if (ONE_TIME_CODES.some((code) => code.test(text))) return "a one-time code";
  return undefined;
}

/** The text of content that is no longer than a secret can be. */
function shortText(content: Content): string | undefined {
  if (content.length > 200) return undefined;
  const text = writeText(content);
  return text.length <= LONGEST_KEY && text.trim() !== "" ? text : undefined;
}

/** Keys and tokens that carry their own mark (RFC 7468 for the first, RFC 7519 for the second). */
const KEYS: readonly RegExp[] = [
  /-----BEGIN (?:[A-Z]+ )*PRIVATE KEY(?: BLOCK)?-----/,
  /\beyJ[\w-]{10,}\.eyJ[\w-]{10,}\.[\w-]{10,}/,
  /\b(?:gh[pousr]|glpat|xox[abprs]|[sr]k_(?:live|test)|pk_live|npm|shpat|dop_v1|hf)[-_][\w-]{16,}/,
  /\b(?:AKIA|ASIA)[0-9A-Z]{16}\b/,
  /\bAIza[\w-]{35}\b/,
  /\bsk-[\w-]{20,}/,
  /\bage-secret-key-1[0-9a-z]{50,}/i,
];

/** A lone word of random letters and figures of both cases, as generated keys and passwords are. */
function hasRandomToken(text: string): boolean {
  const word = text.trim();
  if (!/^[\w+/=.~!@#$%^&*-]{20,200}$/.test(word) || /^(?:[a-z]+:|\/|www\.)/i.test(word)) return false;
  const kinds = Array.from(word, (letter) =>
    /[a-z]/.test(letter) ? 1 : /[A-Z]/.test(letter) ? 2 : /\d/.test(letter) ? 3 : 4,
  );
  const turns = kinds.filter((kind, index) => index > 0 && kind !== kinds[index - 1]).length;
  const each = (kind: number) => kinds.filter((one) => one === kind).length;
  return each(1) >= 3 && each(2) >= 3 && each(3) >= 3 && turns >= word.length * 0.4;
}

/** The lengths of card numbers by how they begin (ISO/IEC 7812). */
const CARDS: readonly (readonly [begins: RegExp, lengths: readonly number[]])[] = [
  [/^4/, [16, 19]],
  [/^(?:5[1-5]|222[1-9]|22[3-9]|2[3-6]|27[01]|2720)/, [16]],
  [/^3[47]/, [15]],
  [/^(?:30[0-5]|3[689])/, [14]],
  [/^(?:6011|64[4-9]|65|35|62|50|5[6-9]|6[37])/, [16, 19]],
];

function hasCardNumber(text: string): boolean {
  const groups = text.match(/(?<![\w.,/-])\d(?:[ -]?\d){13,18}(?![\w/-]|[.,]\d)/g) ?? [];
  return groups.some((group) => {
    if (/-/.test(group) && / /.test(group)) return false;
    const digits = group.replace(/\D/g, "");
    if (/^(\d)\1*$/.test(digits)) return false;
    return (
      isLuhn(digits) &&
      CARDS.some(([begins, lengths]) => begins.test(digits) && lengths.includes(digits.length))
    );
  });
}

/** The check digit of card numbers (ISO/IEC 7812-1, annex B). */
function isLuhn(digits: string): boolean {
  let sum = 0;
  for (let i = 0; i < digits.length; i++) {
    const digit = Number(digits[digits.length - 1 - i]);
    const doubled = i % 2 === 0 ? digit : digit * 2;
    sum += doubled > 9 ? doubled - 9 : doubled;
  }
  return sum % 10 === 0;
}

function hasAccountNumber(text: string): boolean {
  const groups = text.match(/\b[A-Z]{2}\d{2}(?: ?[A-Z0-9]){11,30}\b/g) ?? [];
  return groups.some((group) => {
    // What follows the number may have been taken with it: words after a space.
    const parts = group.split(" ");
    return parts.some((_, index) => isIban(parts.slice(0, index + 1).join("")));
  });
}

/** The check digits of international bank account numbers (ISO 13616-1, ISO/IEC 7064 MOD 97-10). */
function isIban(text: string): boolean {
  if (!/^[A-Z]{2}\d{2}[A-Z0-9]{11,30}$/.test(text)) return false;
  const turned = text.slice(4) + text.slice(0, 4);
  let rest = 0;
  for (const sign of turned) {
    const value = parseInt(sign, 36);
    rest = (rest * (value > 9 ? 100 : 10) + value) % 97;
  }
  return rest === 1;
}

const PASSWORD =
  /(?:^|[\s"'({])(?:pass ?word|passwort|pass ?phrase|passwd|pwd|kennwort|mot de passe|contraseña|senha|wachtwoord|api[ _-]?key|secret(?:[ _-]?key)?|access[ _-]?token|auth[ _-]?token|pin(?: code)?)["']?\s*[:=]\s*["']?(?=\S*[\d!@#$%^&*_+-])\S{4,}/iu;

/** What a code is called that is for one use. */
const CODE_NAME =
  "(?:one[- ]time (?:code|password|passcode|pin)|(?:verification|security|confirmation|log ?in|sign[- ]?in|access|authentication|authori[sz]ation|activation)[- ]code|passcode|2fa(?: code)?|otp|(?:sms|m)?tan|einmal(?:code|passwort)|bestätigungscode|sicherheitscode|code de (?:vérification|sécurité|confirmation)|código de (?:verificación|seguridad)|codice di (?:verifica|sicurezza))";
const IS = "(?:is|ist|lautet|est|es|è)";
const CODE = "(?<![\\d.,/+-])(?:\\d{4,8}|\\d{3}[ -]\\d{3,4}|[A-Z]-\\d{5,8})(?![\\d.,/:-]?\\d)";

const ONE_TIME_CODES: readonly RegExp[] = [
  new RegExp(`(?<![\\p{L}\\d])${CODE_NAME}(?: [\\p{L} ]{0,30})?(?: ?[:=] ?| ${IS}:? )${CODE}`, "iu"),
  new RegExp(`(?<![\\p{L}\\d])(?:otp|(?:sms|m)?tan|passcode) ${CODE}`, "iu"),
  new RegExp(`${CODE} ${IS} [\\p{L} ]{0,24}${CODE_NAME}(?!\\p{L})`, "iu"),
  new RegExp(`\\byour (?:\\w+ )?code(?: is|:) ${CODE}`, "iu"),
];
