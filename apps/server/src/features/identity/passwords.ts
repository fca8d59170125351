import { hash, verify } from '@node-rs/argon2';
import { ZxcvbnFactory } from '@zxcvbn-ts/core';
import * as common from '@zxcvbn-ts/language-common';
import * as english from '@zxcvbn-ts/language-en';

/** Hashes a password with argon2id (the library's default algorithm) at the cost OWASP names: 19 MiB, 2 passes (from memory). */
export const hashPassword = (password: string): Promise<string> => hash(password, { memoryCost: 19456, timeCost: 2, parallelism: 1 });

let decoy: Promise<string> | undefined;

/** Whether the password fits. Without a hash it takes as long and says no, so that nobody learns who has an account. */
export async function passwordFits(stored: string | undefined, password: string): Promise<boolean> {
  decoy ??= hashPassword('nobody has this password');
  const fits = await verify(stored ?? (await decoy), password);
  return stored !== undefined && fits;
}

/** The estimate's own step from "guessed within 10^8 tries" to "not so". */
const GOOD_ENOUGH = 3;
/** The estimate takes seconds for long texts; what is this long is judged by its beginning. */
const JUDGED_LENGTH = 40;

let estimate: ZxcvbnFactory | undefined;

/**
 * Whether a password is among those guessed first: on the lists of common passwords, names and words, a pattern (repeated, in sequence, along
 * the keyboard, a date), or made of what is known of the person. The lists are those of the library, with some ten thousand passwords.
 * @param known what others know of the person: names, the e-mail address
 */
export function isEasilyGuessed(password: string, known: readonly string[]): boolean {
  estimate ??= new ZxcvbnFactory({
    dictionary: { ...common.dictionary, ...english.dictionary },
    graphs: common.adjacencyGraphs,
    translations: english.translations,
  });
  const words = known.flatMap((text) => {
    const parts = text.split(/[^\p{L}\p{N}]+/u);
    return [text, parts.join(''), ...parts.filter((part) => part.length > 2)];
  });
  return estimate.check(password.slice(0, JUDGED_LENGTH), ['zesting', ...words]).score < GOOD_ENOUGH;
}
