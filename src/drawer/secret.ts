import type { Content } from "../content/model.js";
import { writeText } from "../formats/text/write.js";
import type { SECRETS } from "../messages/en/phrases.js";

/** What a secret looks like to be. */
export type SecretKind = keyof typeof SECRETS;

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
 * @param content the piece that is about to be collected
 */
export function looksSecret(content: Content): SecretKind | undefined {
  const text = shortText(content);
  if (text === undefined) return undefined;
  if (KEYS.some((key) => key.test(text))) return "key";
  if (text.length > LONGEST) return undefined;
  if (hasCardNumber(text)) return "card";
  if (hasPassword(text)) return "password";
  if (hasBearer(text) || isRandomToken(text.trim())) return "key";
  if (ONE_TIME_CODES.some((code) => code.test(text))) return "code";
  if (ACCESS_CODES.some((code) => code.test(text))) return "access";
  return undefined;
}

/** How much text there is at most around what is a secret, and around a one-time code, whose message is for nothing else. */
const LONGEST_AROUND = 100;
const LONGEST_MESSAGE = 200;

/**
 * Whether what looks like a secret is one, and nothing else: by itself or with a few words around it. A table or a letter in which one
 * stands only holds it.
 */
export function isSecretAlone(content: Content, looks: SecretKind): boolean {
  const text = shortText(content);
  if (text === undefined || content.some((flow) => flow.type === "table")) return false;
  if (/^\s*(?:-----BEGIN|PuTTY-User-Key)/.test(text) || RECOVERY_BEGINS.test(text)) return true;
  // Beside a telephone number or a name on lines of their own it is somebody's note.
  if (looks !== "code" && text.trim().includes("\n")) return false;
  const most = looks === "code" ? LONGEST_MESSAGE : LONGEST_AROUND;
  // A key is long itself.
  const key = looks === "key" ? Math.max(...text.split(/\s+/).map(({ length }) => length)) : 0;
  return text.trim().length - key <= most;
}

/** The text of content that is no longer than a secret can be; spaces of all kinds are plain ones. */
function shortText(content: Content): string | undefined {
  if (content.length > 200) return undefined;
  const text = writeText(content)
    .replace(/[\u00a0\u2000-\u200a\u202f\u205f]/g, " ")
    .replace(/[\u2010-\u2012]/g, "-");
  return text.length <= LONGEST_KEY && text.trim() !== "" ? text : undefined;
}

