import { useQueryClient } from '@tanstack/react-query';
import type { AgencySettingsShape, EditAgencyBody } from '@zesting/contract';
import { toast } from 'sonner';
import { agencyQuery, sessionQuery } from '../../api/agency';
import { call } from '../../lib/api';
import { useSession, useTouched } from '../../lib/queries';
import { useEdited, type Edited } from '../../ui/edited';

/** Puts what the server answered in place, and asks anew for what shows it. */
export function useSavedAgency(): (saved: AgencySettingsShape) => void {
  const queries = useQueryClient();
  const touched = useTouched();
  return (saved) => {
    queries.setQueryData(agencyQuery.queryKey, saved);
    touched();
    void queries.invalidateQueries({ queryKey: sessionQuery.queryKey }); // it carries the agency's name
    toast('Saved');
  };
}

export interface AgencySection<T> {
  readonly edited: Edited<T>;
  /** for whoever may only look */
  readonly locked: boolean;
}

/**
 * A part of the agency's settings as a draft.
 * @param section its name
 * @param pick the part, out of the settings
 * @param bodyOf what is sent of it
 */
export function useAgencySection<T extends object>(
  section: string,
  agency: AgencySettingsShape,
  pick: (agency: AgencySettingsShape) => T,
  bodyOf: (draft: T) => EditAgencyBody,
): AgencySection<T> {
  const { role } = useSession();
  const saved = useSavedAgency();
  const store = async (draft: T, version: number) =>
    saved(await call<AgencySettingsShape>('/agency', { method: 'PATCH', body: bodyOf(draft), version }));
  return { edited: useEdited(`agency:${section}`, pick(agency), agency.version, store, pick), locked: role !== 'lead' };
}
