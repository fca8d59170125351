import type { PersonPageShape } from '@zesting/contract';
import { useState } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { call } from '../../lib/api';
import { count, dayWords, minutesWords } from '../../lib/format';
import { useClients, useSession, useWrite } from '../../lib/queries';
import { Button } from '../../ui/button';
import { GiveTo } from './give-to';
import { ClientCode } from '../../ui/tags';

/** The person's open steps; a lead gives them to somebody else, some or all. */
export function StepsSection({ person }: { person: PersonPageShape }) {
  const { clientOf } = useClients();
  const { role } = useSession();
  const [chosen, setChosen] = useState<readonly string[]>([]);
  const canGive = role === 'lead' && person.steps.length > 0;
  const all = chosen.length === person.steps.length;
  return (
    <section aria-label="Open steps" className={`card p-4 ${person.active ? '' : 'border-rind'}`}>
      <h2 className="text-lg mb-1">{person.active ? 'Open steps' : 'Open steps to give to others'}</h2>
      {!person.active && person.steps.length > 0 && (
        <p className="text-rind mb-2">{person.name} has left: everywhere else these count as nobody’s.</p>
      )}
      {person.steps.length === 0 && <p className="text-muted">{person.hiddenSteps === 0 ? 'None.' : ''}</p>}
      <ul>
        {person.steps.map((step) => {
          const client = clientOf(step.clientId);
          return (
            <li key={step.stepId} className="flex flex-wrap items-center gap-x-3 min-h-9 border-t border-line first:border-t-0">
              {canGive && (
                <input
                  type="checkbox"
                  className="size-4 accent-pine"
                  aria-label={`${step.title} of ${step.pieceTitle}`}
                  checked={chosen.includes(step.stepId)}
                  onChange={(event) =>
                    setChosen(event.target.checked ? [...chosen, step.stepId] : chosen.filter((id) => id !== step.stepId))
                  }
                />
              )}
              {client && <ClientCode code={client.code} colour={client.colour} />}
              <Link to={`/pieces/${step.pieceId}`} className="font-medium no-underline hover:underline truncate max-w-64">
                {step.pieceTitle}
              </Link>
              <span className="text-muted">{step.title}</span>
              <span className="ml-auto text-muted text-[13px] tabular">
                {minutesWords(step.effortMinutes)}
                {step.latestFinishOn && `, by ${dayWords(step.latestFinishOn)}`}
              </span>
            </li>
          );
        })}
      </ul>
      {person.hiddenSteps > 0 && (
        <p className="text-muted text-[13px] mt-2">And {count(person.hiddenSteps, 'step')} for clients that are not yours.</p>
      )}
      {canGive && (
        <div className="flex flex-wrap items-center gap-2 mt-3">
          <Button onClick={() => setChosen(all ? [] : person.steps.map((step) => step.stepId))}>
            {all ? 'Choose none' : 'Choose all'}
          </Button>
          {chosen.length > 0 && <Give person={person} stepIds={chosen} onGiven={() => setChosen([])} />}
        </div>
      )}
    </section>
  );
}

function Give({ person, stepIds, onGiven }: { person: PersonPageShape; stepIds: readonly string[]; onGiven: () => void }) {
  const give = useWrite((personId: string) => call(`/people/${person.id}/give-steps`, { method: 'POST', body: { stepIds, personId } }));
  const steps = count(stepIds.length, 'step');
  return (
    <GiveTo
      person={person}
      words={`Give ${steps} to`}
      busy={give.isPending}
      onGive={({ id, name }) =>
        give.mutate(id, {
          onSuccess: () => {
            toast(`${steps} given to ${name}`);
            onGiven();
          },
        })
      }
    />
  );
}
