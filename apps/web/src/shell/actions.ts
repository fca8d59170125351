import type { ClientShape, SessionShape } from '@zesting/contract';
import { go, type Action, type WebFeature } from '../lib/feature';

/** What can be done from anywhere, by what the person may see: what features bring, the help, and each client alone. */
export const actionsFor = (features: readonly WebFeature[], session: SessionShape, clients: readonly ClientShape[]): Action[] => [
  ...features.flatMap((feature) => feature.actions?.(session) ?? []),
  { words: 'Keyboard help', note: '?', path: null },
  ...(session.role === 'freelance'
    ? []
    : clients.map((client) => go(`Only ${client.name}`, `/?client=${client.code}`, `show ${client.code} alone`))),
];
