import type { ClientShape, SessionShape } from '@zesting/contract';

export interface Action {
  readonly words: string;
  readonly note: string;
  /** null: the keyboard help */
  readonly path: string | null;
}

const go = (words: string, path: string, note = 'go there'): Action => ({ words, path, note });

/** What can be done from anywhere, by what the person may see. */
export function actionsFor(session: SessionShape, clients: readonly ClientShape[]): Action[] {
  const manages = session.role === 'lead' || session.role === 'manager';
  return [
    go(manages ? 'Your desk' : 'Your steps', '/'),
    ...(manages ? [go('Requests', '/requests'), go('Sign-off: send a packet, chase, record', '/sign-off')] : []),
    ...(session.role === 'freelance' ? [] : [go('Production', '/production'), go('Calendar: the month', '/calendar')]),
    ...(session.role === 'freelance' ? [] : [go('Calendar: this week', '/calendar?view=week')]),
    ...(manages ? [go('Begin a piece', '/production?new=piece', 'by hand, without a request')] : []),
    ...(manages
      ? [
          go('Agency: settings', '/agency'),
          go('Clients', '/clients'),
          go('People', '/people'),
          go('Routes', '/routes'),
          go('Links to hand out', '/links'),
        ]
      : []),
    go('Your page: hours, time off, round-ups', `/people/${session.personId}`),
    { words: 'Keyboard help', note: '?', path: null },
    ...(session.role === 'freelance'
      ? []
      : clients.map((client) => go(`Only ${client.name}`, `/?client=${client.code}`, `show ${client.code} alone`))),
  ];
}
