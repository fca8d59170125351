import { useSuspenseQuery } from '@tanstack/react-query';
import type { ClientShape, ReadyPieceShape, ReadyShape, SendPacketBody, SentPacketShape } from '@zesting/contract';
import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { toast } from 'sonner';
import { readyQuery } from '../../api/clients';
import { call, wordsOf } from '../../lib/api';
import { count, dayWords } from '../../lib/format';
import { answerWords } from '../../lib/forecast-words';
import { useKept } from '../../lib/kept';
import { policyWords } from '../../lib/policy-words';
import { useDaysOff, useWrite } from '../../lib/queries';
import { WhatFits } from '../../parts/what-fits';
import { slipWords } from './slips';
import { Button } from '../../ui/button';
import { DayField } from '../../ui/day-field';
import { Field } from '../../ui/field';
import { ClientCode, Tag } from '../../ui/tags';
import { Thumbnail } from '../../ui/thumbnail';

/** What of one client is ready, and the packet made of it. */
export function ComposePacket({ client }: { client: ClientShape }) {
  const [search] = useSearchParams();
  const { data: ready } = useSuspenseQuery(readyQuery(client.id));
  const asked = search.get('piece');
  const [chosen, setChosen] = useState<readonly string[]>(
    ready.pieces.filter((piece) => piece.pieceId === asked).map((piece) => piece.pieceId),
  );
  const picked = ready.pieces.filter((piece) => chosen.includes(piece.pieceId));
  const toggle = (id: string) => setChosen(chosen.includes(id) ? chosen.filter((other) => other !== id) : [...chosen, id]);
  return (
    <section className="card p-4" aria-label={`Ready for ${client.name}`}>
      <h3 className="flex flex-wrap items-center gap-2 text-base mb-1">
        <ClientCode code={client.code} colour={client.colour} />
        {client.name}
      </h3>
      {ready.pieces.length === 0 ? (
        <p className="text-muted">Nothing is ready to be sent. A piece stands here once its check is passed.</p>
      ) : (
        <>
          <ul className="mb-3">
            {ready.pieces.map((piece) => (
              <li key={piece.pieceId} className="border-t border-line first:border-t-0">
                <label className="flex flex-wrap items-center gap-x-3 min-h-12">
                  <input
                    type="checkbox"
                    className="size-4 accent-pine"
                    disabled={piece.openRemarks > 0}
                    checked={chosen.includes(piece.pieceId)}
                    onChange={() => toggle(piece.pieceId)}
                  />
                  <Thumbnail pictureId={piece.pictureId} />
                  <span className="font-medium">{piece.title}</span>
                  {piece.round > 1 && <span className="text-muted text-[13px]">round {piece.round}</span>}
                  {piece.isVoided && <Tag tone="rhubarb">Changed after sign-off</Tag>}
                  {piece.slips && <Tag tone="rhubarb">Slips</Tag>}
                  <span className="ml-auto text-muted text-[13px] tabular">
                    {piece.latestFinishOn ? `answer by ${dayWords(piece.latestFinishOn)}` : 'no date'}
                  </span>
                  {piece.openRemarks > 0 && (
                    <Link to={`/pieces/${piece.pieceId}#remarks`} className="basis-full pl-7 text-rind text-[13px] underline">
                      {count(piece.openRemarks, 'remark')} to settle or answer first
                    </Link>
                  )}
                  {piece.openTeamRemarks > 0 && (
                    <Link to={`/pieces/${piece.pieceId}/remarks`} className="basis-full pl-7 text-muted text-[13px] underline">
                      {count(piece.openTeamRemarks, 'remark')} of the team still open
                    </Link>
                  )}
                </label>
                {chosen.includes(piece.pieceId) && <WhatFits pieceId={piece.pieceId} />}
              </li>
            ))}
          </ul>
          {picked.length > 0 && (
            <PacketForm key={chosen.join()} client={client} ready={ready} pieces={picked} onSent={() => setChosen([])} />
          )}
        </>
      )}
    </section>
  );
}

interface PacketFormProps {
  readonly client: ClientShape;
  readonly ready: ReadyShape;
  readonly pieces: readonly ReadyPieceShape[];
  readonly onSent: () => void;
}

/** The earliest latest finish of the pieces; null where none has a date. */
const earliestOf = (pieces: readonly ReadyPieceShape[]): string | null =>
  pieces.flatMap((piece) => piece.latestFinishOn ?? []).sort()[0] ?? null;

function PacketForm({ client, ready, pieces, onSent }: PacketFormProps) {
  const title = pieces[0]?.title ?? '';
  const earliest = earliestOf(pieces);
  const pieceIds = pieces.map((piece) => piece.pieceId);
  const [typed, setBody] = useKept<SendPacketBody>(`packet:${client.id}:${pieceIds.join()}`);
  const body = typed ?? {
    title: pieces.length === 1 ? title : `${title} and ${count(pieces.length - 1, 'more piece')}`,
    message: '',
    pieceIds,
    dueOn: earliest !== null && earliest >= ready.todayOn ? earliest : ready.suggestedDueOn,
  };
  const slips = slipWords(pieces, body.dueOn);
  const [error, setError] = useState<string>();
  const off = useDaysOff({ clientId: client.id });
  const send = useWrite((sent: SendPacketBody) => call<SentPacketShape>(`/clients/${client.id}/packets`, { method: 'POST', body: sent }), {
    quiet: true,
  });
  const names = ready.approvers.map((contact) => contact.name).join(', ');
  const submit = () =>
    send.mutate(body, {
      onSuccess: () => {
        toast(`Sent to ${names}`);
        setBody(null);
        onSent();
      },
      onError: (problem) => setError(wordsOf(problem)),
    });
  return (
    <div className="border-t border-line pt-3">
      <p className="mb-3">
        Goes to <strong>{names || 'nobody'}</strong>.{' '}
        {policyWords(ready.policy, { approvers: ready.approvers, personName: () => 'the agency' })}
      </p>
      <div className="grid gap-x-3 sm:grid-cols-[minmax(0,1fr)_12rem]">
        <Field label="Name of the packet" required>
          {(control) => (
            <input
              {...control}
              className="field"
              value={body.title}
              onChange={(event) => setBody({ ...body, title: event.target.value })}
            />
          )}
        </Field>
        <DayField
          label="Answer by"
          required
          error={error}
          todayOn={ready.todayOn}
          min={ready.todayOn}
          off={off}
          marks={earliest ? [{ on: earliest, words: 'Latest that keeps every date' }] : []}
          value={body.dueOn}
          onChange={(dueOn) => setBody({ ...body, dueOn })}
        />
      </div>
      {ready.answers && ready.policy.kind !== 'agency' && (
        <p className="text-muted text-[13px] -mt-1 mb-3.5">{answerWords(ready.answers, body.dueOn)}</p>
      )}
      <Field label="A word to the client">
        {(control) => (
          <textarea
            {...control}
            className="field"
            rows={2}
            value={body.message}
            onChange={(event) => setBody({ ...body, message: event.target.value })}
          />
        )}
      </Field>
      {slips.length > 0 && (
        <ul role="status" aria-label="What slips" className="rounded-md bg-rhubarb-soft px-3 py-2 mb-3 text-rhubarb">
          {slips.map((words) => (
            <li key={words}>{words}</li>
          ))}
        </ul>
      )}
      <Button look="main" disabled={send.isPending} onClick={submit}>
        Send {count(pieces.length, 'piece')} for sign-off
      </Button>
    </div>
  );
}
