import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { Tag, type Tone } from './tags';

interface NoticeLineProps {
  readonly to: string;
  readonly tone: Tone;
  readonly number: number;
  /** what there are so many of */
  readonly children: ReactNode;
  /** what else there is */
  readonly more?: string;
  /** where it leads */
  readonly place: string;
}

/** How many of something wait elsewhere, in one line that leads there: several stand in one `NoticeLines`. */
export function NoticeLine({ to, tone, number, children, more, place }: NoticeLineProps) {
  return (
    <Link
      to={to}
      className="flex flex-wrap items-center gap-x-3 gap-y-1 px-4 py-1.5 min-h-10 border-t border-line first:border-t-0 no-underline hover:bg-sunk"
    >
      <Tag tone={tone}>{number}</Tag>
      <span className="font-medium">{children}</span>
      {more && <span className="text-muted">{more}</span>}
      <span className="ml-auto text-pine font-medium">{place}</span>
    </Link>
  );
}

/** Notices below each other; nothing where none has anything to say. */
export function NoticeLines({ children }: { children: ReactNode }) {
  return <div className="card overflow-hidden mb-4 empty:hidden">{children}</div>;
}
