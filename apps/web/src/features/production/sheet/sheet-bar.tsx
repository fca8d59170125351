import type { SheetRowShape } from '@zesting/contract';
import { SHEET_COLUMNS, SHEET_GROUPS, sheetColumn, totalsOf, type SheetColumn, type SheetGroup } from '@zesting/core';
import { Columns3 } from 'lucide-react';
import { minutesWords } from '../../../lib/format';
import { useSession } from '../../../lib/queries';
import { PURPOSE_OPTIONS } from '../../../lib/words';
import { Button, buttonClass } from '../../../ui/button';
import { DayInput } from '../../../ui/day-field';
import { FilterSelect } from '../../../ui/filter-select';
import { TickMenu } from '../../../ui/menu';
import { PeopleOptions, type SheetWork } from './sheet-cell';
import { WRITTEN, type WrittenColumn } from './sheet-draft';
import type { SheetView } from './sheet-view';

/** What some pieces come to, in words. */
export function totalsWords({ leftMinutes, workedMinutes, late }: ReturnType<typeof totalsOf>): string {
  return [
    late > 0 ? `${late} late` : '',
    leftMinutes > 0 ? `${minutesWords(leftMinutes)} left` : 'nothing left',
    workedMinutes > 0 ? `${minutesWords(workedMinutes)} worked` : '',
  ]
    .filter(Boolean)
    .join(' · ');
}

const GROUP_WORDS: Readonly<Record<SheetGroup, string>> = {
  client: 'client',
  format: 'format',
  pillar: 'pillar',
  campaign: 'campaign',
  lead: 'who answers',
  stage: 'stage',
  doer: 'who has it',
  week: 'week',
  month: 'month',
  danger: 'danger',
};

/** How the sheet is looked at: its groups, its columns, and whether what is done is in it. */
export function SheetLook({ view }: { view: SheetView }) {
  return (
    <>
      <FilterSelect
        words="Put together by"
        none="nothing"
        value={view.group}
        options={SHEET_GROUPS.map((id) => ({ id, name: GROUP_WORDS[id] }))}
        onChange={(id) => view.putGroup(SHEET_GROUPS.find((group) => group === id) ?? null)}
      />
      <label className="inline-flex items-center gap-1.5 min-h-8">
        <input type="checkbox" className="size-4 accent-pine" checked={view.isAll} onChange={({ target }) => view.putAll(target.checked)} />
        also what is done
      </label>
      <ColumnChoice view={view} />
    </>
  );
}

const ColumnChoice = ({ view }: { view: SheetView }) => (
  <TickMenu
    label="Columns"
    className={buttonClass()}
    trigger={
      <>
        <Columns3 size={15} aria-hidden /> Columns
      </>
    }
    items={SHEET_COLUMNS.filter((column) => column !== 'title').map((id) => ({
      id,
      name: sheetColumn(id).name,
      isOn: view.columns.includes(id),
    }))}
    onTick={(id, isOn) => view.putColumn(id as SheetColumn, isOn)} // of the columns above
  />
);

/** Stands in a choice for what the first of the chosen shows. */
const AS_FIRST = '=';
const NONE = '-';
const MANY_WORDS: Readonly<Record<Exclude<WrittenColumn, 'title' | 'wish'>, string>> = {
  pillar: 'Pillar',
  lead: 'Answers for it',
  purpose: 'Purpose',
  doer: 'With',
};

interface ManyProps extends Pick<SheetWork, 'known'> {
  readonly chosen: readonly SheetRowShape[];
  readonly onFill: (column: WrittenColumn) => void;
  readonly onPutAll: (column: WrittenColumn, value: string | null) => void;
  readonly onNone: () => void;
}

/** What is put into all chosen lines at once. Nothing is saved by it. */
export function SheetMany({ chosen, known, onFill, onPutAll, onNone }: ManyProps) {
  const { todayOn } = useSession();
  const [first] = chosen;
  const isOneClient = chosen.every(({ clientId }) => clientId === first?.clientId);
  const options = {
    pillar: isOneClient && first ? known.pillarsOf(first.clientId) : [],
    lead: known.leads,
    purpose: PURPOSE_OPTIONS,
    doer: [],
  };
  const answer = (column: WrittenColumn, value: string) => {
    if (value === AS_FIRST) onFill(column);
    else if (value !== '') onPutAll(column, value === NONE ? null : value);
  };
  return (
    <div role="group" aria-label="Chosen pieces" className="flex flex-wrap items-center gap-x-3 gap-y-1">
      <span className="font-medium">
        {chosen.length} chosen <span className="text-muted font-normal">· {totalsWords(totalsOf(chosen))}</span>
      </span>
      {WRITTEN.filter((column) => column !== 'title' && column !== 'wish').map((column) => (
        <label key={column} className="inline-flex items-center gap-1.5">
          <span className="text-muted">{MANY_WORDS[column]}</span>
          <select className="field w-auto max-w-36 text-[13px]" value="" onChange={({ target }) => answer(column, target.value)}>
            <option value="">as it is</option>
            {chosen.length > 1 && <option value={AS_FIRST}>as in the first</option>}
            <option value={NONE}>{column === 'doer' ? 'nobody' : column === 'lead' ? 'as for the client' : 'none'}</option>
            {options[column].map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
            {column === 'doer' && <PeopleOptions people={known.people} />}
          </select>
        </label>
      ))}
      <span className="inline-flex items-center gap-1.5">
        <span className="text-muted" aria-hidden>
          Wish
        </span>
        <DayInput
          label="Wish date of all chosen"
          todayOn={todayOn}
          value=""
          onChange={() => undefined}
          onDone={(on) => on && onPutAll('wish', on)}
        />
      </span>
      <Button look="quiet" onClick={onNone}>
        Choose none
      </Button>
    </div>
  );
}

export const columnsWritten = (columns: readonly SheetColumn[]): WrittenColumn[] =>
  SHEET_COLUMNS.filter((column) => columns.includes(column)).flatMap((column) => WRITTEN.find((written) => written === column) ?? []);
