/** What a person may be called, and what may keep an account: the same for pages and server. */

export const LEAST_PASSWORD = 10;

/** Passwords that many use, without digits and signs at their ends, small letters. */
const USUAL = new Set([
  "",
  "password",
  "passwort",
  "qwerty",
  "qwertz",
  "qwertyuiop",
  "qwertzuiop",
  "asdfghjkl",
  "zxcvbnm",
  "letmein",
  "welcome",
  "iloveyou",
  "administrator",
  "changeme",
  "superman",
  "sunshine",
  "princess",
  "football",
  "baseball",
  "abcdefgh",
  "abcdefghij",
  "student",
  "instructor",
  "probelane",
]);
const bare = (text: string): string => text.toLowerCase().replace(/[^\p{L}]/gu, "");

/** Whether a password is guessed too easily: short, of many people, or the own name. */
export function isWeakPassword(password: string, login: string, name: string): boolean {
  const said = bare(password);
  const own = [login, name, ...name.split(/\s+/)].map(bare);
  return [...password].length < LEAST_PASSWORD || USUAL.has(said) || new Set(password).size < 3 || own.includes(said);
}

/** Signs that are not seen, or that turn the direction in which a line is read. */
const UNSEEN = /[\p{Cc}\p{Cf}\p{Co}\p{Cs}\u2028\u2029]/u;
const ALPHABETS = [/\p{Script=Latin}/u, /\p{Script=Cyrillic}/u, /\p{Script=Greek}/u];

/** Whether a name can be taken for another one: with signs that are not seen, or letters of two alphabets in a word. */
export const isOddName = (name: string): boolean =>
  UNSEEN.test(name) || name.split(/\s+/).some((word) => ALPHABETS.filter((one) => one.test(word)).length > 1);

/** What a column of a roster can hold; the sign-in name is made from the name where no column holds it. */
export const rosterFields = ["login", "name", "given", "family", "number", "role", "status"] as const;
export type RosterField = (typeof rosterFields)[number];
