import { followWrite, forgetWrites, isKnownAlready, noteAsked } from './own-changes';

const answer = (lines?: string) => new Response(null, lines === undefined ? {} : { headers: { 'Zesting-Wrote': lines } });

describe('what live updates tell of', () => {
  beforeEach(forgetWrites);

  it('is known already where this window wrote it, and what is on the screen was asked for since', async () => {
    await followWrite(Promise.resolve(answer('7 8')));
    noteAsked();
    expect(await isKnownAlready(['7'])).toBe(true);
    expect(await isKnownAlready(['8', '7'])).toBe(true);
  });

  it('is not known where somebody else wrote a line of it, or more changed than the lines tell', async () => {
    await followWrite(Promise.resolve(answer('7')));
    noteAsked();
    expect(await isKnownAlready(['7', '9'])).toBe(false);
    expect(await isKnownAlready(null)).toBe(false);
  });

  it('is not known as long as nothing was asked for since the write', async () => {
    await followWrite(Promise.resolve(answer('7')));
    expect(await isKnownAlready(['7'])).toBe(false);
    noteAsked();
    await followWrite(Promise.resolve(answer('8')));
    expect(await isKnownAlready(['7'])).toBe(false);
  });

  it('stays known after a write that the record has no line of, such as that a piece is open', async () => {
    await followWrite(Promise.resolve(answer('7')));
    noteAsked();
    await followWrite(Promise.resolve(answer()));
    expect(await isKnownAlready(['7'])).toBe(true);
  });

  it('waits for the answer to a write that is under way, which may come after what is told live', async () => {
    let arrive = (_response: Response) => {};
    const write = followWrite(new Promise<Response>((resolve) => (arrive = resolve))).then(noteAsked);
    const known = isKnownAlready(['7']);
    arrive(answer('7'));
    await write;
    expect(await known).toBe(true);
  });

  it('waits for no write for long, and for none that failed', async () => {
    const hanging = followWrite(new Promise<Response>(() => {}));
    void hanging;
    expect(await isKnownAlready(['7'])).toBe(false);
    forgetWrites();
    await expect(followWrite(Promise.reject(new TypeError('offline')))).rejects.toThrow('offline');
    expect(await isKnownAlready(['7'])).toBe(false);
  });

  it('keeps the newest lines', async () => {
    await followWrite(Promise.resolve(answer(Array.from({ length: 501 }, (_, index) => String(index)).join(' '))));
    noteAsked();
    expect(await isKnownAlready(['0'])).toBe(false);
    expect(await isKnownAlready(['500'])).toBe(true);
  });
});