/** Keys and tokens by their published forms: prefix, alphabet, length (RFC 7468 for the first, RFC 7519 for the second). */
const KEYS: readonly RegExp[] = [
  /-----BEGIN (?:[A-Z0-9]+ )*PRIVATE KEY(?: BLOCK)?-----|^PuTTY-User-Key-File-\d/m,
  /(?<![\w-])eyJ[\w-]{10,}\.eyJ[\w-]{10,}\.[\w-]{10,}/,
  /(?<![\w-])(?:gh[pousr]_[A-Za-z0-9]{36,255}|github_pat_[A-Za-z0-9_]{50,255})(?![\w-])/,
  /(?<![\w-])gl(?:pat|dt|rt|cbt|ptt|ft|soat|imt|agent)-[\w-]{20,64}(?![\w-])/,
  /(?<![\w-])(?:xox[abeoprs]-(?=[\w-]*\d)[\w-]{20,}|xapp-\d-[\w-]{30,})|hooks\.slack\.com\/services\/T\w{6,}\/B\w{6,}\/\w{20,}/,
  /(?<![\w-])(?:(?:sk|rk)_(?:live|test)_[A-Za-z0-9]{16,}|whsec_[A-Za-z0-9+/=]{32,})/,
  /(?<![A-Za-z0-9])(?:AKIA|ASIA|ABIA|ACCA)[A-Z0-9]{16}(?![A-Za-z0-9])/,
  /(?<![\w-])(?:AIza[\w-]{35}|ya29\.[\w-]{20,}|GOCSPX-[\w-]{28})(?![\w-])/,
  /(?<![\w-])sk-(?:(?:ant|proj|svcacct|or)-(?=[\w-]*\d)[\w-]{20,}|[A-Za-z0-9]{32,})(?![\w-])/,
  /(?<![\w-])(?:npm_[A-Za-z0-9]{36}|pypi-[\w-]{80,}|dckr_pat_[\w-]{27}|rubygems_[0-9a-f]{48})(?![\w-])/,
  /(?<![\w-])SG\.[\w-]{22}\.[\w-]{43}(?![\w-])/,
  /(?<![\w-])(?:key-[0-9a-f]{32}|[0-9a-f]{32}-us\d{1,2}|SK[0-9a-f]{32})(?![\w-])/,
  /(?<![\w-])(?:do[opr]_v1_[0-9a-f]{64}|shp(?:at|ca|pa|ss)_[0-9a-fA-F]{32}|hf_[A-Za-z0-9]{34,40}|dapi[0-9a-f]{32})(?![\w-])/,
  /(?<![\w.-])[MNO][\w-]{23,27}\.[\w-]{6}\.[\w-]{27,38}(?![\w.-])/,
  /(?<!\w)\d{8,10}:AA[\w-]{33}(?![\w-])/,
  /(?<![\w-])(?:lin_api_[A-Za-z0-9]{40}|ntn_[A-Za-z0-9]{40,}|figd_[\w-]{40,}|glsa_\w{32}_[0-9a-f]{8}|sbp_[0-9a-f]{40}|NRAK-[A-Z0-9]{27}|PMAK-[0-9a-f]{24}-[0-9a-f]{34}|pscale_(?:tkn|pw)_[\w.-]{32,}|hv[sb]\.[\w-]{24,}|dp\.(?:pt|st)\.[\w-]{40,}|ATATT3[\w=-]{100,}|sq0(?:atp|csp)-[\w-]{22,}|sntrys_[\w=+/-]{40,})/,
  /\bage-secret-key-1[0-9a-z]{50,}|\botpauth:\/\/[^\s]+[?&]secret=/i,
  /\b(?:AccountKey|SharedAccessKey)=[A-Za-z0-9+/]{40,}={0,2}/,
];

