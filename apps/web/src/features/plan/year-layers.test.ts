import { MARKER_KINDS, type MarkerShape } from '@zesting/contract';
import { isLayer, LAYERS, markersIn } from './year-layers';

const marker = (kind: MarkerShape['kind'], startOn: string, endOn = startOn) => ({ kind, startOn, endOn, name: kind }) as MarkerShape; // as much of it as is looked at

describe('the layers of a year', () => {
  it('have every kind of marker in one of them', () => {
    const kinds: MarkerShape['kind'][] = [...MARKER_KINDS, 'holiday', 'observance'];
    for (const kind of kinds) expect(LAYERS.filter(({ kinds: own }) => (own as readonly string[]).includes(kind))).toHaveLength(1);
    expect(['themes', 'slots', 'nothing', ''].map(isLayer)).toEqual([true, true, false, false]);
  });

  it('show what reaches from one month into another in both, and what is of another layer in neither', () => {
    const all = [marker('blackout', '2027-03-30', '2027-04-02'), marker('closure', '2027-03-01'), marker('launch', '2027-03-05')];
    expect(markersIn(all, 'closed', '2027-03').map(({ name }) => name)).toEqual(['blackout', 'closure']);
    expect(markersIn(all, 'closed', '2027-04').map(({ name }) => name)).toEqual(['blackout']);
    expect(markersIn(all, 'launches', '2027-03').map(({ name }) => name)).toEqual(['launch']);
    expect(markersIn(all, 'slots', '2027-03')).toEqual([]);
  });
});
