import type { WheelSegment } from '@zesting/contract';

const point = (angle: number, radius: number): string =>
  `${(16 + radius * Math.sin(angle)).toFixed(2)} ${(16 - radius * Math.cos(angle)).toFixed(2)}`;

/** One segment between two angles, like a slice of cut citrus, with a gap to its neighbours. */
function slice(index: number, of: number): string {
  const gap = of === 1 ? 0 : 0.09;
  const [from, to] = [(index / of) * 2 * Math.PI + gap, ((index + 1) / of) * 2 * Math.PI - gap];
  const large = to - from > Math.PI ? 1 : 0;
  if (of === 1) return 'M16 3A13 13 0 1 1 15.99 3Z';
  return `M${point((from + to) / 2, 2.2)}L${point(from, 13)}A13 13 0 ${large} 1 ${point(to, 13)}Z`;
}

/** "3 of 5 steps done, Design is 2 days late". */
export function wheelWords(segments: readonly WheelSegment[]): string {
  const done = segments.filter((segment) => segment.state === 'done').length;
  const notes = segments.flatMap((segment) => {
    if (segment.state === 'late') return [`${segment.title} is ${segment.lateDays} ${segment.lateDays === 1 ? 'day' : 'days'} late`];
    if (segment.obstacle) return [];
    if (segment.state === 'blocked') return [`nobody has ${segment.title}`];
    return segment.state === 'current' ? [`${segment.title} is at hand`] : [];
  });
  const stopped = segments.filter(({ obstacle }) => obstacle).map(({ title }) => title);
  if (stopped.length > 0) notes.push(`something is in the way of ${stopped.join(', ')}`);
  return [`${done} of ${segments.length} steps done`, ...notes].join(', ');
}

/** The one sign for progress: filled is done, bold outline is at hand, hatched is late, dotted is blocked. */
export function Wheel({ segments, size = 24 }: { segments: readonly WheelSegment[]; size?: number }) {
  return (
    <svg viewBox="0 0 32 32" width={size} height={size} role="img" aria-label={wheelWords(segments)} className="shrink-0">
      <circle cx="16" cy="16" r="15" fill="none" stroke="var(--line-strong)" strokeWidth="1" />
      {segments.map((segment, index) => (
        <Segment key={index} path={slice(index, segments.length)} state={segment.state} />
      ))}
    </svg>
  );
}

function Segment({ path, state }: { path: string; state: WheelSegment['state'] }) {
  switch (state) {
    case 'done':
      return <path d={path} fill="var(--pine)" />;
    case 'current':
      return <path d={path} fill="none" stroke="var(--pine)" strokeWidth="2.4" strokeLinejoin="round" />;
    case 'late':
      return (
        <>
          <path d={path} fill="url(#wheel-hatch)" stroke="var(--rhubarb)" strokeWidth="1.6" strokeLinejoin="round" />
        </>
      );
    case 'blocked':
      return <path d={path} fill="none" stroke="var(--rind)" strokeWidth="2" strokeDasharray="0.1 3.2" strokeLinecap="round" />;
    case 'waiting':
      return <path d={path} fill="none" stroke="var(--line-strong)" strokeWidth="0.9" strokeLinejoin="round" />;
  }
}

/** The hatch that late segments are filled with: once per page. */
export function WheelPatterns() {
  return (
    <svg width="0" height="0" aria-hidden className="absolute">
      <defs>
        <pattern id="wheel-hatch" width="3" height="3" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="1.4" height="3" fill="var(--rhubarb)" />
        </pattern>
      </defs>
    </svg>
  );
}
