import { cleanup, render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { BriefRequestShape, MediumShape, OutlineHeadingBody, PieceShape, WrittenTextShape } from '@zesting/contract';
import { useState } from 'react';
import { Refusal, showServed, type Answer } from '../../../../test-support/served';
import { draftAnswers } from './draft-answers';
import { FirstDraft } from './first-draft';
import { WrittenTexts } from './written-texts';

const text = (key: string, more: Partial<WrittenTextShape> = {}): WrittenTextShape => ({
  key,
  name: key,
  text: '',
  isLong: false,
  isSlides: false,
  prompt: '',
  limit: null,
  isNeeded: false,
  isAsked: true,
  others: [],
  ...more,
});
const RULES = { wordsNever: ['cheap'], wordsToUse: [] };

describe('the texts besides the copy', () => {
  const show = (given: WrittenTextShape[], readOnly = false) => {
    let latest = given;
    function Held() {
      const [texts, setTexts] = useState(given);
      return (
        <WrittenTexts
          texts={texts}
          rules={RULES}
          readOnly={readOnly}
          media={[]}
          onChange={(next) => {
            latest = next;
            setTexts(next);
          }}
        />
      );
    }
    render(<Held />);
    return () => latest.map((one) => one.text);
  };

  it('are written with what helps, their length as people count it, and the client’s words', async () => {
    const texts = show([text('Subject', { prompt: 'Why open it', limit: 6, isNeeded: true }), text('Script', { isLong: true })]);
    const subject = screen.getByRole('textbox', { name: /^Subject/ });
    expect(subject).toHaveAccessibleDescription('Why open it · 0 of 6 characters');
    await userEvent.type(subject, '👩🏽‍🍳 cheap bread');
    expect(subject).toHaveAccessibleDescription(/13 of 6 characters.*7 characters too many.*Never used for this client: “cheap”/);
    expect(subject).toHaveAttribute('aria-invalid', 'true');
    await userEvent.type(screen.getByRole('textbox', { name: 'Script' }), 'One{Enter}Two');
    expect(texts()).toEqual(['👩🏽‍🍳 cheap bread', 'One\nTwo']);
  });

  it('that are asked for no longer stay while there is something in them', async () => {
    show([text('Old', { text: 'O', isAsked: false }), text('Older', { isAsked: false })]);
    const old = screen.getByRole('textbox', { name: 'Old' });
    expect(old).toHaveAccessibleDescription(/have it no longer/);
    expect(screen.queryByRole('textbox', { name: 'Older' })).toBeNull();
    await userEvent.clear(old);
    expect(screen.queryByRole('textbox')).toBeNull();
  });

  it('can be chosen from other wordings: one that is taken changes places with what stands there', async () => {
    show([text('Title', { text: 'Rye', others: ['Bread'] }), text('Script', { isLong: true })]);
    const now = () => [
      screen.getByRole<HTMLInputElement>('textbox', { name: 'Title' }).value,
      within(screen.getByRole('list', { name: 'Other wordings: Title' }))
        .getAllByRole('listitem')
        .map((item) => item.querySelector('span')?.textContent),
    ];
    await userEvent.click(screen.getByRole('button', { name: 'Another wording… (Title)' }));
    await userEvent.type(screen.getByRole('textbox', { name: 'Another wording of: Title' }), 'Loaf{Enter}Rye {Enter}');
    expect(now()).toEqual(['Rye', ['Bread', 'Loaf']]); // what stands there is no other
    await userEvent.click(screen.getByRole('button', { name: 'Take it: Loaf' }));
    expect(now()).toEqual(['Loaf', ['Bread', 'Rye']]);
    await userEvent.click(screen.getByRole('button', { name: 'Drop Bread' }));
    expect(now()).toEqual(['Loaf', ['Rye']]);
    expect(screen.queryByRole('button', { name: /Script/ })).toBeNull();
  });

  it('are only read by whoever may not write', () => {
    show([text('Subject', { text: 'S' })], true);
    expect(screen.getByRole('textbox', { name: 'Subject' })).toHaveAttribute('readonly');
  });
});

describe('the words of slides', () => {
  const picture = (id: string, more: Partial<MediumShape> = {}): MediumShape => ({
    assetId: id,
    hash: id,
    name: `${id}.png`,
    alt: '',
    mime: 'image/png',
    width: 100,
    height: 100,
    durationMs: null,
    bytes: 1,
    ...more,
  });
  const show = (slides: string, given: MediumShape[]) => {
    let latest = { text: slides, media: given };
    function Held() {
      const [{ text: words, media }, put] = useState(latest);
      return (
        <WrittenTexts
          texts={[text('slides', { name: 'Slides', text: words, isLong: true, isSlides: true })]}
          rules={RULES}
          readOnly={false}
          media={media}
          onChange={([next], moved = media) => put((latest = { text: next?.text ?? '', media: moved }))}
        />
      );
    }
    render(<Held />);
    return () => [latest.text, latest.media.map(({ assetId }) => assetId).join('')];
  };
  const words = () => screen.getAllByRole<HTMLTextAreaElement>('textbox', { name: /^Words of slide/ }).map(({ value }) => value);

  it('stand each beside its picture, one more for a picture without words; what is typed stays as it is typed', async () => {
    const now = show('Flour\n\n3. Wait', [picture('a'), picture('b'), picture('c'), picture('d')]);
    expect(words()).toEqual(['Flour', '', 'Wait', '']);
    await userEvent.type(screen.getByRole('textbox', { name: 'Words of slide 4' }), 'Bake{Enter}{Enter}now ');
    expect(words()).toEqual(['Flour', '', 'Wait', 'Bake\n\nnow ']);
    expect(now()).toEqual(['1. Flour\n\n3. Wait\n\n4. Bake\nnow', 'abcd']);
    await userEvent.click(screen.getByRole('button', { name: 'Add a slide' }));
    expect(words()).toHaveLength(5);
    expect(screen.getByText('no picture yet')).toBeVisible();
    await userEvent.type(screen.getByRole('textbox', { name: 'Words of slide 5' }), 'Eat');
    expect(now()).toEqual(['1. Flour\n\n3. Wait\n\n4. Bake\nnow\n\n5. Eat', 'abcd']);
  });

  it('are moved and taken out with their pictures; the cover of a clip is none', async () => {
    const now = show('1. Flour\n\n2. Water', [picture('a', { mime: 'video/mp4', cover: 'z' }), picture('z'), picture('b')]);
    expect(words()).toEqual(['Flour', 'Water']);
    await userEvent.click(screen.getByRole('button', { name: 'Move slide 2 up' }));
    expect(now()).toEqual(['1. Water\n\n2. Flour', 'baz']);
    await userEvent.click(screen.getByRole('button', { name: 'Take out slide 1' }));
    expect(now()).toEqual(['1. Flour', 'az']);
    expect(words()).toEqual(['Flour']);
  });
});

const request: Pick<BriefRequestShape, 'items' | 'answers'> = {
  items: [
    { key: 'about', kind: 'long', label: 'What it is about' },
    { key: 'on', kind: 'day', label: 'The day' },
    {
      key: 'aims',
      kind: 'several_of',
      label: 'Aims',
      options: [
        { value: 'a', label: 'To know' },
        { value: 'b', label: 'To buy' },
      ],
    },
    { key: 'budget', kind: 'money', label: 'Budget' },
    { key: 'files', kind: 'files', label: 'Files' },
    { key: 'empty', kind: 'short', label: 'Left empty' },
  ],
  answers: { about: 'Rye', on: '2027-03-16', aims: ['a', 'b'], budget: '900', files: ['f1'] },
};

describe('a first draft', () => {
  it('takes up what was answered in words, and neither money nor files', () => {
    expect(draftAnswers([request])).toEqual([
      { question: 'What it is about', answer: 'Rye' },
      { question: 'The day', answer: expect.stringContaining('16 Mar') as string },
      { question: 'Aims', answer: 'To know, To buy' },
    ]);
  });

  const show = (
    copy: string,
    {
      outline = [{ heading: 'What it is about', prompt: 'The question' }] as OutlineHeadingBody[],
      isLaidOut = false,
      canAskAid = false,
      aid = {} as Answer,
      channels = [] as { channelId: string; name: string; kind: string; copy: string }[],
      on = undefined as number | undefined,
    } = {},
  ) => {
    const put: string[] = [];
    const piece = {
      id: 'p1',
      formatName: 'Article',
      content: { outline, canAskAid },
      brief: { requests: [request] },
    } as unknown as PieceShape; // as much of one as it looks at
    const phrases = [
      { id: 'o1', kind: 'opening', text: 'Stop kneading.' },
      { id: 'c1', kind: 'closing', text: 'See you on Saturday.' },
    ];
    const channel = on === undefined ? undefined : channels[on];
    const { user, sent } = showServed(
      <FirstDraft
        piece={piece}
        {...(channel ? { channel } : {})}
        channels={channels}
        copy={copy}
        isLaidOut={isLaidOut}
        onPut={(draft) => put.push(draft)}
      />,
      { 'GET /pieces/p1/phrases': { phrases }, 'POST /pieces/p1/drafts': aid },
    );
    return { user, put, sent };
  };

  it('is made of an opening, the outline and the brief, as far as they are chosen', async () => {
    const { user, put } = show('');
    await user.click(await screen.findByRole('button', { name: 'Make a first draft' }));
    const dialog = screen.getByRole('dialog', { name: 'Make a first draft' });
    const draft = within(dialog).getByRole('region', { name: 'The draft' });
    await user.selectOptions(await within(dialog).findByLabelText('Opening'), 'Stop kneading.');
    expect(within(dialog).queryByRole('option', { name: 'See you on Saturday.' })).toBeNull();
    await user.click(within(dialog).getByRole('checkbox', { name: /^Aims/ }));
    expect(draft.textContent).toMatch(/^Stop kneading\.\n\nWhat it is about\n\nRye\n\nThe day\n.*16 Mar.*$/);
    await user.click(within(dialog).getByRole('checkbox', { name: 'The headings of the outline' }));
    expect(draft.textContent).toMatch(/^Stop kneading\.\n\nWhat it is about\nRye\n\n/);
    await user.click(within(dialog).getByRole('button', { name: 'Put it into the copy' }));
    expect(put).toEqual([draft.textContent]);
    expect(screen.queryByRole('dialog')).toBeNull();
  });

  describe('of a format whose outline differs by channel', () => {
    const outline: OutlineHeadingBody[] = [
      { heading: 'What it is about', prompt: '' },
      { heading: 'In two sentences', prompt: '', kinds: ['newsletter'] },
    ];
    const blog = { channelId: 'b', name: 'Blog', kind: 'blog', copy: '' };
    const letter = { channelId: 'n', name: 'Letter', kind: 'newsletter', copy: '' };
    const headings = () => screen.queryAllByRole('listitem', { hidden: true }).map(({ textContent }) => textContent?.trim());

    it('has what holds wherever the shared copy goes out', async () => {
      show('', { outline, channels: [blog, letter] });
      await screen.findByRole('button', { name: 'Make a first draft' });
      expect(headings()).toEqual(['What it is about']);
    });

    it('has what is for one channel where the others have copy of their own', async () => {
      show('', { outline, channels: [{ ...blog, copy: 'Its own' }, letter] });
      await screen.findByRole('button', { name: 'Make a first draft' });
      expect(headings()).toEqual(['What it is about', 'In two sentences']);
    });

    it('is drafted for the channel that has an outline of its own, and offered on no other', async () => {
      const { user, put } = show('', { outline, channels: [blog, letter], on: 1 });
      await user.click(await screen.findByRole('button', { name: 'Draft for Letter' }));
      await user.click(screen.getByRole('button', { name: 'Put it into the copy' }));
      expect(put[0]).toContain('In two sentences');
      cleanup();
      show('', { outline, channels: [blog, letter], on: 0 });
      expect(screen.queryByRole('button')).toBeNull();
    });
  });

  it('has headings where the copy has them', async () => {
    const { user, put } = show('', { isLaidOut: true });
    await user.click(await screen.findByRole('button', { name: 'Make a first draft' }));
    const draft = screen.getByRole('region', { name: 'The draft' });
    expect(within(draft).getByRole('heading', { name: 'What it is about' })).toBeVisible();
    await user.click(screen.getByRole('button', { name: 'Put it into the copy' }));
    expect(put).toEqual([expect.stringMatching(/# What it is about\n\nRye\n\n# The day/)]);
  });

  it('is asked of a writing aid where there is one, from what is chosen alone, and told to be that', async () => {
    let fails = true;
    const aid = () =>
      fails ? new Refusal(503, { code: 'aid.silent', title: 'The writing aid did not answer' }) : { draft: 'Rye, by an aid' };
    const { user, put, sent } = show('', { canAskAid: true, aid });
    await user.click(await screen.findByRole('button', { name: 'Make a first draft' }));
    const draft = screen.getByRole('region', { name: 'The draft' });
    const own = draft.textContent;
    await user.click(screen.getByRole('checkbox', { name: /^Aims/ }));
    await user.click(screen.getByRole('button', { name: 'Have the writing aid draft it' }));
    expect(await screen.findByRole('alert')).toHaveTextContent('The writing aid did not answer');
    expect(draft).toHaveTextContent('What it is about'); // our own stands as it was
    fails = false;
    await user.click(screen.getByRole('button', { name: 'Have the writing aid draft it' }));
    expect(await screen.findByText(/Nobody has read it yet/)).toBeVisible();
    expect(draft).toHaveTextContent(/^Rye, by an aid$/);
    const answered = (sent('POST').at(-1)?.body as { answers: { question: string }[] }).answers.map(({ question }) => question); // as it was asked
    expect(answered).toEqual(['What it is about', 'The day']);
    // what was drafted from something else is not shown for what is chosen now
    await user.click(screen.getByRole('checkbox', { name: /^Aims/ }));
    expect(draft.textContent).toBe(own);
    await user.click(screen.getByRole('checkbox', { name: /^Aims/ }));
    await user.click(screen.getByRole('button', { name: 'Put it into the copy' }));
    expect(put).toEqual(['Rye, by an aid']);
  });

  it('is asked of nobody where there is no writing aid', async () => {
    const { user } = show('');
    await user.click(await screen.findByRole('button', { name: 'Make a first draft' }));
    expect(screen.queryByRole('button', { name: 'Have the writing aid draft it' })).toBeNull();
  });

  it('is not offered where something is written; how the format is written is told all the same', async () => {
    show('Written');
    expect(await screen.findByText('Outline of the format “Article”')).toBeVisible();
    expect(screen.queryByRole('button', { name: 'Make a first draft' })).toBeNull();
    expect(screen.getByText('The question')).toBeInTheDocument();
  });
});
