import type { AgencySettingsShape, ListEntryShape } from '@zesting/contract';
import { rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { Agency } from '../entities/agency.entity.js';

/** What of an agency is changed as it is. */
export const EDITABLE = [
  'name',
  'zone',
  'region',
  'weeklyMinutes',
  'cutOff',
  'tightDays',
  'currency',
  'noticeDays',
  'launchNoticeDays',
  'sessionDays',
  'keepsPlaces',
  'accent',
  'quietFrom',
  'quietTo',
  'roundUp',
  'roundUpAt',
  'defaultPolicy',
  'ideaWeights',
  'checkWeekday',
] as const;

/** The agency's row; under lock for who changes it. */
export async function agencyOf(tx: Tx, isLocked: boolean): Promise<Agency> {
  const [agency] = await tx.find(Agency, { take: 1, ...(isLocked ? { lock: { mode: 'pessimistic_write' } } : {}) });
  if (!agency) throw new Error('there is no agency');
  return agency;
}

/** The lists of the agency, and what uses an entry of each. */
export const USED_BY = {
  formats: '(select count(*)::int from routes r where r.format_id = l.id and r.archived_at is null)',
  skills: `(select count(*)::int from people p where p.active and p.skills ? l.name)
    + (select count(*)::int from routes r where r.archived_at is null and r.steps @> jsonb_build_array(jsonb_build_object('skill', l.name)))`,
  markerKinds: '(select count(*)::int from markers m where m.kind_id = l.id)',
} as const;
export type ListName = keyof typeof USED_BY;
/** Where each list is kept. */
export const TABLES = { formats: 'formats', skills: 'skills', markerKinds: 'marker_kinds' } as const satisfies Record<ListName, string>;

type ListRow = ListEntryShape & { archived: boolean };
const listOf = (tx: Tx, list: ListName): Promise<ListRow[]> =>
  rowsOf<ListRow>(
    tx,
    `select id, name, archived_at is not null as archived, ${USED_BY[list]} as uses from ${TABLES[list]} l order by (archived_at is not null), position, name`,
  );

const plain = ({ id, name, uses }: ListRow): ListEntryShape => ({ id, name, uses });

/** All that the agency sets. */
export async function settingsOf(tx: Tx): Promise<AgencySettingsShape> {
  const agency = await agencyOf(tx, false);
  const lists = {
    formats: await listOf(tx, 'formats'),
    skills: await listOf(tx, 'skills'),
    markerKinds: await listOf(tx, 'markerKinds'),
  };
  const those = (archived: boolean) => ({
    formats: lists.formats.filter((row) => row.archived === archived).map(plain),
    skills: lists.skills.filter((row) => row.archived === archived).map(plain),
    markerKinds: lists.markerKinds.filter((row) => row.archived === archived).map(plain),
  });
  const shown = Object.fromEntries(EDITABLE.map((key) => [key, agency[key]])) as Pick<AgencySettingsShape, (typeof EDITABLE)[number]>; // one for each
  return {
    ...shown,
    markAddress: agency.markHash && `/api/agency/mark?of=${agency.markHash.slice(0, 12)}`,
    mailFrom: agency.mailName !== null && agency.mailAddress !== null ? { name: agency.mailName, address: agency.mailAddress } : null,
    mailProvedAt: agency.mailProvedAt,
    defaultFormId: agency.defaultFormId,
    ...those(false),
    archived: those(true),
    isDemo: agency.isDemo,
    version: agency.version,
  };
}
