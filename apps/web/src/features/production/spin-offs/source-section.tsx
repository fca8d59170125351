import { useQuery } from '@tanstack/react-query';
import type { FactShape, PieceShape, SettleFactsBody, SpinOffSourceShape } from '@zesting/contract';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { spinOffsQuery } from '../../../api/spin-offs';
import { call, wordsOf } from '../../../lib/api';
import { useClients, useWrite } from '../../../lib/queries';
import { clipWords, FACT_WORDS, factsInWords, factText } from '../../../lib/spin-off-words';
import { useOpened } from '../../../lib/use-opened';
import { useReached } from '../../../lib/use-reached';
import { Button } from '../../../ui/button';
import { SpinOffDialog } from './spin-off-dialog';

/** What the piece is made from, and the fields in which it is behind that. Nothing where it is made from none. */
export function SourceSection({ piece }: { piece: PieceShape }) {
  const { data } = useQuery(spinOffsQuery(piece.id));
  useReached('source', data?.source != null);
  return data?.source ? <Source piece={piece} source={data.source} /> : null;
}

function Source({ piece, source }: { piece: PieceShape; source: SpinOffSourceShape }) {
  const { to } = useClients();
  const { opened, open, close } = useOpened();
  const stale = source.facts.filter(({ state }) => state === 'stale');
  const clip = clipWords(source.fromSecond, source.toSecond);
  const said = [
    { words: 'Cut', text: clip },
    { words: 'Asks people to', text: source.callToAction },
    { words: 'Most often in the way', text: source.obstacle },
  ].filter(({ text }) => text !== '');
  return (
    <section id="source" aria-labelledby="source-head" className="card p-4 scroll-mt-4">
      <div className="flex flex-wrap items-center gap-2">
        <h2 id="source-head" className="text-lg">
          Made from
        </h2>
        {piece.canManage && (
          <Button look="quiet" className="ml-auto" aria-label="Change… how it is made from its source" onClick={() => open('spin-off')}>
            Change…
          </Button>
        )}
      </div>
      <p className="break-words">
        {source.canOpen ? (
          <Link to={to(`/pieces/${source.pieceId}`)} className="text-pine underline">
            {source.title}
          </Link>
        ) : (
          <span className="font-medium">{source.title}</span>
        )}{' '}
        <span className="text-muted">(no. {source.number})</span>
      </p>
      <dl className="text-[13px] mt-1">
        {said.map(({ words, text }) => (
          <div key={words} className="flex flex-wrap gap-x-1.5">
            <dt className="text-muted">{words}</dt>
            <dd className="break-words min-w-0">{text}</dd>
          </div>
        ))}
      </dl>
      {stale.length > 0 && <Stale piece={piece} source={source} stale={stale} />}
      <Standing facts={source.facts} />
      {piece.canManage && opened === 'spin-off' && <SpinOffDialog piece={piece} source={source} onClose={close} />}
    </section>
  );
}

/** Fields that the source says otherwise since: taken over, or kept as they are here. */
function Stale({ piece, source, stale }: { piece: PieceShape; source: SpinOffSourceShape; stale: readonly FactShape[] }) {
  const settle = useWrite((body: SettleFactsBody) => call(`/pieces/${piece.id}/spin-off/facts`, { method: 'POST', body }), { quiet: true });
  const go = (facts: readonly FactShape[], choice: 'take' | 'keep') =>
    settle.mutate(
      { facts: facts.map(({ fact }) => ({ fact, choice })), mark: source.mark },
      {
        onSuccess: () => toast(choice === 'take' ? 'Taken over.' : 'Kept as it is here.'),
        onError: (error) => toast.error(wordsOf(error)),
      },
    );
  return (
    <div className="mt-2 rounded-md border border-rind p-3">
      <p className="font-medium text-rind">Its source was changed since.</p>
      <ul>
        {stale.map((one) => (
          <li key={one.fact} className="py-2 border-t border-line first:border-t-0">
            <h3 className="text-[13px] font-sans font-semibold tracking-normal">{FACT_WORDS[one.fact]}</h3>
            <Said words="There now" text={factText(one.fact, one.source)} />
            <Said words="Here" text={factText(one.fact, one.output)} />
            {piece.canWrite && (
              <p className="flex flex-wrap gap-2 mt-1.5">
                <Button disabled={settle.isPending} aria-label={`Take over: ${FACT_WORDS[one.fact]}`} onClick={() => go([one], 'take')}>
                  Take over
                </Button>
                <Button
                  look="quiet"
                  disabled={settle.isPending}
                  aria-label={`Keep this: ${FACT_WORDS[one.fact]}`}
                  onClick={() => go([one], 'keep')}
                >
                  Keep this
                </Button>
              </p>
            )}
          </li>
        ))}
      </ul>
      {piece.canWrite && stale.length > 1 && (
        <Button className="mt-1" disabled={settle.isPending} onClick={() => go(stale, 'take')}>
          Take over all {stale.length}
        </Button>
      )}
    </div>
  );
}

function Said({ words, text }: { words: string; text: string }) {
  return (
    <div className="text-[13px] mt-1">
      <p className="text-muted">{words}</p>
      <p className="whitespace-pre-wrap break-words max-h-40 overflow-y-auto" tabIndex={text.length > 400 ? 0 : undefined}>
        {text === '' ? <span className="text-muted">nothing</span> : text}
      </p>
    </div>
  );
}

/** What comes from the source still, and what is its own. */
function Standing({ facts }: { facts: readonly FactShape[] }) {
  const [same, own] = (['same', 'own'] as const).map((state) => facts.filter((one) => one.state === state && (one.output || one.source)));
  const line = (words: string, some: readonly FactShape[] = []) =>
    some.length > 0 && (
      <p className="text-[13px]">
        <span className="text-muted">{words}</span> {factsInWords(some.map(({ fact }) => fact))}
      </p>
    );
  return (
    <div className="mt-2">
      {line('The same as there:', same)}
      {line('Its own:', own)}
    </div>
  );
}
