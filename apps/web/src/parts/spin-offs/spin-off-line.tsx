import type { SpinOffRowShape } from '@zesting/contract';
import { Link } from 'react-router';
import { dayWords } from '../../lib/format';
import { useClients } from '../../lib/queries';
import { clipWords, factsInWords } from '../../lib/spin-off-words';
import { STAGE_WORDS } from '../../lib/words';
import { PlacementTag } from '../../ui/placement-tag';
import { DangerTag, Tag } from '../../ui/tags';

interface SpinOffLineProps {
  readonly row: SpinOffRowShape;
  /** whether there is room for all of it side by side */
  readonly isWide?: boolean;
}

/** What it is called beside its source, as long as that is what its title says. */
const shortTitle = ({ title, name }: SpinOffRowShape): string => (name !== '' && title.endsWith(` · ${name}`) ? name : title);

/** Something that was made from a source: where it stands, and in what it is behind. */
export function SpinOffLine({ row, isWide = false }: SpinOffLineProps) {
  const { to } = useClients();
  const clip = clipWords(row.fromSecond, row.toSecond);
  return (
    <div
      className={`py-1.5 min-w-0 grid gap-x-4 gap-y-0.5 items-baseline ${isWide ? 'md:grid-cols-[minmax(0,1.2fr)_minmax(0,1fr)_minmax(0,1.4fr)]' : ''}`}
    >
      <p className="flex flex-wrap items-center gap-x-2 gap-y-0.5 min-w-0">
        <Link
          to={to(`/pieces/${row.pieceId}`)}
          title={row.title}
          className="font-medium break-words min-h-6 inline-flex items-center no-underline hover:underline"
        >
          {shortTitle(row)}
        </Link>
        {row.stale.length > 0 && <Tag tone="rind">Behind: {factsInWords(row.stale)}</Tag>}
        <DangerTag danger={row.danger === 'fine' ? null : row.danger} />
      </p>
      <p className="text-[13px] text-muted">
        {[row.formatName, STAGE_WORDS[row.stage].toLowerCase(), clip].filter(Boolean).join(' · ')}
        {row.outputs > 0 && ` · ${row.outputs} made from it in turn`}
      </p>
      <ul className="text-[13px]">
        {row.placements.map((placement, index) => (
          <li key={index} className="flex flex-wrap items-center gap-x-2">
            <span className="text-muted">{placement.channelName}</span>
            <span className="tabular">{placement.on ? `${dayWords(placement.on)}, ${placement.at ?? ''}` : 'no day'}</span>
            <PlacementTag state={placement.state} />
          </li>
        ))}
        {row.placements.length === 0 && <li className="text-muted">on no channel yet</li>}
      </ul>
    </div>
  );
}
