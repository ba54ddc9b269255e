import { Refused } from "../../data/clash";
import { LEAST_PASSWORD } from "./auth";

/** Words that many take first; with what is put before or behind them they are no better. */
const COMMON = [
  "password",
  "passwort",
  "qwertyuiop",
  "qwertzuiop",
  "asdfghjkl",
  "letmein",
  "welcome",
  "iloveyou",
  "administrator",
  "1234567890",
  "0987654321",
  "abcdefgh",
  "dryarc",
  "dry arc",
  "drylink",
];

const reasonOf = (password: string, known: readonly string[]): string | null => {
  if ([...password].length < LEAST_PASSWORD) return `it has fewer than ${LEAST_PASSWORD} letters`;
  if (new Set(password).size < 5) return "it is made of fewer than five different letters";
  const low = password.toLowerCase();
  // What is left of it without the word everybody knows must be long enough by itself.
  const within = [...COMMON, ...known.map((k) => k.toLowerCase()).filter((k) => k.length >= 4)].find(
    (w) => low.includes(w) && low.length - w.length < 8,
  );
  if (within !== undefined) return "it is little more than a word that is tried first, or one's own name";
  return null;
};

/**
 * Refuses a password that is guessed first. How letters, figures and signs are mixed is nobody's business.
 * @param known names and addresses of who it belongs to. @throws Refused "weak-password" with the reason.
 */
export const refuseWeak = (password: string, known: readonly string[]): void => {
  const reason = reasonOf(password, known);
  if (reason !== null) throw new Refused("weak-password", "password", {}, reason);
};
