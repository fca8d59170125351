import type { Content } from '../content/index.js';
import { canonical, chainHead, digestParts, isPartScheme, type Json, type PartDigests } from '../digest/index.js';

/** Names the shape below; a change of shape gets a new name, and records of the old ones still verify. */
export const RECORD_SCHEME = 'zesting-record-2';
/** In the first shape no version named its scheme: there was one. */
const FIRST_RECORD_SCHEME = 'zesting-record-1';
const FIRST_PART_SCHEME = 'zesting-part-1';

/** A version of the piece that a decision was about, whole, so that its digests can be reckoned anew. */
export interface RecordedVersion {
  readonly id: string;
  readonly number: number;
  readonly frozenAt: string;
  readonly content: Content;
  readonly digests: PartDigests;
  /** by which the digests were made */
  readonly scheme?: string;
}

/** A decision as the client's chain binds it, between the heads before and after it. */
export interface RecordedDecision {
  readonly before: string;
  readonly head: string;
  /** what the head was reckoned over; `sequence`, `versionId` and `digests` are read from it */
  readonly record: { readonly sequence: number; readonly versionId: string; readonly digests: readonly string[] } & {
    readonly [key: string]: Json;
  };
  readonly contactName: string | null;
  readonly round: number;
}

/** What was signed off of one piece, by whom and when, with all that is needed to check it. */
export interface SignOffRecord {
  readonly scheme: typeof RECORD_SCHEME | typeof FIRST_RECORD_SCHEME;
  readonly agency: string;
  readonly client: { readonly id: string; readonly code: string; readonly name: string; readonly zone: string };
  readonly piece: { readonly id: string; readonly number: number; readonly title: string };
  readonly channels: Readonly<Record<string, string>>;
  readonly versions: readonly RecordedVersion[];
  readonly decisions: readonly RecordedDecision[];
  /** how each part of the newest version stands */
  readonly signed: { readonly shared: string; readonly channels: Readonly<Record<string, string>> };
  /** the client's chain when the record was made */
  readonly chain: { readonly sequence: number; readonly head: string };
  readonly madeAt: string;
}

/** The one line that a record is kept as. @see RFC 8785 */
export const recordText = (record: SignOffRecord): string => canonical(record as unknown as Json); // made of what JSON can say

/**
 * Reckons a record anew.
 * @returns what does not hold, in words; empty when all does
 */
export function recordProblems(record: SignOffRecord): string[] {
  if (record.scheme !== RECORD_SCHEME && record.scheme !== FIRST_RECORD_SCHEME) return [`unknown scheme: ${String(record.scheme)}`];
  const problems: string[] = [];
  const versions = new Map(record.versions.map((version) => [version.id, version]));
  for (const version of record.versions) problems.push(...versionProblems(record, version));
  for (const { before, head, record: said } of record.decisions) {
    if (chainHead(before, said) !== head) problems.push(`decision ${said.sequence}: its link of the chain does not hold`);
    const version = versions.get(said.versionId);
    const known = version ? [version.digests.shared, ...Object.values(version.digests.channels)] : [];
    if (said.digests.length === 0 || said.digests.some((digest) => !known.includes(digest)))
      problems.push(`decision ${said.sequence}: it names digests that are not in its version`);
  }
  return [...problems, ...orderProblems(record)];
}

function versionProblems({ scheme, client, piece }: SignOffRecord, { number, content, digests, ...version }: RecordedVersion): string[] {
  const by = scheme === FIRST_RECORD_SCHEME ? FIRST_PART_SCHEME : version.scheme;
  if (by === undefined || !isPartScheme(by)) return [`version ${number}: unknown scheme: ${String(by)}`];
  const same = canonical(toJson(digestsBy(client.id, piece.id, content, by))) === canonical(toJson(digests));
  return same ? [] : [`version ${number}: its digests are not those of its content`];
}

/** The digests of a content by a scheme; none where it says what that scheme has no words for, and so never digested. */
function digestsBy(clientId: string, pieceId: string, content: Content, scheme: string): PartDigests {
  try {
    return digestParts(clientId, pieceId, content, scheme);
  } catch (error) {
    if (error instanceof RangeError) return { shared: '', channels: {} };
    throw error;
  }
}

const toJson = ({ shared, channels }: PartDigests): Json => ({ shared, channels: { ...channels } });

/** Decisions follow one another along the chain, and none lies beyond its end. */
function orderProblems({ decisions, chain }: SignOffRecord): string[] {
  const problems: string[] = [];
  for (const [index, { before, head, record }] of decisions.entries()) {
    const next = decisions[index + 1];
    if (next && next.record.sequence <= record.sequence) problems.push(`decision ${next.record.sequence}: it is out of order`);
    if (next && next.record.sequence === record.sequence + 1 && next.before !== head)
      problems.push(`decision ${next.record.sequence}: it does not follow the one before`);
    if (record.sequence > chain.sequence) problems.push(`decision ${record.sequence}: it lies beyond the chain`);
    if (record.sequence === chain.sequence && head !== chain.head) problems.push('the chain does not end with its last decision');
    if (before === head) problems.push(`decision ${record.sequence}: it links to itself`);
  }
  return problems;
}
