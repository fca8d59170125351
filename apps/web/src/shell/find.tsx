import { useQuery } from '@tanstack/react-query';
import type { FindShape, FoundKind } from '@zesting/contract';
import { useDeferredValue, useState } from 'react';
import { useNavigate } from 'react-router';
import { findQuery } from '../api/calendar';
import { useClients, useSession } from '../lib/queries';
import { Finder, type FinderGroup, type FinderItem } from '../ui/finder';
import { ClientCode } from '../ui/tags';
import { FEATURES } from '../features';
import { actionsFor } from './actions';

/** What can be found, in the order in which it is told. */
const KINDS: Readonly<Record<FoundKind, string>> = {
  piece: 'Pieces',
  request: 'Requests',
  client: 'Clients',
  person: 'People',
  contact: 'Contacts',
  idea: 'Ideas',
  campaign: 'Campaigns',
};

/** Finds things by name, and things to do. */
export function Find({ onClose, onHelp }: { onClose: () => void; onHelp: () => void }) {
  const [text, setText] = useState('');
  const typed = useDeferredValue(text.trim());
  const navigate = useNavigate();
  const session = useSession();
  const { clients, clientOf, to } = useClients();
  const found = useQuery(findQuery(typed));
  const holdsTyped = (text: string) =>
    typed
      .toLowerCase()
      .split(/\s+/)
      .every((word) => text.toLowerCase().includes(word));
  // until what is typed now is answered, of what was found before only that stays which holds it too: Enter takes nothing else
  const before = found.isPlaceholderData;
  const things = typed === '' ? [] : (found.data?.items ?? []).filter(({ title }) => !before || holdsTyped(title));
  const thing = (item: FindShape['items'][number]): FinderItem => {
    const client = item.clientId ? clientOf(item.clientId) : undefined;
    return {
      id: `${item.kind} ${item.id}`,
      title: item.title,
      note: item.note,
      lead: client && <ClientCode code={client.code} colour={client.colour} />,
      go: () => void navigate(to(item.path)),
    };
  };
  const actions = actionsFor(FEATURES, session, clients).filter(({ words }) => holdsTyped(words));
  const groups: FinderGroup[] = [
    ...Object.entries(KINDS).map(([kind, title]) => ({ title, items: things.filter((item) => item.kind === kind).map(thing) })),
    {
      title: 'To do',
      items: actions.map(({ words, path, note }) => ({
        id: `action ${words}`,
        title: words,
        note,
        go: () => (path === null ? onHelp() : void navigate(path.includes('client=') ? path : to(path))),
      })),
    },
  ];
  const empty = found.isFetching ? 'Looking…' : found.isError ? 'That could not be looked up. Type again.' : `Nothing holds “${typed}”.`;
  return <Finder onClose={onClose} text={text} onText={setText} groups={groups} empty={empty} />;
}
