import { CircleHelp, Search } from 'lucide-react';
import { useEffect, useState } from 'react';
import { Dialog } from '../ui/dialog';
import { Find } from './find';

const HELP: readonly (readonly [string, readonly (readonly [string, string])[]])[] = [
  [
    'Everywhere',
    [
      ['Ctrl + .', 'Find a piece, request, client, person, or something to do'],
      ['?', 'This help'],
      ['Tab, Shift + Tab', 'Go on, go back'],
      ['Enter', 'Open, press, save'],
      ['Escape', 'Close what is open; nothing is saved'],
    ],
  ],
  [
    'Calendar',
    [
      ['Enter', 'On a placement: day and time, swap, place once more, cancel'],
      ['Space', 'Lift a placement; again to drop it'],
      ['Arrow keys', 'While lifted: from day to day'],
    ],
  ],
  [
    'Tabs, menus and lists',
    [
      ['Arrow keys', 'From one to the next'],
      ['Home, End', 'First, last'],
    ],
  ],
];

const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName));

/** Find and help in the band, and the keys that open them. */
export function FindAndHelp() {
  const [open, setOpen] = useState<'find' | 'help' | null>(null);
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      if (event.ctrlKey && event.key === '.') setOpen('find');
      else if (event.key === '?' && !isTyping(event.target)) setOpen('help');
      else return;
      event.preventDefault();
    };
    window.addEventListener('keydown', listen);
    return () => window.removeEventListener('keydown', listen);
  }, []);
  const button = 'grid place-items-center rounded-md size-8 hover:bg-white/10';
  return (
    <>
      <button type="button" className={button} aria-label="Find (Ctrl + .)" title="Find (Ctrl + .)" onClick={() => setOpen('find')}>
        <Search size={17} aria-hidden />
      </button>
      <button type="button" className={button} aria-label="Keyboard help (?)" title="Keyboard help (?)" onClick={() => setOpen('help')}>
        <CircleHelp size={17} aria-hidden />
      </button>
      {open === 'find' && <Find onClose={() => setOpen(null)} onHelp={() => setOpen('help')} />}
      {open === 'help' && <Help onClose={() => setOpen(null)} />}
    </>
  );
}

function Help({ onClose }: { onClose: () => void }) {
  return (
    <Dialog open onClose={onClose} title="Keyboard help" description="All of Zesting works by keyboard.">
      {HELP.map(([title, keys]) => (
        <section key={title} className="mb-4">
          <h3 className="text-base mb-1">{title}</h3>
          <dl className="grid grid-cols-[9rem_minmax(0,1fr)] gap-y-1.5">
            {keys.map(([key, what]) => (
              <div key={key} className="contents">
                <dt>
                  <kbd className="rounded-md border border-line-strong px-1.5 text-[13px] font-sans">{key}</kbd>
                </dt>
                <dd>{what}</dd>
              </div>
            ))}
          </dl>
        </section>
      ))}
    </Dialog>
  );
}
