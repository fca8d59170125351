import type { RemarkReplyBody, RemarksShape, SettleRemarkBody } from '@zesting/contract';
import { useState } from 'react';
import { call, wordsOf } from '../../../lib/api';
import { instantWords } from '../../../lib/format';
import { useKept } from '../../../lib/kept';
import { useWrite } from '../../../lib/queries';
import { TellField, toldOf } from '../../../parts/tell-field';
import { Button } from '../../../ui/button';
import { Field } from '../../../ui/field';
import { LinkedText } from '../../../ui/linked-text';
import { MarkNumber } from '../../../ui/places';
import { Tag } from '../../../ui/tags';
import { AudienceField } from './audience-field';
import type { PlacedRemark } from './remark-place';

interface RemarkThreadProps {
  readonly placed: PlacedRemark;
  readonly all: Pick<RemarksShape, 'team' | 'canWriteToClient'>;
  /** the viewer may settle it */
  readonly canSettle: boolean;
  readonly isChosen?: boolean;
  readonly onChoose?: (id: string) => void;
}

const LINK = 'text-pine underline min-h-8 text-[13px]';

/** One remark: where, what, what came of it, and what was said to it. */
export function RemarkThread({ placed, all, canSettle, isChosen = false, onChoose }: RemarkThreadProps) {
  const { remark, number, where, became } = placed;
  const [replying, setReplying] = useKept<string>(`remark:${remark.id}:reply`);
  const remove = useWrite((path: string) => call(path, { method: 'DELETE' }));
  return (
    <li
      id={`remark-${remark.id}`}
      className={`py-2 border-t border-line first:border-t-0 scroll-mt-4 ${isChosen ? 'bg-lake-soft -mx-2 px-2 rounded-md' : ''}`}
    >
      <div className="flex gap-2">
        <MarkNumber mark={{ id: remark.id, number, isDone: remark.state !== 'open' }} onChoose={onChoose} />
        <div className="min-w-0 flex-1">
          <p className="flex flex-wrap items-baseline gap-x-2 text-[13px]">
            <span className="font-medium">{remark.authorName}</span>
            {remark.isContact && <Tag tone="lake">the client</Tag>}
            {!remark.isContact && remark.audience === 'client' && <Tag tone="lake">for the client</Tag>}
            <span className="text-muted tabular">{instantWords(remark.createdAt)}</span>
            {remark.mentioned.length > 0 && <span className="text-lake">told {remark.mentioned.join(', ')}</span>}
          </p>
          {where && (
            <p className="text-[13px] text-muted break-words">
              at {where}
              {became && <span className="text-rind"> · {became}</span>}
            </p>
          )}
          <p className={`whitespace-pre-wrap break-words ${remark.state === 'open' ? 'font-medium' : 'text-muted'}`}>
            <LinkedText text={remark.text} />
          </p>
          <Settle placed={placed} canSettle={canSettle} />
          <ul>
            {remark.replies.map((reply) => (
              <li key={reply.id} className={`border-l-4 pl-3 my-1.5 ${reply.isContact ? 'border-lake' : 'border-line-strong'}`}>
                <p className="flex flex-wrap items-baseline gap-x-2 text-[13px]">
                  <span className="font-medium">{reply.authorName}</span>
                  {!reply.isContact && reply.audience === 'client' && <Tag tone="lake">for the client</Tag>}
                  <span className="text-muted tabular">{instantWords(reply.createdAt)}</span>
                  {reply.mentioned.length > 0 && <span className="text-lake">told {reply.mentioned.join(', ')}</span>}
                </p>
                <p className="whitespace-pre-wrap break-words">
                  <LinkedText text={reply.text} />
                </p>
                {reply.canRemove && (
                  <button type="button" className={`${LINK} text-muted`} onClick={() => remove.mutate(`/replies/${reply.id}`)}>
                    Take back
                  </button>
                )}
              </li>
            ))}
          </ul>
          {replying === null ? (
            <p className="flex flex-wrap gap-x-4 mt-1">
              <button type="button" className={LINK} onClick={() => setReplying('')}>
                Say something to it
              </button>
              {remark.canRemove && (
                <button
                  type="button"
                  className={`${LINK} text-muted`}
                  disabled={remove.isPending}
                  onClick={() => remove.mutate(`/remarks/${remark.id}`)}
                >
                  Take back
                </button>
              )}
            </p>
          ) : (
            <Reply placed={placed} all={all} text={replying} onChange={setReplying} />
          )}
        </div>
      </div>
    </li>
  );
}

