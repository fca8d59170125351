import type { ChannelContentShape, ContentShape, PieceShape } from '@zesting/contract';
import {
  copycheck,
  lengthOn,
  linkcheck,
  mediacheck,
  mediaShown,
  withTagSet,
  type ClientRules,
  type Content,
  type Finding,
  type LinkAnswers,
} from '@zesting/core';
import { notesAt } from '../../lib/finding-words';
import { useState } from 'react';
import { tagWords, toTags } from '../../lib/tags';
import { AskPages } from '../../parts/ask-pages';
import { Button } from '../../ui/button';
import { Field } from '../../ui/field';
import { ChannelMedia } from './channel-media';
import { ChannelPreview, PreviewDialog } from './channel-preview';
import { TagSetChoice } from './tag-set-choice';
import { FirstDraft } from './writing/first-draft';

type Shared = ContentShape['shared'];

/** By what is checked, besides a channel's own rules. */
export interface Checked {
  /** what the client asks of everything that goes out */
  readonly rules: ClientRules;
  /** what the pages answered to which links lead */
  readonly answers: LinkAnswers;
}

interface ChannelEditorProps {
  readonly piece: PieceShape;
  readonly part: ChannelContentShape;
  readonly shared: Shared;
  readonly readOnly: boolean;
  readonly checked: Checked;
  /** all channels of the piece */
  readonly channels: readonly ChannelContentShape[];
  readonly onChange: (...parts: ChannelContentShape[]) => void;
}

/** A channel's part with the shared one, as core checks them. */
const contentOf = (part: ChannelContentShape, shared: Shared): Content => ({
  shared,
  channels: { [part.channelId]: part },
});

/** What speaks against going out on a channel as it is written now. */
export const findingsOn = (part: ChannelContentShape, shared: Shared, { rules, answers }: Checked): Finding[] => [
  ...copycheck(contentOf(part, shared), part.channelId, part.rules, rules),
  ...linkcheck(contentOf(part, shared), part.channelId, answers),
  ...mediacheck(mediaShown(shared.media, part), part.rules),
];

/** One channel's own part, with how it will look there and what does not fit. */
export function ChannelEditor({ piece, part, shared, readOnly, checked, channels, onChange }: ChannelEditorProps) {
  const [isLarge, setLarge] = useState(false);
  const content = contentOf(part, shared);
  const length = lengthOn(content, part.channelId, part.rules);
  const findings = findingsOn(part, shared, checked);
  const media = notesAt(findings, 'media');
  return (
    <div className="grid gap-5 md:grid-cols-[minmax(0,1fr)_minmax(180px,240px)] items-start">
      <div>
        <Field
          label={`Copy on ${part.name}`}
          {...notesAt(findings, 'copy')}
          help={`${part.rules.copyLimit === null ? length : `${length} of ${part.rules.copyLimit}`} characters${part.rules.countsTags ? ', tags among them' : ''}`}
        >
          {(control) => (
            <textarea
              {...control}
              className="field"
              rows={3}
              readOnly={readOnly}
              value={part.copy}
              placeholder="Empty: the shared copy goes out here"
              onChange={(event) => onChange({ ...part, copy: event.target.value })}
            />
          )}
        </Field>
        {!readOnly && (
          <FirstDraft
            piece={piece}
            channel={part}
            channels={channels}
            copy={part.copy}
            isLaidOut={false}
            onPut={(copy) => onChange({ ...part, copy })}
          />
        )}
        <TagsField part={part} readOnly={readOnly} notes={notesAt(findings, 'tags')} onChange={onChange} />
        {!readOnly && (
          <TagSetChoice
            pieceId={piece.id}
            channelName={part.name}
            onChoose={(tags) => onChange({ ...part, tags: withTagSet(part.tags, { tags }) })}
          />
        )}
        <Field label="First comment" {...notesAt(findings, 'first_comment')}>
          {(control) => (
            <input
              {...control}
              className="field"
              readOnly={readOnly}
              value={part.firstComment}
              onChange={(event) => onChange({ ...part, firstComment: event.target.value })}
            />
          )}
        </Field>
        <Field label="Link" {...notesAt(findings, 'link')}>
          {(control) => (
            <input
              {...control}
              className="field"
              type="url"
              readOnly={readOnly}
              value={part.link}
              onChange={(event) => onChange({ ...part, link: event.target.value })}
            />
          )}
        </Field>
        <AskPages pieceId={piece.id} what={part.name} findings={findings} />
        <ChannelMedia part={part} media={shared.media} channels={channels} readOnly={readOnly} onChange={(parts) => onChange(...parts)} />
      </div>
      <figure className="card p-3 bg-paper">
        <figcaption className="flex items-center gap-2 text-muted text-[12px] mb-2">
          <span className="flex-1">
            As on {part.name}, {part.rules.ratio}
          </span>
          <Button look="quiet" onClick={() => setLarge(true)}>
            Larger
          </Button>
        </figcaption>
        {media.error && (
          <p role="alert" className="text-rhubarb font-medium text-[13px] mb-2 break-words">
            {media.error}
          </p>
        )}
        {media.warning && <p className="text-rind font-medium text-[13px] mb-2 break-words">{media.warning}</p>}
        <ChannelPreview part={part} media={shared.media} content={content} />
        {isLarge && <PreviewDialog part={part} media={shared.media} content={content} onClose={() => setLarge(false)} />}
      </figure>
    </div>
  );
}

const sameTags = (a: readonly string[], b: readonly string[]): boolean => a.join(' ') === b.join(' ');

/** Tags in their order. Typing goes on freely; what is stored is the list. */
function TagsField({
  part,
  readOnly,
  notes,
  onChange,
}: Pick<ChannelEditorProps, 'part' | 'readOnly' | 'onChange'> & { notes: ReturnType<typeof notesAt> }) {
  const [typed, setTyped] = useState<string | null>(null);
  // as it is typed, as long as that says what is kept: spaces at its end are lost from the list
  const shown = typed !== null && sameTags(toTags(typed), part.tags) ? typed : tagWords(part.tags);
  return (
    <Field
      label="Tags"
      help={
        part.rules.tagLimit === null
          ? 'Apart by spaces; their order is kept.'
          : `${part.tags.length} of ${part.rules.tagLimit}; apart by spaces`
      }
      {...notes}
    >
      {(control) => (
        <input
          {...control}
          className="field"
          readOnly={readOnly}
          value={shown}
          onChange={({ target }) => {
            const tags = toTags(target.value);
            setTyped(target.value);
            if (!sameTags(tags, part.tags)) onChange({ ...part, tags });
          }}
          onBlur={() => setTyped(null)}
        />
      )}
    </Field>
  );
}
