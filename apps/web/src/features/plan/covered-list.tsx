import type { CoveredShape } from '@zesting/contract';
import { Link } from 'react-router';
import { dayWords } from '../../lib/format';
import { useClients } from '../../lib/queries';

/** What is much like an idea: said, and in nobody's way. */
export function CoveredList({ covered }: { covered: readonly CoveredShape[] }) {
  const { to } = useClients();
  return (
    <ul>
      {covered.map((like) => (
        <li key={like.id} className={like.isSoon ? 'text-rind' : 'text-muted'}>
          <Link to={to(like.kind === 'piece' ? `/pieces/${like.id}` : `/plan/ideas?idea=${like.id}`)} className="underline">
            {like.title}
          </Link>
          , {like.kind === 'piece' ? 'a piece' : 'an idea'}
          {like.on && ` of ${dayWords(like.on)}`}
          {like.isSoon && ', in the same format within three months'}
        </li>
      ))}
    </ul>
  );
}
