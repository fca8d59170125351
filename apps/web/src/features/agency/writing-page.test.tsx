import { act, screen, waitFor, within } from '@testing-library/react';
import type { FormatWritingShape } from '@zesting/contract';
import { Refusal, showServed, type Answer } from '../../../test-support/served';
import { forgetKept } from '../../lib/kept';
import { WritingPage } from './writing-page';

const format = (formatId: string, name: string, more: Partial<FormatWritingShape> = {}): FormatWritingShape => ({
  formatId,
  name,
  texts: [],
  outline: [],
  isLaidOut: false,
  version: 4,
  ...more,
});
const SUBJECT = { key: 'subject', name: 'Subject', isLong: false, prompt: 'Why open it', limit: 60, isNeeded: true };
const show = (formats: FormatWritingShape[], more: Record<string, Answer> = {}, canEdit = true) =>
  showServed(<WritingPage />, { 'GET /formats/writing': { formats, canEdit }, ...more }, '/agency/writing');

describe('what each format is written by', () => {
  afterEach(() => act(forgetKept));

  it('is changed for one format and saved over the state that was looked at', async () => {
    const { user, sent } = show([format('f1', 'Newsletter', { texts: [SUBJECT] }), format('f2', 'Still')], {
      'PUT /formats/f1/writing': {},
    });
    expect(await screen.findByRole('button', { name: /^Newsletter 1 text$/ })).toHaveAttribute('aria-current', 'page');
    expect(screen.getByRole('button', { name: /^Still copy alone$/ })).toBeVisible();
    const texts = screen.getByRole('group', { name: 'Texts besides the copy' });
    await user.click(within(texts).getByRole('button', { name: 'Add a text' }));
    await user.type(within(texts).getAllByLabelText('Name')[1] as HTMLElement, 'Preview line'); // just added
    await user.clear(within(texts).getAllByLabelText('Characters')[0] as HTMLElement); // the subject's
    await user.click(screen.getByRole('checkbox', { name: 'It has headings, lists and links' }));
    const outline = screen.getByRole('group', { name: 'Outline of the copy' });
    await user.click(within(outline).getByRole('button', { name: 'Add a heading' }));
    await user.type(within(outline).getByLabelText('Heading'), 'News');
    await user.click(within(outline).getByText('On every channel'));
    await user.click(within(outline).getByLabelText('Newsletter'));
    await user.click(within(outline).getByLabelText('Blog'));
    await user.click(within(outline).getByLabelText('Newsletter'));
    expect(within(outline).getByText('Only on: Blog')).toBeVisible();
    await user.click(screen.getByRole('button', { name: 'Save' }));
    await waitFor(() => expect(sent('PUT')).toHaveLength(1));
    const [put] = sent('PUT');
    expect(put?.version).toBe('4');
    expect(put?.body).toEqual({
      texts: [
        { ...SUBJECT, limit: null },
        {
          key: expect.stringMatching(/^[a-z0-9]{1,40}$/) as string,
          name: 'Preview line',
          isLong: false,
          prompt: '',
          limit: null,
          isNeeded: false,
        },
      ],
      outline: [{ heading: 'News', prompt: '', kinds: ['blog'] }],
      isLaidOut: true,
    });
  });

  it('shows both states where somebody else saved meanwhile', async () => {
    const theirs = format('f1', 'Newsletter', { texts: [{ ...SUBJECT, name: 'Theirs' }], version: 5 });
    const { user } = show([format('f1', 'Newsletter', { texts: [SUBJECT] })], {
      'PUT /formats/f1/writing': new Refusal(412, { code: 'http.changed_meanwhile', theirs }),
    });
    await user.type(await screen.findByLabelText('Name'), ' line');
    await user.click(screen.getByRole('button', { name: 'Save' }));
    const dialog = await screen.findByRole('dialog', { name: 'Somebody else saved this meanwhile' });
    expect(dialog).toHaveTextContent('Subject line');
    expect(dialog).toHaveTextContent('Theirs');
  });

  it('is only read by whoever has not the right, and says what to do where there is no format', async () => {
    show([format('f1', 'Newsletter', { texts: [SUBJECT] })], {}, false);
    expect(await screen.findByLabelText('Name')).toBeDisabled();
    expect(screen.queryByRole('button', { name: 'Save' })).toBeNull();
  });

  it('says what to do where there is no format', async () => {
    show([]);
    expect(await screen.findByText('No format yet')).toBeVisible();
    expect(screen.getByRole('link', { name: 'agency’s settings' })).toHaveAttribute('href', '/agency?part=lists');
  });
});
