import type { FindShape } from '@zesting/contract';
import type { Viewer } from '../../platform/access/access.js';
import type { App } from '../../platform/app.js';
import type { Features, Looked } from '../../platform/feature.js';

/** So many of each kind are found. */
const EACH = 7;
/** The longest text that is looked for. */
export const QUERY_LIMIT = 100;

/** A text for `like`, in which none of its characters means anything else. */
const pattern = (text: string): string => `%${text.replace(/[\\%_]/g, '\\$&')}%`;

/**
 * Things whose name holds every word, with or without accents, in the viewer's reach, kind by kind as features bring them. A client's code
 * among the words looks in that client alone; a number finds the piece or request of that number.
 */
export async function find(app: App, features: Features, viewer: Viewer, text: string): Promise<FindShape> {
  const typed = text.slice(0, QUERY_LIMIT).trim().split(/\s+/).filter(Boolean);
  if (typed.length === 0) return { items: [] };
  const all: Looked = { viewer, patterns: typed.map(pattern), clientIds: viewer.clientIds, number: numberOf(typed), limit: EACH };
  const looked = await narrowed(app, all, typed);
  const manages = viewer.role === 'lead' || viewer.role === 'manager';
  const sources = features.finds.filter((source) => source.by === 'everybody' || manages);
  return { items: (await Promise.all(sources.map((source) => source.find(app, looked)))).flat() };
}

/** Where a word beside others is a client's code, that client alone is looked in, by the other words. */
async function narrowed(app: App, all: Looked, typed: readonly string[]): Promise<Looked> {
  if (typed.length < 2) return all;
  const named = await app.read<{ id: string; code: string }>('select id, code from clients where id = any($1) and code = any($2)', [
    all.viewer.clientIds,
    typed.map((word) => word.toUpperCase()),
  ]);
  if (named.length === 0) return all;
  const words = typed.filter((word) => !named.some((client) => client.code === word.toUpperCase()));
  return { ...all, patterns: words.map(pattern), number: numberOf(words), clientIds: named.map((client) => client.id) };
}

/** The number that was typed, where that is all. */
const numberOf = (words: readonly string[]): number | null =>
  words.length === 1 && /^\d{1,8}$/.test(words[0] ?? '') ? Number(words[0]) : null;
