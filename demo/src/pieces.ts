import type { ClientKey } from './clients.js';
import type { RouteKey } from './story.js';
import type { Motif, Palette } from './pictures.js';

/** How far a piece has come by today. Each word names the last thing that happened. */
export type Ending =
  | 'asked'
  | 'declined'
  | 'accepted'
  | 'assigned'
  | 'making'
  | 'overrun'
  | 'stalled'
  | 'tight'
  | 'beyond'
  | 'handed_back'
  | 'in_check'
  | 'ready'
  | 'with_client'
  | 'past_due'
  | 'changes_asked'
  | 'second_round'
  | 'approved'
  | 'pencilled'
  | 'scheduled'
  | 'changed_after'
  | 'out'
  | 'missed';

export interface StoryPiece {
  readonly client: ClientKey;
  readonly title: string;
  readonly route: RouteKey;
  readonly ending: Ending;
  /** days before today on which the request came */
  readonly askedDaysAgo: number;
  /** days from today of the wish date or placement; null: no date */
  readonly inDays: number | null;
  readonly copy: string;
  readonly pillar: number;
  /** positions of the client's channels */
  readonly channels: readonly number[];
  readonly picture: readonly [Motif, Palette, number];
}

const MOTIFS: Record<ClientKey, Motif> = { moss: 'leaves', kiln: 'loaves', tide: 'hulls', loom: 'threads' };

/** Reads a line: client, route, ending, days since it was asked, days until it is out, palette, pillar, channels | title | copy. */
function parse(line: string, index: number): StoryPiece {
  const [facts = '', title = '', copy = ''] = line.split('|').map((part) => part.trim());
  const [client, route, ending, asked, inDays, palette, pillar, channels = ''] = facts.split(/\s+/) as [
    ClientKey,
    RouteKey,
    Ending,
    string,
    string,
    Palette,
    string,
    string,
  ]; // the table below is ours
  return {
    client,
    route,
    ending,
    title,
    copy,
    askedDaysAgo: Number(asked),
    inDays: inDays === '-' ? null : Number(inDays),
    pillar: Number(pillar),
    channels: channels.split(',').map(Number),
    picture: [MOTIFS[client], palette, index + 1],
  };
}

const lines = (table: string): string[] => table.trim().split('\n');

