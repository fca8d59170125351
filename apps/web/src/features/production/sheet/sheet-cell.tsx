import type { PersonRow, SheetRowShape } from '@zesting/contract';
import { sheetColumn, type SheetColumn } from '@zesting/core';
import { ArrowRight } from 'lucide-react';
import { memo, type ClipboardEvent, type ReactNode } from 'react';
import { Link } from 'react-router';
import { dayWords, hoursWords, signed } from '../../../lib/format';
import { useClients, useSession } from '../../../lib/queries';
import { PURPOSE_OPTIONS, STAGE_WORDS } from '../../../lib/words';
import { DayInput } from '../../../ui/day-field';
import { ClientCode, DangerTag } from '../../../ui/tags';
import { canPut, hasNoTitle, isChanged, shownIn, stepAtHand, type Known, type SheetDraft, type WrittenColumn } from './sheet-draft';

/** What the written cells of a sheet need, and what they do. */
export interface SheetWork {
  readonly draft: SheetDraft;
  /** `leads`: those of the people who may answer for a piece */
  readonly known: Known & { readonly people: readonly PersonRow[]; readonly leads: readonly PersonRow[] };
  readonly onPut: (row: SheetRowShape, column: WrittenColumn, value: string | null) => void;
  readonly onPaste: (event: ClipboardEvent, index: number, column: WrittenColumn) => void;
}

interface WrittenProps extends SheetWork {
  readonly row: SheetRowShape;
  /** the piece's place among those that are shown */
  readonly index: number;
  readonly column: WrittenColumn;
}

/** What is told of a piece in a column that is only read. */
export function ReadCell({ row, column }: { row: SheetRowShape; column: SheetColumn }): ReactNode {
  const { clientOf } = useClients();
  const said = sheetColumn(column).of(row);
  if (column === 'client') {
    const client = clientOf(row.clientId);
    return <ClientCode code={row.clientCode} colour={client?.colour ?? 0} name={client?.name ?? ''} />;
  }
  if (column === 'danger') return <DangerTag danger={row.danger === 'fine' ? null : row.danger} />;
  if (column === 'stage') return STAGE_WORDS[row.stage];
  if (column === 'doer' && row.atHand.some(({ isClients, doerId }) => !isClients && doerId === null))
    return <span className="text-rind font-medium">{['nobody', ...row.doerNames].join(', ')}</span>;
  if (said === null || said === '') return <span className="text-muted">–</span>;
  const { kind } = sheetColumn(column);
  if (kind === 'day') return <span className="tabular">{dayWords(String(said))}</span>;
  if (kind === 'minutes') return <span className="tabular">{said === 0 ? '–' : hoursWords(Number(said))}</span>;
  if (kind === 'number') return <span className="tabular">{signed(Number(said))}</span>;
  return <span title={String(said)}>{said}</span>;
}

const WORDS: Record<WrittenColumn, string> = {
  title: 'Title',
  pillar: 'Pillar',
  lead: 'Who answers for',
  purpose: 'Purpose',
  doer: 'Who has',
  wish: 'Wish date',
};

/** A cell that is written in place. What cannot be written there is only read. */
export function WrittenCell(props: WrittenProps) {
  const { row, column } = props;
  const { to } = useClients();
  const cell = column === 'title' ? <TitleCell {...props} /> : column === 'wish' ? <WishCell {...props} /> : <ChoiceCell {...props} />;
  if (column !== 'title') return canPut(row, column) ? cell : <ReadCell row={row} column={column} />;
  return (
    <span className="flex items-center gap-2">
      {canPut(row, column) ? cell : <span className="flex-1 truncate font-medium">{row.title}</span>}
      <Link
        to={to(`/pieces/${row.id}`)}
        className="grid place-items-center size-6 shrink-0 rounded-md text-pine hover:bg-sunk"
        aria-label={`Open ${row.title}`}
        title="Open the piece"
      >
        <ArrowRight size={15} aria-hidden />
      </Link>
    </span>
  );
}

/** How a written cell is named and drawn: as the text that it holds, until somebody comes to it. */
function cellProps({ row, column, draft, index, onPaste }: WrittenProps) {
  return {
    'aria-label': `${WORDS[column]} of ${row.title}`,
    className: `sheet-field ${isChanged(row, column, draft) ? 'is-changed' : ''}`,
    onPaste: (event: ClipboardEvent) => onPaste(event, index, column),
  };
}

