import { useQuery, useQueryClient } from '@tanstack/react-query';
import type { AgreedAmountsShape, ClientPageShape } from '@zesting/contract';
import { toast } from 'sonner';
import { feeQuery } from '../../api/money';
import { call, wordsOf } from '../../lib/api';
import { useSession, useTouched } from '../../lib/queries';
import { AgreedAmounts } from '../../ui/agreed-amounts';
import { useEdited } from '../../ui/edited';
import { Failed, Loading } from '../../ui/page';

/** What the client pays for a month. */
export function FeeSection({ client }: { client: ClientPageShape }) {
  const fee = useQuery(feeQuery(client.id));
  if (fee.isError) return <Failed message={wordsOf(fee.error)} onRetry={() => void fee.refetch()} />;
  return fee.data ? <Fee key={client.id} clientId={client.id} fee={fee.data} /> : <Loading />;
}

function Fee({ clientId, fee }: { clientId: string; fee: AgreedAmountsShape }) {
  const { todayOn } = useSession();
  const queries = useQueryClient();
  const touched = useTouched();
  const pick = ({ agreed }: AgreedAmountsShape) => ({ agreed });
  const store = async (draft: Pick<AgreedAmountsShape, 'agreed'>, version: number) => {
    await call(`/clients/${clientId}/fee`, { method: 'PUT', body: draft, version });
    await queries.refetchQueries({ queryKey: feeQuery(clientId).queryKey });
    touched();
    toast('Saved');
  };
  const edited = useEdited(`client:${clientId}:fee`, pick(fee), fee.version, store, pick);
  return (
    <AgreedAmounts
      title="Fee"
      note="What is agreed for a month. Production, Load tells what an hour of it brings. Contacts and creators never see it."
      amountWords="Fee of a month"
      currency={fee.currency}
      todayOn={todayOn}
      edited={edited}
      byMonth
    />
  );
}
