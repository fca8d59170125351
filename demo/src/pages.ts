import type { App } from '@zesting/server';
import { CLIENTS } from './clients.js';

/** The page that a client keeps for a piece. */
export const pageOf = (code: string, title: string): string =>
  `https://${code.toLowerCase()}.test/${title
    .toLowerCase()
    .replaceAll(/[^a-z]+/g, '-')
    .replaceAll(/^-|-$/g, '')}`;

/** Goes out within days, and the client has not put up its page yet. */
const NOT_UP_YET = { client: 'moss', title: 'Newsletter: what to sow now' } as const;

/** Tells the simulated web which page is not there. Nothing where nobody asks for pages. */
export async function addPages({ config: { simulatedChannels } }: App): Promise<void> {
  if (simulatedChannels === null) return;
  const address = pageOf(CLIENTS[NOT_UP_YET.client].code, NOT_UP_YET.title);
  const body = new URLSearchParams({ address, answer: 'gone' });
  const answer = await fetch(`${simulatedChannels}/pages/say`, { method: 'POST', body, redirect: 'manual' });
  if (answer.status !== 303) throw new Error(`the simulated pages do not listen: ${answer.status}`);
}
