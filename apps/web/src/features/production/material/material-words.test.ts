import type { MaterialShape } from '@zesting/contract';
import { bySort, filesToTake, materialName } from './material-words';

const nothing = { label: '', file: null, url: null, text: null };
const file = { assetId: 'a', name: 'bakery.png', hash: 'a', mime: 'image/png', bytes: 1, width: 1, height: 1, durationMs: null };

describe('material', () => {
  it.each([
    [{ ...nothing, label: 'The shop', file }, 'The shop'],
    [{ ...nothing, file }, 'bakery.png'],
    [{ ...nothing, url: 'https://files.test/autumn/' }, 'files.test/autumn'],
    [{ ...nothing, text: 'First line\nsecond' }, 'First line'],
    [{ ...nothing, text: 'x'.repeat(70) }, `${'x'.repeat(60)}…`],
  ])('is called %#', (one, name) => {
    expect(materialName(one)).toBe(name);
  });

  it('stands by sort, originals first', () => {
    const of = (id: string, sort: MaterialShape['sort']) => ({ ...nothing, id, sort }) as MaterialShape;
    const list = [of('1', 'transcript'), of('2', 'original'), of('3', 'transcript')];
    expect(bySort(list).map(([sort, ofIt]) => [sort, ofIt.map(({ id }) => id)])).toEqual([
      ['original', ['2']],
      ['transcript', ['1', '3']],
    ]);
  });

  it('can be taken into the content where it is something to look at or to listen to, once', () => {
    const of = (assetId: string, mime: string) => ({ ...file, assetId, mime });
    const files = [of('a', 'image/png'), of('b', 'text/plain'), of('c', 'video/mp4'), of('d', 'audio/wav'), of('c', 'video/mp4')];
    expect(filesToTake(files, [{ assetId: 'a' }]).map(({ assetId }) => assetId)).toEqual(['c', 'd']);
  });
});
