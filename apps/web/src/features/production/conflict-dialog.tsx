import type { ChannelContentShape } from '@zesting/contract';
import { mediaShown } from '@zesting/core';
import { tagWords } from '../../lib/tags';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import type { Draft } from './use-draft';
import { cropWords } from './versions/compare-case';

interface ConflictDialogProps {
  readonly mine: Draft;
  readonly theirs: Draft;
  readonly onMine: () => void;
  readonly onTheirs: () => void;
  readonly onClose: () => void;
}

/** Two people changed the same content: both states side by side, and nothing is overwritten unasked. */
export function ConflictDialog({ mine, theirs, onMine, onTheirs, onClose }: ConflictDialogProps) {
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title="Somebody else saved this meanwhile"
      description="Nothing was overwritten. Compare, then say which text stays; you can copy from both."
    >
      <div className="grid gap-4 md:grid-cols-2">
        <Side title="Yours, not saved" draft={mine} other={theirs} />
        <Side title="Theirs, saved" draft={theirs} other={mine} />
      </div>
      <div className="flex flex-wrap justify-end gap-2 mt-4">
        <Button onClick={onClose}>Go on editing mine</Button>
        <Button onClick={onTheirs}>Take theirs</Button>
        <Button look="main" onClick={onMine}>
          Save mine over theirs
        </Button>
      </div>
    </Dialog>
  );
}

/** What a channel has of its own, in words: its text, and of pictures which it shows and how it cuts them. */
const textOf = (part: ChannelContentShape, { shared }: Draft): string =>
  [
    part.copy,
    tagWords(part.tags),
    part.firstComment,
    part.link,
    part.media &&
      `Shows ${
        mediaShown(shared.media, part)
          .map(({ name }) => name)
          .join(', ') || 'no picture'
      }`,
    ...mediaShown(shared.media, part).flatMap(({ name, crop }) => (crop ? [`${name}: ${cropWords(crop)}`] : [])),
  ]
    .filter(Boolean)
    .join('\n');

function theSame({ channelId }: ChannelContentShape, other: Draft): string | undefined {
  const part = other.channels.find((same) => same.channelId === channelId);
  return part && textOf(part, other);
}

function Side({ title, draft, other }: { title: string; draft: Draft; other: Draft }) {
  const besides = (of: Draft, key: string) => of.shared.texts.find((text) => text.key === key)?.text ?? '';
  const parts = [
    ...draft.shared.texts.map(({ key, name, text }) => ({ name, text, differs: text !== besides(other, key) })),
    { name: 'Copy', text: draft.shared.copy, differs: draft.shared.copy !== other.shared.copy },
    { name: 'Pictures', text: draft.shared.media.map((medium) => medium.name).join(', '), differs: false },
    ...draft.channels.map((part) => ({
      name: part.name,
      text: textOf(part, draft),
      differs: textOf(part, draft) !== theSame(part, other),
    })),
  ];
  return (
    <section aria-label={title}>
      <h3 className="text-base mb-2">{title}</h3>
      <dl className="grid gap-2">
        {parts.map((part) => (
          <div key={part.name} className={`border-l-4 pl-3 ${part.differs ? 'border-rind' : 'border-line'}`}>
            <dt className="text-muted text-[13px]">
              {part.name}
              {part.differs && ' (differs)'}
            </dt>
            <dd className="whitespace-pre-wrap break-words">{part.text || <span className="text-muted">Empty</span>}</dd>
          </div>
        ))}
      </dl>
    </section>
  );
}