function TitleCell(props: WrittenProps) {
  const { row, column, draft, onPut } = props;
  return (
    <input
      {...cellProps(props)}
      className={`${cellProps(props).className} font-medium`}
      aria-invalid={hasNoTitle(row, draft)}
      maxLength={200}
      title={shownIn(row, column, draft) ?? ''}
      value={shownIn(row, column, draft) ?? ''}
      onChange={({ target }) => onPut(row, column, target.value)}
    />
  );
}

function WishCell({ onPaste, index, ...props }: WrittenProps) {
  const { row, column, draft, onPut } = props;
  const { todayOn } = useSession();
  return (
    <div className={`sheet-day ${isChanged(row, column, draft) ? 'is-changed' : ''}`} onPaste={(event) => onPaste(event, index, column)}>
      <DayInput
        label={`${WORDS[column]} of ${row.title}`}
        todayOn={todayOn}
        value={shownIn(row, column, draft) ?? ''}
        onChange={(on) => onPut(row, column, on === '' ? null : on)}
      />
    </div>
  );
}

/** What stands in a cell where nothing is chosen. */
const NONE_WORDS: Record<WrittenColumn, (row: SheetRowShape) => string> = {
  title: () => '',
  wish: () => '',
  pillar: () => 'none',
  purpose: () => 'not said',
  doer: () => 'nobody',
  // whoever answers for the client's
  lead: ({ leadId, leadName }) => (leadId === null && leadName !== null ? leadName : 'as for the client'),
};

function ChoiceCell(props: WrittenProps) {
  const { row, column, draft, known, onPut } = props;
  const value = shownIn(row, column, draft) ?? '';
  const step = column === 'doer' ? stepAtHand(row) : undefined;
  return (
    <select
      {...cellProps(props)}
      className={`${cellProps(props).className} ${step && value === '' ? 'text-rind font-medium' : ''}`}
      value={value}
      onChange={({ target }) => onPut(row, column, target.value === '' ? null : target.value)}
    >
      <option value="">{NONE_WORDS[column](row)}</option>
      {column === 'lead' ? (
        <PeopleOptions people={known.leads} chosenId={row.leadId} chosenName={row.leadName} />
      ) : step ? (
        <PeopleOptions people={known.people} skill={step.skill} chosenId={step.doerId} chosenName={step.doerName} />
      ) : (
        optionsOf(row, column, known).map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))
      )}
    </select>
  );
}

/** What can be chosen; a pillar that was put away meanwhile stays where it stands. */
function optionsOf(
  row: SheetRowShape,
  column: WrittenColumn,
  { pillarsOf }: Known,
): readonly { readonly id: string; readonly name: string }[] {
  if (column === 'purpose') return PURPOSE_OPTIONS;
  const pillars = pillarsOf(row.clientId);
  const { pillarId, pillarName } = row;
  return pillarId === null || pillars.some(({ id }) => id === pillarId) ? pillars : [...pillars, { id: pillarId, name: pillarName ?? '' }];
}

interface PeopleProps {
  readonly people: readonly PersonRow[];
  /** who can do it comes first; undefined: it is not asked */
  readonly skill?: string | undefined;
  /** who has it now, who may have left */
  readonly chosenId?: string | null;
  readonly chosenName?: string | null;
}

/** The people of the agency as choices. Of many rows each has them: they are drawn again only where something of them changed. */
export const PeopleOptions = memo(function PeopleOptions({ people, skill, chosenId = null, chosenName = null }: PeopleProps) {
  const here = people.filter(({ active }) => active);
  const isGone = chosenId !== null && here.every(({ id }) => id !== chosenId);
  const able = skill === undefined ? [] : here.filter(({ skills }) => (skills[skill] ?? 0) > 0);
  const others = here.filter((person) => !able.includes(person));
  const option = ({ id, name }: { id: string; name: string }) => (
    <option key={id} value={id}>
      {name}
    </option>
  );
  return (
    <>
      {isGone && option({ id: chosenId, name: chosenName ?? '' })}
      {able.length > 0 && <optgroup label={`Can do ${skill}`}>{able.map(option)}</optgroup>}
      {able.length > 0 && others.length > 0 ? <optgroup label="Others">{others.map(option)}</optgroup> : others.map(option)}
    </>
  );
});
