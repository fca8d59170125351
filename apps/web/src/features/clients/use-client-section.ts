import { useQueryClient } from '@tanstack/react-query';
import type { ClientPageShape, EditClientBody } from '@zesting/contract';
import { toast } from 'sonner';
import { call } from '../../lib/api';
import { useTouched } from '../../lib/queries';
import { useEdited, type Edited } from '../../ui/edited';

/**
 * A part of a client's page as a draft.
 * @param section its name, one of a client's page
 * @param pick the part, out of the page
 * @param bodyOf what is sent of it
 */
export function useClientSection<T extends object>(
  section: string,
  client: ClientPageShape,
  pick: (client: ClientPageShape) => T,
  bodyOf: (draft: T) => EditClientBody,
): Edited<T> {
  const queries = useQueryClient();
  const touched = useTouched();
  const store = async (draft: T, version: number) => {
    const saved = await call<ClientPageShape>(`/clients/${client.id}`, { method: 'PATCH', body: bodyOf(draft), version });
    queries.setQueryData(['client', client.id], saved);
    touched();
    toast('Saved');
  };
  return useEdited(`client:${client.id}:${section}`, pick(client), client.version, store, pick);
}
