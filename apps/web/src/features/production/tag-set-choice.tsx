import { useQuery } from '@tanstack/react-query';
import { tagSetsForQuery } from '../../api/library';
import { tagWords } from '../../lib/tags';

interface TagSetChoiceProps {
  readonly pieceId: string;
  readonly channelName: string;
  readonly onChoose: (tags: readonly string[]) => void;
}

/** Puts the tags of a kept set behind those that are there; sets meant for the piece come first. Nothing where the client has none. */
export function TagSetChoice({ pieceId, channelName, onChoose }: TagSetChoiceProps) {
  const { data } = useQuery(tagSetsForQuery(pieceId));
  const sets = data?.tagSets ?? [];
  if (sets.length === 0) return null;
  return (
    <select
      aria-label={`Put in a tag set on ${channelName}`}
      className="field text-[13px] -mt-2 mb-3.5"
      value=""
      onChange={({ target }) => {
        const set = sets.find(({ id }) => id === target.value);
        if (set) onChoose(set.tags);
      }}
    >
      <option value="">Put in a tag set…</option>
      {sets.map(({ id, name, tags }) => (
        <option key={id} value={id}>
          {name}: {tagWords(tags)}
        </option>
      ))}
    </select>
  );
}
