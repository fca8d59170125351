import { useQuery } from '@tanstack/react-query';
import type { PieceShape } from '@zesting/contract';
import { Split } from 'lucide-react';
import { Link } from 'react-router';
import { spinOffsQuery } from '../../../api/spin-offs';
import { coverageWords, missingWords } from '../../../lib/coverage-words';
import { useClients } from '../../../lib/queries';
import { useOpened } from '../../../lib/use-opened';
import { MakeSpinOffsDialog } from '../../../parts/spin-offs/make-dialog';
import { SpinOffLine } from '../../../parts/spin-offs/spin-off-line';
import { Button } from '../../../ui/button';

/** What was made from the piece, on how many of the chosen channels it is seen, and the way to make more. */
export function OutputsSection({ piece }: { piece: PieceShape }) {
  const { data } = useQuery(spinOffsQuery(piece.id));
  const { opened, open, close } = useOpened();
  const { to } = useClients();
  if (!data || (data.outputs.length === 0 && !piece.canManage)) return null;
  const behind = data.outputs.filter(({ stale }) => stale.length > 0).length;
  return (
    <section aria-labelledby="outputs" className="card p-4">
      <div className="flex flex-wrap items-center gap-2">
        <h2 id="outputs" className="text-lg">
          Spin-offs
        </h2>
        {piece.canManage && data.spreads.length > 0 && (
          <Button className="ml-auto" onClick={() => open('spin-offs')}>
            <Split size={15} aria-hidden /> Make spin-offs…
          </Button>
        )}
      </div>
      {data.outputs.length > 0 && (
        <p className="text-[13px] text-muted">
          On {coverageWords(data.coverage)}. {missingWords(data.coverage)}
          {behind > 0 && <span className="text-rind font-medium"> {behind} behind this piece.</span>}
        </p>
      )}
      {data.outputs.length === 0 && (
        <p className="text-muted text-[13px]">
          {data.spreads.length > 0 ? (
            'Nothing is made from it yet.'
          ) : (
            <>
              Nothing is made from it. What is made from a piece of this kind is kept as a{' '}
              <Link to={to(`/clients/${piece.clientId}?part=spreads`)} className="text-pine underline">
                spread
              </Link>
              .
            </>
          )}
        </p>
      )}
      <ul className="mt-1">
        {data.outputs.map((row) => (
          <li key={row.pieceId} className="border-t border-line first:border-t-0">
            <SpinOffLine row={row} />
          </li>
        ))}
      </ul>
      {piece.canManage && opened === 'spin-offs' && <MakeSpinOffsDialog piece={piece} onClose={close} />}
    </section>
  );
}