/** Pieces over the past month and the next two, at every stage, with rounds and trouble. */
const PIECES = `
moss still   out           30 -6  fern 0 0   | First ferns of the season | The tree ferns are unrolling. Come and see them before they are taller than you.
moss article out           40 -9  loam 1 1,2 | Repotting without tears | A pot one size up, a dull knife, and patience. Here is how we do it under glass.
moss still   missed        28 -1  dusk 2 0   | Bench of the week: begonias | Six leaf shapes, one bench. Which one would you take home?
moss letter  scheduled     24 4   moss 0 1   | Newsletter: what to sow now | Five things to sow this week, and two that can wait.
moss still   scheduled     22 7   fern 1 0,2 | Shade corner before and after | A dark corner, three ferns, one stone. The whole thing took an afternoon.
moss still   changed_after 21 9   moss 1 0,2 | Moss lawns, honestly | They are slow, they are soft, and they ask for shade. Then they ask for nothing.
moss still   with_client   14 10  dusk 1 0   | Orchids that forgive | Miss a watering. Miss two. These three still flower.
moss letter  past_due      18 6   loam 2 1   | Newsletter: open greenhouse | Doors open on Saturday at nine. The kettle is on from half past eight.
moss still   changes_asked 16 12  moss 2 0   | Meet the cutting bench | Every plant here began as a cutting on this bench.
moss article overrun       8  20  fern 1 2   | Watering by weight | Lift the pot. If it is light, water. That is the whole method.
moss still   stalled       15 3   dusk 0 0   | Summer bulbs arrive | 
moss still   accepted      3  24  moss 0 0,1 | Gift plants for small flats | 
kiln still   out           26 -4  rye  0 0,2 | Seeded rye is back | Dark, dense, and back on the shelf from Tuesday.
kiln clip    out           33 -8  oven 1 1   | Scoring a loaf in nine seconds | One blade, one breath, nine seconds.
kiln still   scheduled     20 3   oven 0 0   | Saturday buns, counted | We bake two hundred and forty. By eleven there are none.
kiln still   approved      19 -   rye  2 0,2 | The four o’clock loaf | Half price from four, warm from the second bake.
kiln clip    pencilled     12 11  dusk 1 1,2 | A day with the night baker | At two in the morning the street is ours.
kiln carousel second_round 18 9   oven 0 0   | Why our butter is cold | Cold butter, cold hands, hot oven. Layers need the difference.
kiln carousel handed_back  10 8   rye  0 0   | Sourdough, day one to five | Flour, water, five days. Day three smells wrong. Day five does not.
kiln still   in_check      9  9   oven 1 0,2 | Staff pick: the plait | Plaited by hand, brushed with egg, gone by noon.
kiln still   ready         11 10  rye  2 0,2 | Order by Thursday | Order by Thursday noon, collect on Saturday. No queue.
kiln clip    assigned      5  26  oven 0 1   | Inside the deck oven | 
kiln still   accepted      4  -   rye  1 0   | Flour from three fields | 
kiln still   accepted      2  2   oven 2 0,2 | Pancake day, early | 
moss still   out           33 -27 fern 0 0   | Rain barrels, ready | One barrel, one summer of soft water.
moss letter  out           36 -20 moss 1 1   | Newsletter: pests without poison | Soap, patience and a torch after dark.
moss still   out           30 -13 loam 2 0   | Our oldest bonsai turns sixty | Repotted eleven times, dropped once.
moss still   pencilled     14 30  dusk 0 0,2 | Hedges that birds like | Berries in winter, nests in spring.
moss article making        10 41  fern 1 2   | Seed from your own tomatoes | Let one ripen past eating. Then wait.
moss still   accepted      4  55  moss 0 0   | Autumn leaves, kept | 
kiln still   out           32 -25 oven 0 0   | Cardamom knots, first tray | They were gone before the second tray was out.
kiln still   out           29 -18 rye  2 0,2 | Loaf for a neighbour | Buy one, and one goes next door.
kiln clip    out           38 -11 oven 1 1   | Folding, slowly | Three folds, two rests, one hand.
kiln still   scheduled     21 17  rye  0 0,2 | Fig and fennel weekend | Two days only, as long as the figs last.
kiln still   accepted      6  38  oven 2 0   | Gift boxes, early list | 
kiln clip    assigned      9  47  dusk 1 1   | The flour arrives | 
tide still   out           34 -28 tide 0 0   | The pilot boat comes home | After two years ashore she floats again.
tide article out           40 -19 rope 1 2   | How to read a tide table | Two highs, two lows, and a moon behind it all.
tide still   out           31 -14 tide 2 0   | A knot a week: the bowline | Holds a ship, opens with a thumb.
tide still   out           27 -7  rope 2 0   | A knot a week: the sheet bend | Two ropes, one bend, no slipping.
tide still   scheduled     20 5   tide 2 0   | A knot a week: the rolling hitch | It grips along the rope, and only one way.
tide letter  scheduled     26 12  rope 0 1   | Newsletter: winter on the slip | What the yard does while the harbour sleeps.
tide still   with_client   15 19  tide 1 0   | Night sail for members | Lanterns lit, phones away, twelve places.
tide still   changes_asked 17 16  rope 0 0,2 | The model room opens | Four hundred hulls, none longer than your arm.
tide still   second_round  22 22  tide 1 0   | Volunteers who varnish | Saturdays at ten. Old clothes, steady hands.
tide article beyond        3  -   rope 1 2   | The lighthouse keeper’s log | 
tide still   in_check      12 18  tide 2 0   | A knot a week: the cleat hitch | A turn, a figure of eight, and off you go.
tide clip    making        11 33  rope 0 3   | Steaming a plank | An hour in the box, a minute to bend it.
tide still   handed_back   13 20  tide 0 0   | Storm flags, explained | Red with black says: stay where you are.
tide still   accepted      5  44  rope 1 0   | School boats in spring | 
loom still   out           35 -26 wool 0 0   | Undyed is a colour | Four sheep, four greys, no vat.
loom letter  out           37 -17 dye  1 1   | Newsletter: madder day | The pot boils at nine. Bring gloves.
loom still   out           28 -10 wool 2 0   | A blanket takes eleven days | And then it lasts eleven winters.
loom still   approved      18 -   dye  0 0   | Scarves from short ends | Every scarf is the end of something larger.
loom still   scheduled     19 8   wool 1 0,2 | Warp, weft, and patience | One goes up and down, one goes across.
loom article scheduled     30 15  dye  2 2   | Moths: a peace treaty | Cedar, cold, and a box that closes.
loom still   ready         12 21  wool 0 0   | Indigo, second dip | Green in the vat, blue in the air.
loom still   tight         2  -   dye  1 0   | Winter workshop: bands and belts | 
loom letter  making        9  28  wool 2 1   | Newsletter: the shearing calendar | Six farms, six dates, one trailer.
loom still   stalled       16 4   dye  0 0   | Gift cards by post | 
loom still   accepted      3  50  wool 1 0   | Open loom Saturdays | 
`;

/** Requests that nobody has decided, and one declined. */
const REQUESTS = `
moss still  asked    1 18 fern 0 0 | Native seedlings for schools | Teachers should write to us for a free tray.
kiln still  asked    0 12 oven 0 0 | New oven, first bake | People should come and see it on Saturday.
kiln still  declined 6 2  rye  1 0 | A song about bread | People should sing along.
tide still  asked    2 26 tide 1 0 | Ice on the harbour, 1934 | People should bring their own old photographs.
loom letter asked    4 34 wool 1 1 | A loom for every school | Teachers should borrow one for a month.
`;

export const STORY: readonly StoryPiece[] = lines(PIECES).map(parse);
export const ASKED: readonly StoryPiece[] = lines(REQUESTS).map((line, index) => parse(line, STORY.length + index));
