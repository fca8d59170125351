import { useQuery, useQueryClient } from '@tanstack/react-query';
import type { AgreedAmountsShape, PersonPageShape } from '@zesting/contract';
import { toast } from 'sonner';
import { rateQuery } from '../../api/money';
import { call, wordsOf } from '../../lib/api';
import { useTouched } from '../../lib/queries';
import { AgreedAmounts } from '../../ui/agreed-amounts';
import { useEdited } from '../../ui/edited';
import { Failed, Loading } from '../../ui/page';

/** What an hour of somebody costs: to leads, and to read to freelance creators themselves. */
export function RateSection({ person }: { person: PersonPageShape }) {
  const rate = useQuery(rateQuery(person.id));
  if (rate.isError) return <Failed message={wordsOf(rate.error)} onRetry={() => void rate.refetch()} />;
  return rate.data ? <Rate key={person.id} person={person} rate={rate.data} /> : <Loading />;
}

function Rate({ person, rate }: { person: PersonPageShape; rate: AgreedAmountsShape }) {
  const queries = useQueryClient();
  const touched = useTouched();
  const pick = ({ agreed }: AgreedAmountsShape) => ({ agreed });
  const store = async (draft: Pick<AgreedAmountsShape, 'agreed'>, version: number) => {
    await call(`/people/${person.id}/rate`, { method: 'PUT', body: draft, version });
    await queries.refetchQueries({ queryKey: rateQuery(person.id).queryKey });
    touched();
    toast('Saved');
  };
  const edited = useEdited(`person:${person.id}:rate`, pick(rate), rate.version, store, pick);
  return (
    <AgreedAmounts
      title="Rate"
      note={
        person.role === 'freelance'
          ? 'What an hour is paid. Where several could take a step in time, whoever costs less is proposed first. Leads see it, and they themselves.'
          : 'What an hour costs the agency. Only leads see it; it tells what the hours of a month cost, and is no reason in who is proposed.'
      }
      amountWords="An hour"
      currency={rate.currency}
      todayOn={person.todayOn}
      edited={edited}
      readOnly={!person.canEdit}
    />
  );
}
