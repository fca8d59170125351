import { hash, verify } from '@node-rs/argon2';

/** Hashes a password with argon2id (the library's default algorithm) at the cost OWASP names: 19 MiB, 2 passes (from memory). */
export const hashPassword = (password: string): Promise<string> => hash(password, { memoryCost: 19456, timeCost: 2, parallelism: 1 });

let decoy: Promise<string> | undefined;

/** Whether the password fits. Without a hash it takes as long and says no, so that nobody learns who has an account. */
export async function passwordFits(stored: string | undefined, password: string): Promise<boolean> {
  decoy ??= hashPassword('nobody has this password');
  const fits = await verify(stored ?? (await decoy), password);
  return stored !== undefined && fits;
}