/** What came of a remark: settled, answered in words, or open. */
function Settle({ placed: { remark }, canSettle }: Pick<RemarkThreadProps, 'placed' | 'canSettle'>) {
  const [answer, setAnswer] = useKept<string>(`remark:${remark.id}`);
  const [error, setError] = useState<string>();
  const settle = useWrite((body: SettleRemarkBody) => call(`/remarks/${remark.id}`, { method: 'PATCH', body }), { quiet: true });
  const put = (body: SettleRemarkBody) =>
    settle.mutate(body, {
      onSuccess: () => {
        setAnswer(null);
        setError(undefined);
      },
      onError: (problem) => setError(wordsOf(problem)),
    });
  const isOpen = remark.state === 'open';
  const toContact = remark.isContact ? ' The client reads it with the next version.' : '';
  return (
    <>
      <div className="flex flex-wrap items-center gap-x-3">
        <label className="inline-flex items-center gap-1.5 min-h-8 text-[13px]">
          <input
            type="checkbox"
            className="size-4 accent-pine"
            aria-label={`Settled: ${remark.text}`}
            disabled={!canSettle || settle.isPending}
            checked={!isOpen}
            onChange={({ target }) => put({ state: target.checked ? 'settled' : 'open' })}
          />
          {remark.state === 'open' && 'Settled'}
          {remark.state === 'settled' && `Settled by ${remark.settledBy ?? ''}`}
          {remark.state === 'answered' && `Answered by ${remark.settledBy ?? ''}: ${remark.answer}`}
        </label>
        {isOpen && canSettle && answer === null && (
          <button type="button" className={LINK} onClick={() => setAnswer('')}>
            Answer instead…
          </button>
        )}
      </div>
      {error && answer === null && (
        <p role="alert" className="text-rhubarb text-[13px]">
          {error}
        </p>
      )}
      {answer !== null && (
        <div className="mt-1">
          <Field label="What is said instead of changing it" error={error} help={`It stands beside the remark.${toContact}`}>
            {(control) => (
              <textarea {...control} className="field" rows={2} value={answer} onChange={({ target }) => setAnswer(target.value)} />
            )}
          </Field>
          <div className="flex gap-2">
            <Button look="main" disabled={settle.isPending} onClick={() => put({ state: 'answered', answer })}>
              Answer
            </Button>
            <Button onClick={() => setAnswer(null)}>Not yet</Button>
          </div>
        </div>
      )}
    </>
  );
}

interface ReplyProps extends Pick<RemarkThreadProps, 'placed' | 'all'> {
  readonly text: string;
  readonly onChange: (text: string | null) => void;
}

function Reply({ placed: { remark }, all: { team, canWriteToClient }, text, onChange }: ReplyProps) {
  const [told, setTold] = useState<readonly string[]>([]);
  const [audience, setAudience] = useState<RemarkReplyBody['audience']>('team');
  const [error, setError] = useState<string>();
  const reply = useWrite((body: RemarkReplyBody) => call(`/remarks/${remark.id}/replies`, { method: 'POST', body }), { quiet: true });
  const send = () => {
    if (text.trim() === '') return setError('Write something first.');
    reply.mutate(
      { text: text.trim(), audience, mentionIds: toldOf({ team, text, told }) },
      { onSuccess: () => onChange(null), onError: (problem) => setError(wordsOf(problem)) },
    );
  };
  return (
    <div className="mt-1">
      <textarea
        aria-label={`Say something to: ${remark.text}`}
        className="field"
        rows={2}
        maxLength={2000}
        value={text}
        onChange={({ target }) => onChange(target.value)}
      />
      {remark.audience === 'client' && canWriteToClient && <AudienceField value={audience} onChange={setAudience} />}
      <TellField team={team} text={text} told={told} onChange={setTold} />
      {error && (
        <p role="alert" className="text-rhubarb text-[13px]">
          {error}
        </p>
      )}
      <div className="flex gap-2 mt-1">
        <Button look="main" disabled={reply.isPending} onClick={send}>
          Say it
        </Button>
        <Button look="quiet" onClick={() => onChange(null)}>
          Leave it
        </Button>
      </div>
    </div>
  );
}
