import { createCipheriv, createDecipheriv, hkdfSync, randomBytes } from 'node:crypto';

const IV_BYTES = 12;
const TAG_BYTES = 16;

const keyOf = (serverKey: Buffer): Buffer => Buffer.from(hkdfSync('sha256', serverKey, '', 'zesting sealed text', 32));

/** Makes a text unreadable without the server's key, for what must not be read out of a copy of the database. @see NIST SP 800-38D, AES-256-GCM */
export function seal(serverKey: Buffer, text: string): string {
  const iv = randomBytes(IV_BYTES);
  const cipher = createCipheriv('aes-256-gcm', keyOf(serverKey), iv);
  const sealed = Buffer.concat([cipher.update(text, 'utf8'), cipher.final()]);
  return Buffer.concat([iv, cipher.getAuthTag(), sealed]).toString('base64');
}

/** The text again; undefined where it was sealed with another key, or changed since. */
export function unseal(serverKey: Buffer, sealed: string): string | undefined {
  const bytes = Buffer.from(sealed, 'base64');
  try {
    const decipher = createDecipheriv('aes-256-gcm', keyOf(serverKey), bytes.subarray(0, IV_BYTES));
    decipher.setAuthTag(bytes.subarray(IV_BYTES, IV_BYTES + TAG_BYTES));
    return Buffer.concat([decipher.update(bytes.subarray(IV_BYTES + TAG_BYTES)), decipher.final()]).toString('utf8');
  } catch {
    return undefined;
  }
}
