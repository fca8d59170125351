import type { FindingShape } from '@zesting/contract';
import { RotateCw } from 'lucide-react';
import { askPages } from '../api/asked-pages';
import { useWrite } from '../lib/queries';
import { Button } from '../ui/button';

interface AskPagesProps {
  readonly pieceId: string;
  /** what the links belong to, for who cannot see where the button stands */
  readonly what: string;
  readonly findings: readonly FindingShape[];
}

/** Where a link leads to no page, or to one that says nothing: the way to ask once more. */
export function AskPages({ pieceId, what, findings }: AskPagesProps) {
  const ask = useWrite(() => askPages(pieceId));
  if (!findings.some(({ code }) => code === 'link_gone' || code === 'link_silent')) return null;
  return (
    <Button
      look="quiet"
      className="-ml-2"
      disabled={ask.isPending}
      onClick={() => ask.mutate(undefined)}
      aria-label={`Ask the pages again: ${what}`}
    >
      <RotateCw size={14} aria-hidden /> {ask.isPending ? 'Asking …' : 'Ask the pages again'}
    </Button>
  );
}
