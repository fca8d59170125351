import { useQuery } from '@tanstack/react-query';
import type { DutiesGivenShape, PersonPageShape } from '@zesting/contract';
import { toast } from 'sonner';
import { personDutiesQuery } from '../../api/people';
import { call } from '../../lib/api';
import { count } from '../../lib/format';
import { useClients, useWrite } from '../../lib/queries';
import { GiveTo } from './give-to';
import { ClientCode } from '../../ui/tags';

/** The person's duties, which a lead gives to somebody else as they are; nothing where there are none. */
export function DutiesSection({ person }: { person: PersonPageShape }) {
  const { clientOf } = useClients();
  const { data: duties = [] } = useQuery(personDutiesQuery(person.id));
  const give = useWrite((personId: string) =>
    call<DutiesGivenShape>(`/people/${person.id}/duties/give`, { method: 'POST', body: { personId } }),
  );
  if (duties.length === 0) return null;
  return (
    <section aria-label="Duties" className={`card p-4 ${person.active ? '' : 'border-rind'}`}>
      <h2 className="text-lg mb-1">{person.active ? 'Duties' : 'Duties to give to others'}</h2>
      {!person.active && <p className="text-rind mb-2">{person.name} has left: where nobody stands in, these are done by nobody.</p>}
      <ul>
        {duties.map((duty) => {
          const client = clientOf(duty.clientId ?? '');
          return (
            <li key={duty.id} className="flex flex-wrap items-center gap-x-3 min-h-9 border-t border-line first:border-t-0">
              {client && <ClientCode code={client.code} colour={client.colour} />}
              <span className="font-medium">{duty.title}</span>
              <span className="text-muted text-[13px]">{duty.isLead ? '' : 'stands in'}</span>
            </li>
          );
        })}
      </ul>
      <div className="flex flex-wrap items-center gap-2 mt-3">
        <GiveTo
          person={person}
          words={`Give ${count(duties.length, 'duty', 'duties')} to`}
          busy={give.isPending}
          onGive={({ id, name }) =>
            give.mutate(id, { onSuccess: ({ given }) => toast(`${count(given, 'duty', 'duties')} given to ${name}`) })
          }
        />
      </div>
    </section>
  );
}
