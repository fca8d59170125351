import type { ChannelContentShape, ContentShape } from '@zesting/contract';
import { copycheck, lengthOn, mediacheck, withTagSet, type ClientRules, type Content, type Finding } from '@zesting/core';
import { notesAt } from '../../lib/finding-words';
import { count } from '../../lib/format';
import { tagWords, toTags } from '../../lib/tags';
import { Field } from '../../ui/field';
import { Preview } from '../../ui/preview';
import { TagSetChoice } from './tag-set-choice';

type Shared = ContentShape['shared'];

interface ChannelEditorProps {
  readonly pieceId: string;
  readonly part: ChannelContentShape;
  readonly shared: Shared;
  readonly readOnly: boolean;
  /** what the client asks of everything that goes out */
  readonly rules: ClientRules;
  readonly onChange: (part: ChannelContentShape) => void;
}

/** A channel's part with the shared one, as core checks them. */
const contentOf = (part: ChannelContentShape, shared: Shared): Content => ({
  shared: { copy: shared.copy, disclosure: shared.disclosure, media: [] },
  channels: { [part.channelId]: part },
});

/** What speaks against going out on a channel as it is written now. */
export const findingsOn = (part: ChannelContentShape, shared: Shared, rules: ClientRules): Finding[] => [
  ...copycheck(contentOf(part, shared), part.channelId, part, rules),
  ...mediacheck(shared.media, part),
];

/** One channel's own part, with how it will look there and what does not fit. */
export function ChannelEditor({ pieceId, part, shared, readOnly, rules, onChange }: ChannelEditorProps) {
  const copy = part.copy.trim() === '' ? shared.copy : part.copy;
  const length = lengthOn(contentOf(part, shared), part.channelId, part);
  const findings = findingsOn(part, shared, rules);
  const media = notesAt(findings, 'media');
  return (
    <div className="grid gap-5 md:grid-cols-[minmax(0,1fr)_minmax(180px,240px)] items-start">
      <div>
        <Field
          label={`Copy on ${part.name}`}
          {...notesAt(findings, 'copy')}
          help={`${part.copyLimit === null ? length : `${length} of ${part.copyLimit}`} characters${part.countsTags ? ', tags among them' : ''}`}
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
        <TagsField part={part} readOnly={readOnly} notes={notesAt(findings, 'tags')} onChange={onChange} />
        {!readOnly && (
          <TagSetChoice
            pieceId={pieceId}
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
      </div>
      <figure className="card p-3 bg-paper">
        <figcaption className="text-muted text-[12px] mb-2">
          As on {part.name}, {part.ratio}
          {part.mediaLimit !== null && `, ${shared.media.length} of ${count(part.mediaLimit, 'picture or clip', 'pictures and clips')}`}
        </figcaption>
        {media.error && (
          <p role="alert" className="text-rhubarb font-medium text-[13px] mb-2 break-words">
            {media.error}
          </p>
        )}
        {media.warning && <p className="text-rind font-medium text-[13px] mb-2 break-words">{media.warning}</p>}
        {shared.media[0] ? (
          <Preview medium={shared.media[0]} ratio={part.ratio} source={`/api/files/${shared.media[0].assetId}`} />
        ) : (
          <div className="bg-sunk rounded-md grid place-items-center text-muted text-[13px] min-h-28">No picture yet</div>
        )}
        <p className="mt-2 whitespace-pre-wrap break-words text-[13px]">{copy}</p>
        {part.tags.length > 0 && <p className="text-lake text-[13px] break-words">{tagWords(part.tags)}</p>}
      </figure>
    </div>
  );
}

/** Tags in their order. Typing goes on freely; what is stored is the list. */
function TagsField({
  part,
  readOnly,
  notes,
  onChange,
}: Pick<ChannelEditorProps, 'part' | 'readOnly' | 'onChange'> & { notes: ReturnType<typeof notesAt> }) {
  return (
    <Field
      label="Tags"
      help={part.tagLimit === null ? 'Apart by spaces; their order is kept.' : `${part.tags.length} of ${part.tagLimit}; apart by spaces`}
      {...notes}
    >
      {(control) => (
        <input
          {...control}
          key={part.tags.join(' ')}
          className="field"
          readOnly={readOnly}
          defaultValue={tagWords(part.tags)}
          onBlur={(event) => {
            const tags = toTags(event.target.value);
            if (tags.join(' ') !== part.tags.join(' ')) onChange({ ...part, tags });
          }}
        />
      )}
    </Field>
  );
}