/** An address of a service with a password in it (RFC 3986, 3.2.1): not one that only shows where it would stand. */
const ADDRESS_PASSWORD = /\b[a-z][a-z0-9+.-]{1,20}:\/\/[^\s:@/?#]*:([^\s@/?#]{3,})@[\w.-]+/gi;

/** What is called a password, a key or a token, and its value. */
const NAMED =
  /(?<![A-Za-z])((?:[A-Za-z0-9]+[_-])*(?:pass ?words?|pass ?phrase|passwd|passwort|kennwort|pwd|pw|mot de passe|contraseña|senha|wachtwoord|lösenord|hasło|пароль|api[ _-]?keys?|secret(?:[ _-]?(?:access)?[ _-]?key)?|client[ _-]?secret|access[ _-]?(?:token|key)|auth[ _-]?token|refresh[ _-]?token|private[ _-]?key|encryption[ _-]?key|token)(?:_[A-Za-z0-9]+)*)["']?((?: (?:for|to|of|für|zum|pour|du|para|do) [^.:=\n]{1,40}?)?)(\s*(?:[:=]|:=|=>)\s*|\s+(?:is|ist|lautet|est|es|è|é|är|now|are):?\s+)["'“„‘`]?([^\s"'”“‘’`]{4,})/giu;

/** Words that stand where a secret would. */
const PLACEHOLDER =
  /^(?:pass(?:word|wd|phrase)?|pwd|secrets?|tokens?|keys?|x{3,}|\*{3,}|\.{3,}|•+|true|false|null|none|undefined|required|optional|string|number|changeme|example|your\S*|my\S*|foo|bar|test|user(?:name)?|<\S*|\$\S*|%\S*|\{\S*|\[\S*|process\.\S*|os\.\S*|env\.\S*|\S*\(\S*|\S*\.\S+\.\S+\(\S*)[.,;)\]}>]*$/i;

function hasPassword(text: string): boolean {
  for (const [, password] of text.matchAll(ADDRESS_PASSWORD)) if (!PLACEHOLDER.test(password!)) return true;
  for (const [, name, , how, value] of text.matchAll(NAMED)) {
    const isAssigned = /[:=]/.test(how!);
    // “The token is …” goes on to say what a token is; of a password that is seldom said.
    if (!isAssigned && /secret|token|key$/i.test(name!)) continue;
    if (isSecretValue(value!, isAssigned)) return true;
  }
  return isLonePassword(text.trim());
}

/** Whether the value of a password or key is one, and no word of a sentence or a program. */
function isSecretValue(value: string, isAssigned: boolean): boolean {
  const bare = value.replace(/[.,;:!?)\]}]+$/, "");
  if (bare.length < 4 || PLACEHOLDER.test(bare) || /^(?:https?:|\/|\.{1,2}\/|--?[a-z])/i.test(bare))
    return false;
  if (/^\d{1,2}(?:[:.]\d{2})?$/.test(bare) || /^[A-Za-z]+(?:[-'’/][A-Za-z]+)*$/.test(bare)) {
    // A word: no secret in a sentence; one written after a sign may be, where capitals stand inside it.
    return isAssigned && /[a-z][A-Z]/.test(bare) && /[A-Z].*[A-Z]/.test(bare) && bare.length >= 10;
  }
  const hasDigit = /\d/.test(bare);
  const hasSign = /[!@#$%^&*?+~=]/.test(bare.slice(0, -1)) || /[!@#$%^&*?]/.test(value);
  const hasLetter = /[a-z]/i.test(bare);
  return isAssigned
    ? hasDigit || (hasSign && hasLetter)
    : (hasDigit && /[a-z]/.test(bare) && bare.length >= 6) || (hasSign && hasLetter && bare.length >= 6);
}

/** A lone word as people make up passwords by the rules: letters of both cases, figures, and signs that no name has. */
function isLonePassword(word: string): boolean {
  if (!/^[\w!@#$%^&*?+~.-]{8,40}$/.test(word) || /^[\w.+-]+@[\w-]+\.\w/.test(word)) return false;
  // Signs at the edges only are those of a sentence, a name in a program or a channel.
  const inside = word.replace(/^[#@$%*~-]+|[.!?*]+$/g, "");
  const hasSign = /[!@#$%^&*?]/.test(inside) || /[!@#$%^&*?]$/.test(word);
  return (
    hasSign && /[a-z]/.test(word) && /[A-Z]/.test(word) && /\d/.test(word) && !/^[A-Z]+\d*$/.test(inside)
  );
}

/** A header that carries a key (RFC 6750, RFC 7617). */
function hasBearer(text: string): boolean {
  const match =
    /\b(?:bearer|authorization:\s*(?:basic|token|bearer)|x-api-key:|api-key:)\s+([\w.~+/=-]{16,})/i.exec(
      text,
    );
  return (
    match !== null &&
    /\d/.test(match[1]!) &&
    /[a-z]/i.test(match[1]!) &&
    !/^[a-z]+(?:-[a-z]+)*$/i.test(match[1]!)
  );
}

/** The lengths of digests and of ids that are made like keys: of UUIDs, SHA-1 to SHA-512, and of well-known services. */
const ID_LENGTHS: readonly number[] = [22, 27, 28, 32, 33, 43, 44, 64, 86, 88];

/** A lone word of random letters and figures of both cases, as generated keys are; not of the length of digests and ids. */
function isRandomToken(word: string): boolean {
  const isLikeKey = /^[A-Za-z0-9_-]{20,63}$/.test(word) && !ID_LENGTHS.includes(word.length);
  const isLikeSecret = /^[A-Za-z0-9+/]{40}$/.test(word);
  if (!isLikeKey && !isLikeSecret) return false;
  const kinds = Array.from(word, (letter) =>
    /[a-z]/.test(letter) ? 1 : /[A-Z]/.test(letter) ? 2 : /\d/.test(letter) ? 3 : 4,
  );
  const turns = kinds.filter((kind, index) => index > 0 && kind !== kinds[index - 1]).length;
  const each = (kind: number) => kinds.filter((one) => one === kind).length;
  return each(1) >= 3 && each(2) >= 3 && each(3) >= 2 && turns >= word.length * 0.4;
}

/** Networks by how their numbers begin, and how long those are (ISO/IEC 7812, and what the networks publish). */
interface Network {
  readonly begins: RegExp;
  readonly lengths: readonly number[];
}
const NETWORKS: readonly Network[] = [
  { begins: /^4/, lengths: [13, 16, 19] },
  { begins: /^(?:5[1-5]|222[1-9]|22[3-9]|2[3-6]|27[01]|2720)/, lengths: [16] },
  { begins: /^3[47]/, lengths: [15] },
  { begins: /^(?:30[0-5]|3095|3[689])/, lengths: [14, 16, 19] },
  { begins: /^(?:6011|64[4-9]|65|62[0-9]|81)/, lengths: [16, 17, 18, 19] },
  { begins: /^35(?:2[89]|[3-8])/, lengths: [16, 17, 18, 19] },
  { begins: /^220[0-5]/, lengths: [16, 17, 18, 19] },
  { begins: /^(?:50|5[6-9]|6[0-9])/, lengths: [12, 13, 14, 15, 16, 17, 18, 19] },
  { begins: /^(?:9792|8[12]|60|508|353|356)/, lengths: [16] },
];
/** Those whose numbers are told also without grouping and words around them; any number may look like one of the others. */
const PLAIN_NETWORKS: readonly Network[] = [
  { begins: /^4[01]/, lengths: [16] },
  { begins: /^5[1-4]/, lengths: [16] },
  { begins: /^3[47]/, lengths: [15] },
  { begins: /^3(?:0[0-5]|6|8)/, lengths: [14] },
];
const CARD_WORDS =
  /(?<![\p{L}])(?:card|visa|mastercard|amex|maestro|credit|debit|karte|kreditkarte|carte|tarjeta|carta|cartão|cvv|cvc|exp(?:iry|ires)?|valid thru|pan|unionpay|discover|diners|jcb|mir|rupay|troy)(?!\p{L})/iu;

function hasCardNumber(text: string): boolean {
  const isSpoken = CARD_WORDS.test(text);
  for (const [group] of text.matchAll(/(?<![\w./+-])\d(?:[ -]?\d){11,18}(?![\w/-]|\.\d)/g)) {
    if (/-/.test(group) && / /.test(group)) continue;
    const digits = group.replace(/\D/g, "");
    if (/^(\d)\1*$/.test(digits) || !isLuhn(digits)) continue;
    const isGrouped =
      /^\d{4}([ -])(?:\d{4}\1\d{4}\1\d{1,7}|\d{4}\1\d{4}\1\d{4}\1\d{1,3}|\d{6}\1\d{4,5})$/.test(group);
    const networks = isGrouped || isSpoken ? NETWORKS : / |-/.test(group) ? [] : PLAIN_NETWORKS;
    if (networks.some(({ begins, lengths }) => begins.test(digits) && lengths.includes(digits.length)))
      return true;
  }
  return false;
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

/** What a code is called that is for one use. */
const CODE_NAME =
  "(?:one[- ]time[- ](?:code|password|passcode|pin)|(?:verification|security|confirmation|log[ -]?in|sign[ -]?in|access|authentication|authori[sz]ation|activation|backup|reset|two[- ]factor|2fa|mfa)[- ](?:code|pin)|passcode|2fa|otp|totp|(?:sms|m|push)?tan|einmal(?:code|passwort|kennwort)|bestätigungscode|sicherheitscode|anmeldecode|freischaltcode|code de (?:vérification|sécurité|confirmation|connexion)|código de (?:verificación|seguridad|confirmación|verificação|segurança|acceso)|codice di (?:verifica|sicurezza|conferma|accesso)|verificatiecode|verifieringskod|kod weryfikacyjny|код подтверждения)";
const IS = "(?:is|ist|lautet|est|es|è|é|är|to)";
const CODE =
  "(?<![\\p{L}\\d.,/+-])(?:\\d{4,8}|\\d{3}[ -]\\d{3,4}|\\d{4}[ -]\\d{4}|[A-Z]-\\d{5,8})(?![\\d.,/:-]?\\d)";
/** What follows a code that is meant as one: the end, a stop, or what to do with it; not what it counts. */
const ENDS =
  "(?=\\s*(?:$|[\\n.,;:!?)\\]–—-]|(?:is|ist|to|for|and|do|don['’]t|never|it|valid|expires|within|gültig|läuft|bitte|um|zur|pour|para|per|using|on|in order|as)\\b))";
const YOUR = "(?:your|ihre?n?|deine?n?|dein|votre|ton|su|tu|seu|il tuo|uw|je|din)";

const ONE_TIME_CODES: readonly RegExp[] = [
  new RegExp(`(?<![\\p{L}\\d])${CODE_NAME}(?: [\\p{L} ]{0,30})?(?: ?[:=–-] ?| ${IS}:? )${CODE}${ENDS}`, "iu"),
  new RegExp(`(?<![\\p{L}\\d])(?:otp|(?:sms|m|push)?tan|passcode|2fa|${CODE_NAME}) ${CODE}${ENDS}`, "iu"),
  new RegExp(
    `${CODE} ${IS} (?:${YOUR} [\\p{L}\\d’' ]{0,30}(?:${CODE_NAME}|\\bcode|\\bpin)|[\\p{L}\\d’' ]{0,30}${CODE_NAME})(?!\\p{L})`,
    "iu",
  ),
  new RegExp(
    `(?<!\\p{L})${YOUR} (?:[\\p{L}\\d-]+ ){0,3}(?:code|kod|código|codice|pin)(?: ${IS}:?|:) ?${CODE}${ENDS}`,
    "iu",
  ),
  new RegExp(
    `(?<!\\p{L})(?:use|enter|type|submit)(?: the)?(?: (?:code|pin))? (?=\\d{5}|\\d{3}[ -]\\d)${CODE} (?:to|as|for) (?:verify|log|sign|confirm|continue|complete|your|reset|authenticate|access)`,
    "iu",
  ),
  new RegExp(`^\\s*(?:code|pin|kod|código|codice)(?: code)? ?[:=] ?${CODE}[.!]?\\s*$`, "iu"),
  new RegExp(`(?<!\\p{L})pin(?: code)?(?: ?[:=]| is:?) ?(?<![\\d.,])\\d{4,8}(?![\\d\\p{L}])${ENDS}`, "iu"),
];

/** What a code is called that opens something, again and again. */
const ACCESS_NAME =
  "(?:(?:(?:front |back )?door|gate|alarm|entry|entrance|lock|safe|vault|key ?box|lock ?box|garage|building|lift|office|hut|wi-?fi)[- ](?:code|pin|combination)|combination|digicode|code (?:de la |d['’]|de |du )(?:porte|entrée|portail|alarme|coffre)|(?:haus|keller)?t(?:ü|ue)r-?(?:code|pin)|(?:tor|alarm|tresor|zugangs|schließfach|schlüsselkasten|garagen)-?(?:code|pin)|zahlenkombination)";
const DIGITS = "(?<![\\d.,])[#*]?(?:\\d{4,8}|\\d{1,2}(?:-\\d{1,2}){2,3})[#*]?(?![\\d\\p{L}])";

/** What recovery codes are called: they stand in for a password when it is lost. */
const RECOVERY_NAME =
  "(?:(?:recovery|backup|emergency|rescue)[- ](?:codes?|keys?)|(?:wiederherstellungs|notfall|backup|ersatz)-?(?:codes?|schlüssel)|codes? de (?:récupération|secours)|código de recuperación)";

/** A list of recovery codes, and nothing else. */
const RECOVERY_BEGINS = new RegExp(`^\\s*(?:your |ihre |vos )?${RECOVERY_NAME}`, "iu");

const ACCESS_CODES: readonly RegExp[] = [
  new RegExp(
    `(?<!\\p{L})${ACCESS_NAME}(?: [\\p{L} ]{0,30})?(?: ?[:=–-] ?| ${IS}:? | )${DIGITS}${ENDS}`,
    "iu",
  ),
  new RegExp(
    `(?<!\\p{L})PIN(?: [\\p{L} ]{0,30})?(?: ?[:=] ?| ${IS}:? | )(?<![\\d.,])\\d{4,8}(?![\\d\\p{L}])${ENDS}`,
    "u",
  ),
  new RegExp(
    `(?<!\\p{L})${RECOVERY_NAME}[^\\n:]{0,60}[:\\n]\\s*(?=[\\w -]*\\d)[A-Za-z0-9]{4,}(?:[- ][A-Za-z0-9]{3,})*`,
    "iu",
  ),
  /(?<!\p{L})(?:recovery|seed|backup|wiederherstellungs)[- ]?(?:phrase|words|wörter)[^\n:]{0,40}[:\n]\s*(?:\p{Ll}{3,8}[ \n,]+){11,}/iu,
];
