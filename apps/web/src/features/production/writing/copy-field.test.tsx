import { render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { CopyField, type WrittenCopy } from './copy-field';

/** Shows the field as a page holds it, and tells what it holds. */
function show(copy: WrittenCopy, { laysOut = true, readOnly = false } = {}) {
  let held = copy;
  function Held() {
    const [shared, setShared] = useState(copy);
    held = shared;
    const rules = { wordsNever: ['cheap'], wordsToUse: ['Kiln Lane'] };
    return <CopyField shared={shared} laysOut={laysOut} language="de" rules={rules} readOnly={readOnly} onChange={setShared} />;
  }
  render(<Held />);
  return { held: () => held };
}

describe('the copy of a piece', () => {
  it('is words alone where its format has no layout, with what they come to', async () => {
    const { held } = show({ copy: '', isLaidOut: false }, { laysOut: false });
    const field = screen.getByRole('textbox', { name: 'Copy' });
    await userEvent.type(field, '# two cheap');
    expect(held()).toEqual({ copy: '# two cheap', isLaidOut: false });
    expect(field).toHaveAccessibleDescription(/2 words, 11 characters.*Never used for this client: “cheap”/);
    expect(field).toHaveAttribute('lang', 'de');
    expect(screen.queryByRole('toolbar')).toBeNull();
    expect(screen.queryByRole('button')).toBeNull();
  });

  it('is written with headings where the format has them, once somebody wants that for what is there; and back', async () => {
    const { held } = show({ copy: '# no heading\n\ntwo', isLaidOut: false });
    await userEvent.click(screen.getByRole('button', { name: 'Write it with headings and lists' }));
    expect(held()).toEqual({ copy: '\\# no heading\n\ntwo', isLaidOut: true });
    expect(await screen.findByRole('toolbar', { name: 'How copy is laid out' })).toBeVisible();
    const editor = screen.getByRole('textbox', { name: 'Copy' });
    expect(editor).toHaveTextContent('# no headingtwo');
    expect(editor).toHaveAccessibleDescription(/4 words|3 words/);
    await userEvent.click(screen.getByRole('button', { name: 'Write it as words alone' }));
    expect(held()).toEqual({ copy: '# no heading\n\ntwo', isLaidOut: false });
  });

  it('shows headings, lists and links as such, spares the client’s own words, and takes what comes from elsewhere', async () => {
    show({ copy: '# Rye\n\nAt Kiln Lane\n\n- one\n- [two](https://kilnlane.test)', isLaidOut: true });
    const editor = await screen.findByRole('textbox', { name: 'Copy' });
    expect(await screen.findByRole('heading', { name: 'Rye' })).toBeVisible();
    expect([...editor.querySelectorAll('li')].map(({ textContent }) => textContent)).toEqual(['one', 'two']);
    expect(screen.getByRole('link', { name: 'two' })).toHaveAttribute('href', 'https://kilnlane.test');
    await waitFor(() => expect(editor.querySelector('[spellcheck=false]')).toHaveTextContent('Kiln Lane'));
  });

  it('is only read by whoever may not write', () => {
    show({ copy: '# Rye', isLaidOut: true }, { readOnly: true });
    expect(screen.getByRole('region', { name: 'Copy' })).toHaveTextContent('Rye');
    expect(screen.queryByRole('textbox')).toBeNull();
    expect(screen.queryByRole('button')).toBeNull();
  });
});
