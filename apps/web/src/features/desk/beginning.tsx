import { useQuery } from '@tanstack/react-query';
import type { BeginningStep } from '@zesting/contract';
import { Check } from 'lucide-react';
import { Link } from 'react-router';
import { beginningQuery } from '../../api/agency';
import { call } from '../../lib/api';
import { count } from '../../lib/format';
import { useSession, useWrite } from '../../lib/queries';
import { Button, buttonClass } from '../../ui/button';

interface Words {
  readonly title: string;
  readonly todo: string;
  readonly done: (number: number) => string;
  readonly path: string;
  readonly action: string;
  /** where it is seen once it is done, if elsewhere */
  readonly see?: string;
}

const WORDS: Record<BeginningStep['key'], Words> = {
  routes: {
    title: 'Routes',
    todo: 'The steps that a kind of piece takes. The starting stock has one for each usual format.',
    done: (number) => count(number, 'route'),
    path: '/agency?part=lists',
    action: 'Take the starting stock',
    see: '/routes',
  },
  people: {
    title: 'People',
    todo: 'Who makes and checks, with their hours and skills. You can do it all yourself to begin with.',
    done: (number) => `${count(number, 'person', 'people')} beside you`,
    path: '/people',
    action: 'Take somebody on',
  },
  clients: {
    title: 'Clients',
    todo: 'Whom you work for, with their channels, zone and working days.',
    done: (number) => count(number, 'client'),
    path: '/clients',
    action: 'Take on a client',
  },
  contacts: {
    title: 'Contacts',
    todo: 'The people at a client who ask and sign off. Without one, nothing can be signed.',
    done: (number) => count(number, 'contact'),
    path: '/clients',
    action: 'Open the client',
  },
  forms: {
    title: 'Forms',
    todo: 'Through which a client asks. A new client gets one with a link to hand out.',
    done: (number) => `${count(number, 'client')} can ask`,
    path: '/links',
    action: 'Links to hand out',
  },
  mail: {
    title: 'Mail',
    todo: 'Invitations, packets and reminders go by mail: send yourself one to see that it arrives.',
    done: () => 'tried, and taken',
    path: '/agency?part=messages',
    action: 'Try the mail',
  },
  pieces: {
    title: 'The first piece',
    todo: 'Out of a request, or begun by hand.',
    done: () => 'begun',
    path: '/production?open=begin',
    action: 'Begin a piece',
    see: '/production',
  },
};

/** What comes next for an agency that begins: a lead sees it on the desk until all is done, or put away. */
export function Beginning() {
  const { role } = useSession();
  const { data } = useQuery({ ...beginningQuery, enabled: role === 'lead' });
  const hide = useWrite(() => call('/agency/beginning', { method: 'POST', body: { hidden: true } }));
  if (!data || data.isHidden) return null;
  const left = data.steps.filter((step) => !step.isDone);
  const [next] = left;
  return (
    <section aria-label="What comes next" className="card mb-4">
      <header className="flex items-center gap-3 px-4 pt-3 pb-2">
        <h2 className="text-lg">{left.length === 0 ? 'All set up' : 'What comes next'}</h2>
        <span className="text-muted tabular">
          {data.steps.length - left.length} of {data.steps.length} done
        </span>
        <Button look="quiet" className="ml-auto" disabled={hide.isPending} onClick={() => hide.mutate(undefined)}>
          Put this away
        </Button>
      </header>
      <ol>
        {data.steps.map((step) => {
          const words = WORDS[step.key];
          return (
            <li
              key={step.key}
              className="grid grid-cols-[1.25rem_7rem_minmax(0,1fr)_auto] items-center gap-x-3 px-4 py-1.5 min-h-11 border-t border-line"
            >
              {step.isDone ? (
                <Check size={18} className="text-pine" aria-label="Done" />
              ) : (
                <span role="img" aria-label="To be done" className="size-4 rounded-full border-2 border-line-strong" />
              )}
              <span className="font-medium">{words.title}</span>
              <span className="text-muted">{step.isDone ? words.done(step.count) : words.todo}</span>
              <Link
                to={step.isDone ? (words.see ?? words.path) : words.path}
                className={buttonClass(step === next ? 'main' : step.isDone ? 'quiet' : 'plain')}
              >
                {step.isDone ? 'See' : words.action}
                {step.isDone && <span className="sr-only">: {words.title}</span>}
              </Link>
            </li>
          );
        })}
      </ol>
    </section>
  );
}
