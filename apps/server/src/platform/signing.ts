import { createHash, createPrivateKey, createPublicKey, hkdfSync, sign, type KeyObject } from 'node:crypto';

/** The DER prefix of an Ed25519 private key in PKCS #8; the 32 bytes of the seed follow. @see RFC 8410 */
const PKCS8 = Buffer.from('302e020100300506032b657004220420', 'hex');

/** The agency's key for what it states to others, made of the server key. */
export function signingKey(serverKey: Buffer): KeyObject {
  const seed = Buffer.from(hkdfSync('sha256', serverKey, '', 'zesting sign-off record', 32));
  return createPrivateKey({ key: Buffer.concat([PKCS8, seed]), format: 'der', type: 'pkcs8' });
}

/** The public half, as base64 of its SubjectPublicKeyInfo. */
export const publicKeyText = (key: KeyObject): string => createPublicKey(key).export({ format: 'der', type: 'spki' }).toString('base64');

/** Names a public key in a form that people can compare: the first 16 hex digits of its SHA-256 in groups of four. */
export const fingerprint = (publicKey: string): string =>
  createHash('sha256')
    .update(Buffer.from(publicKey, 'base64'))
    .digest('hex')
    .slice(0, 16)
    .replace(/(.{4})(?=.)/g, '$1 ');

/** What the signature line of a signed document begins with. It is a comment to whatever reads PDF. */
const LINE = '%zesting-signature';

/** Appends a line that signs every byte before it. @see RFC 8032, Ed25519 */
export function signDocument(document: Buffer, key: KeyObject): Buffer {
  const body = Buffer.concat([document, Buffer.from(document.at(-1) === 10 ? '' : '\n')]);
  const signature = sign(null, body, key).toString('base64');
  return Buffer.concat([body, Buffer.from(`${LINE} ${publicKeyText(key)} ${signature}\n`)]);
}
