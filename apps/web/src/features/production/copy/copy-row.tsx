import type { CopyRowShape } from '@zesting/contract';
import { copycheck, lengthOn, linkcheck, type ClientRules, type LinkAnswers, type Purpose } from '@zesting/core';
import type { ClipboardEvent } from 'react';
import { Link } from 'react-router';
import { call } from '../../../lib/api';
import { dayWords } from '../../../lib/format';
import { useClients, useWrite } from '../../../lib/queries';
import { toTags } from '../../../lib/tags';
import { PURPOSE_OPTIONS } from '../../../lib/words';
import { Findings } from '../../../ui/findings';
import { PlacementTag } from '../../../ui/placement-tag';
import { Thumbnail } from '../../../ui/thumbnail';
import { FIELD_WORDS, isBehind, isOpen, rowKey, savedText, shownText, type CopyDraft, type CopyField } from './copy-draft';

interface CopyRowProps {
  readonly row: CopyRowShape;
  readonly draft: CopyDraft;
  readonly isFirstOfDay: boolean;
  readonly isChecked: boolean;
  readonly words: Pick<ClientRules, 'wordsNever' | 'wordsToUse'>;
  readonly answers: LinkAnswers;
  readonly onCheck: (isOn: boolean) => void;
  readonly onType: (field: CopyField, text: string) => void;
  readonly onPaste: (event: ClipboardEvent, field: CopyField) => void;
  readonly onKeepMine: () => void;
  readonly onTakeTheirs: () => void;
}

/** One placement: what goes out there, each cell written in place, with what is too long or never said. */
export function CopyRow(props: CopyRowProps) {
  const { row, draft, isFirstOfDay, isChecked, words, answers, onCheck } = props;
  const { to } = useClients();
  const text = (field: CopyField) => shownText(row, field, draft);
  const part = { copy: '', tags: toTags(text('tags')), firstComment: text('firstComment'), link: text('link') };
  const content = { shared: { copy: text('copy'), media: [], disclosure: row.disclosure }, channels: { [row.channelId]: part } };
  const findings = [
    ...copycheck(content, row.channelId, row, { ...words, needsDisclosure: false }),
    ...linkcheck(content, row.channelId, answers),
  ];
  const at = (place: string) => (
    <Findings
      label={`What does not fit in ${row.title} on ${row.channelName}`}
      findings={findings.filter((found) => found.place === place)}
    />
  );
  return (
    <tr className={`align-top border-t ${isFirstOfDay ? 'border-line-strong' : 'border-line'}`}>
      <td className="p-2">
        <input
          type="checkbox"
          className="size-4 accent-pine mt-1.5"
          aria-label={`Choose ${row.title} on ${row.channelName}`}
          checked={isChecked}
          onChange={({ target }) => onCheck(target.checked)}
        />
      </td>
      <td className="p-2">
        <p className={`tabular ${isFirstOfDay ? 'font-semibold' : 'text-muted'}`}>{dayWords(row.on)}</p>
        <p className="text-muted tabular">{row.at ?? 'no time'}</p>
        <p className="font-medium break-words">{row.channelName}</p>
        <PlacementTag state={row.state} />
      </td>
      <td className="p-2">
        <div className="flex gap-2">
          <Thumbnail pictureId={row.pictureId} size={44} />
          <div className="min-w-0">
            <Link to={to(`/pieces/${row.pieceId}`)} className="font-medium block break-words">
              {row.title}
            </Link>
            <span className="text-muted">{row.formatName}</span>
          </div>
        </div>
      </td>
      <td className="p-2">
        <Cell {...props} field="copy" rows={3} />
        <Said said={lengthOn(content, row.channelId, row)} limit={row.copyLimit} what="characters" />
        {at('copy')}
        {row.isLaidOut && (
          <p className="text-muted mt-1">Laid out on the piece. Changed here, it is {row.channelName}’s own, and words alone.</p>
        )}
        {!row.isLaidOut && row.sharedWith.length > 0 && (
          <p className="text-muted text-[12px]">
            The same on {row.sharedWith.join(', ')}. Changed here, it is {row.channelName}’s own.
          </p>
        )}
        {row.state === 'scheduled' && draft[rowKey(row)] !== undefined && (
          <p className="text-rind text-[12px]">This is signed off. Saved like this, the client must sign it again.</p>
        )}
        {isBehind(row, draft) && <Behind {...props} />}
      </td>
      <td className="p-2">
        <Cell {...props} field="tags" rows={2} />
        <Said said={part.tags.length} limit={row.tagLimit} what="tags" />
        {at('tags')}
      </td>
      <td className="p-2">
        <Cell {...props} field="firstComment" rows={2} />
        {at('first_comment')}
      </td>
      <td className="p-2">
        <Cell {...props} field="link" rows={1} />
        {at('link')}
      </td>
      <td className="p-2">
        <PurposeCell row={row} />
      </td>
    </tr>
  );
}

/** One cell: it grows with what is in it. */
function Cell({ row, draft, field, rows, onType, onPaste }: CopyRowProps & { field: CopyField; rows: number }) {
  const text = shownText(row, field, draft);
  const isChanged = text !== savedText(row, field);
  if (!isOpen(row)) return <p className="whitespace-pre-wrap break-words py-1">{text}</p>;
  return (
    <textarea
      aria-label={`${FIELD_WORDS[field]} of ${row.title} on ${row.channelName}`}
      className={`field field-sizing-content text-[13px] resize-none ${isChanged ? 'border-rind' : ''}`}
      rows={rows}
      spellCheck
      value={text}
      onChange={({ target }) => onType(field, field === 'link' ? target.value.replaceAll('\n', '') : target.value)}
      onPaste={(event) => onPaste(event, field)}
    />
  );
}

const Said = ({ said, limit, what }: { said: number; limit: number | null; what: string }) => (
  <p className="text-[12px] tabular text-muted">{limit === null ? `${said} ${what}` : `${said} of ${limit} ${what}`}</p>
);

/** Somebody else changed the piece after something was typed here. */
function Behind({ row, onKeepMine, onTakeTheirs }: CopyRowProps) {
  return (
    <div role="alert" className="mt-1 rounded-md bg-rind-soft px-2 py-1 text-rind">
      <p>Somebody else changed this meanwhile. Theirs now: “{row.copy}”</p>
      <p className="flex gap-3">
        <button type="button" className="underline min-h-6" onClick={onKeepMine}>
          Keep what I typed
        </button>
        <button type="button" className="underline min-h-6" onClick={onTakeTheirs}>
          Take theirs
        </button>
      </p>
    </div>
  );
}

/** What the piece asks people to: of the piece, saved at once. */
function PurposeCell({ row }: { row: CopyRowShape }) {
  const save = useWrite((purpose: Purpose | null) =>
    call(`/pieces/${row.pieceId}`, { method: 'PATCH', body: { purpose }, version: row.version }),
  );
  return (
    <select
      aria-label={`What ${row.title} asks people to`}
      className="field text-[13px]"
      disabled={save.isPending || !isOpen(row)}
      value={row.purpose ?? ''}
      onChange={({ target }) => save.mutate(PURPOSE_OPTIONS.find(({ id }) => id === target.value)?.id ?? null)}
    >
      <option value="">not said</option>
      {PURPOSE_OPTIONS.map(({ id, name }) => (
        <option key={id} value={id}>
          {name}
        </option>
      ))}
    </select>
  );
}
