import { searchNow, withChanges } from '../../../lib/use-search';

/** The address of the steps of one skill, one after another; what the work is narrowed to stays. @param format of one format alone; null: of any that is asked for */
export const sittingAddress = (skill: string, format: string | null): string =>
  `/production/make/sitting?${withChanges(searchNow().toString(), { step: null, skill, ...(format === null ? {} : { format }) })}`;
