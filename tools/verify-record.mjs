// npm run verify-record -- <file.pdf> [key]: checks a sign-off record. Leaves with 0 when all holds, with 1 when anything does not.
import { createHash, createPublicKey, verify } from 'node:crypto';
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { build } from './build.mjs';
import { root } from './prepare.mjs';

const LINE = /%zesting-signature ([A-Za-z0-9+/=]+) ([A-Za-z0-9+/=]+)\n$/;

/** Base64 that stands for these bytes and no other spelling of them. */
function exactBytes(text) {
  const bytes = Buffer.from(text, 'base64');
  return bytes.toString('base64') === text ? bytes : undefined;
}

const fingerprintOf = (spki) =>
  createHash('sha256')
    .update(spki)
    .digest('hex')
    .slice(0, 16)
    .replace(/(.{4})(?=.)/g, '$1 ');

/**
 * Checks a record's bytes: the signature over all of them, and what is said inside.
 * @returns {{ problems: string[], key?: string, record?: object }}
 */
export async function verifyRecord(bytes) {
  const { recordProblems } = await import(pathToFileURL(join(root, 'packages/core/dist/index.js')).href);
  const tail = bytes.subarray(Math.max(0, bytes.length - 400)).toString('latin1');
  const found = LINE.exec(tail);
  if (!found) return { problems: ['there is no signature at its end: this is no sign-off record, or its end is missing'] };
  const [line, publicKey, signature] = found;
  const spki = exactBytes(publicKey);
  const signed = exactBytes(signature);
  let holds;
  try {
    const body = bytes.subarray(0, bytes.length - line.length);
    holds = Boolean(spki && signed) && verify(null, body, createPublicKey({ key: spki, format: 'der', type: 'spki' }), signed);
  } catch {
    holds = false; // a key that is none
  }
  if (!holds) return { problems: ['the signature does not hold: at least one byte is not what was signed'] };
  const texts = [...bytes.toString('latin1').matchAll(/stream\r?\n(\{"[^\r\n]*\})\r?\n?endstream/g)]
    .map(([, text]) => Buffer.from(text, 'latin1').toString('utf8'))
    .filter((text) => text.includes('"scheme":"zesting-record-'));
  if (texts.length !== 1) return { problems: ['the record inside cannot be found'] };
  const record = JSON.parse(texts[0]);
  return { problems: recordProblems(record), key: fingerprintOf(spki), record };
}

/* The command itself; tests import the function above. */
if (process.argv[1] && import.meta.url === pathToFileURL(process.argv[1]).href) {
  const [file, expected] = process.argv.slice(2);
  if (!file || !existsSync(file)) {
    console.error('Say which file: npm run verify-record -- record.pdf [key]');
    process.exit(1);
  }
  if (!existsSync(join(root, 'packages/core/dist/index.js'))) build();
  const { problems, key, record } = await verifyRecord(readFileSync(file));
  if (expected && key && key.replaceAll(' ', '') !== expected.replaceAll(' ', ''))
    problems.push(`it is signed with the key ${key}, not with ${expected}`);
  if (problems.length > 0) {
    console.error(`REFUSED: ${file}`);
    for (const problem of problems) console.error(`  ${problem}`);
    process.exit(1);
  }
  console.log(`It holds: ${record.piece.title}, ${record.client.name}, no. ${record.piece.number}`);
  console.log(
    `  ${record.versions.length} version(s), ${record.decisions.length} decision(s), chain ${record.chain.sequence}: ${record.chain.head}`,
  );
  console.log(`  signed with the key ${key}${expected ? '' : ': compare it with the one that the agency states'}`);
}
