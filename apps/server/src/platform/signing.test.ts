import { createPublicKey, verify } from 'node:crypto';
import { fingerprint, publicKeyText, signDocument, signingKey } from './signing';

const serverKey = Buffer.alloc(32, 7);
const LINE = /%zesting-signature (\S+) (\S+)\n$/;

/** The parts of a signed document. */
function partsOf(signed: Buffer) {
  const found = LINE.exec(signed.toString('latin1'));
  if (!found) throw new Error('no signature line');
  const [line, key = '', signature = ''] = found;
  return {
    body: signed.subarray(0, signed.length - line.length),
    key: createPublicKey({ key: Buffer.from(key, 'base64'), format: 'der', type: 'spki' }),
    signature: Buffer.from(signature, 'base64'),
    keyText: key,
  };
}

describe('a signed document', () => {
  it('is signed over every byte before its last line, with Ed25519', () => {
    const { body, key, signature } = partsOf(signDocument(Buffer.from('%PDF-1.4 …\n%%EOF\n'), signingKey(serverKey)));
    expect(key.asymmetricKeyType).toBe('ed25519');
    expect(signature).toHaveLength(64); // RFC 8032: two halves of 32 bytes
    expect(verify(null, body, key, signature)).toBe(true);
    for (let place = 0; place < body.length; place++) {
      const changed = Buffer.from(body);
      changed[place] = (changed[place] ?? 0) ^ 1;
      expect(verify(null, changed, key, signature)).toBe(false);
    }
  });

  it('gets a line of its own also where it does not end with one', () => {
    const { body, key, signature } = partsOf(signDocument(Buffer.from('no end of line'), signingKey(serverKey)));
    expect(body.toString()).toBe('no end of line\n');
    expect(verify(null, body, key, signature)).toBe(true);
  });

  it('is signed with a key that follows from the server key and from nothing else', () => {
    const names = [serverKey, Buffer.alloc(32, 7), Buffer.alloc(32, 8)].map((key) => fingerprint(publicKeyText(signingKey(key))));
    expect(names[0]).toBe(names[1]);
    expect(names[0]).not.toBe(names[2]);
    expect(names[0]).toMatch(/^([0-9a-f]{4} ){3}[0-9a-f]{4}$/);
    expect(partsOf(signDocument(Buffer.from('x'), signingKey(serverKey))).keyText).toBe(publicKeyText(signingKey(serverKey)));
  });
});
