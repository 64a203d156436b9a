import type { Finding, Page } from '@quarry/core/findings';

/** A page: no finding is about Sight, whose answers take long, and the Bench, which stands by itself. */
export type PageId = Page | 'sight' | 'bench';
interface PageEntry<P> {
  id: P;
  word: string;
  /** The letter that goes to it after `g`. */
  key: string;
  question: string;
}

/** The pages that findings are about, in working order. */
export const FINDING_PAGES: readonly PageEntry<Page>[] = [
  {
    id: 'brief',
    word: 'Brief',
    key: 'b',
    question: 'What are we showing, under which rules, at which scale, by when?',
  },
  {
    id: 'survey',
    word: 'Survey',
    key: 's',
    question: 'Where does it stand, what can be reached, what can get in',
  },
  { id: 'plan', word: 'Plan', key: 'p', question: 'What stands where, on the stud grid' },
  { id: 'cut', word: 'Cut', key: 'c', question: 'Which modules, on which bases' },
  { id: 'stockpile', word: 'Stockpile', key: 'k', question: 'What is owned, needed and short' },
  { id: 'progress', word: 'Progress', key: 'r', question: 'Where each section is' },
  {
    id: 'crew',
    word: 'Crew',
    key: 'w',
    question: 'Who is in, who owns what, what changed, what was advised and answered',
  },
  {
    id: 'transport',
    word: 'Transport',
    key: 't',
    question: 'What goes in which crate and vehicle, and the day of the show by the minute',
  },
];

const SIGHT: PageEntry<PageId> = {
  id: 'sight',
  word: 'Sight',
  key: 'i',
  question: 'Who sees what from where, and what hides it',
};

/** All pages, in working order. */
export const PAGES: readonly PageEntry<PageId>[] = [
  ...FINDING_PAGES.flatMap((entry): PageEntry<PageId>[] =>
    entry.id === 'stockpile' ? [SIGHT, entry] : [entry],
  ),
  { id: 'bench', word: 'Bench', key: 'n', question: 'What fits, closes, meets and lifts, by itself' },
];

/** The sheets of each page, in the order of their tabs; `also`: words by which a person may look for one. */
export const PAGE_SHEETS = {
  brief: [
    { id: 'rules', word: 'Rules', also: 'card contest house rules levels wind season currency limits' },
    { id: 'scale', word: 'Scale', also: 'ratio school true size line-up models furniture' },
    { id: 'space', word: 'Space and vehicles', also: 'budget rooms area vehicles' },
    { id: 'dates', word: 'Dates and people', also: 'show milestones deadline people' },
    {
      id: 'cast',
      word: 'Cast',
      also: 'characters figures animals vehicles small scenes spots roles story visitors guide totals lost',
    },
    { id: 'versions', word: 'Versions', also: 'season story swap differences variants' },
  ],
  survey: [
    { id: 'room', word: 'Room', also: 'tables walls doors sockets obstacles place hall' },
    { id: 'way', word: 'Access route', also: 'doors passages stairs lift vehicle way in' },
    { id: 'reach', word: 'Reach', also: 'arm ladder out of reach' },
    { id: 'support', word: 'Loads', also: 'mass weight tables rated overhang' },
    { id: 'public', word: 'Visitors', also: 'barrier aisle eyes viewers' },
  ],
  plan: [],
  cut: [
    { id: 'alternatives', word: 'Alternatives', also: 'cut modules bases cost weights' },
    { id: 'hand', word: 'By hand', also: 'split merge draw seam' },
    { id: 'lift', word: 'Lifting', also: 'mass weight lift index tips carry' },
    { id: 'stability', word: 'Stability', also: 'will it stand joints hold balance overhang' },
    { id: 'seams', word: 'Seams', also: 'agreement sheet neighbours connectors' },
    { id: 'order', word: 'Order', also: 'assembly setting up taking down' },
  ],
  sight: [
    { id: 'sections', word: 'Sections', also: 'seen hidden visitors child wheelchair view detail budget' },
    {
      id: 'things',
      word: 'Buildings and scenes',
      also: 'hides blocks fronts figures signboards letters good side turn move',
    },
    { id: 'eyes', word: 'Who looks', also: 'eyes heights crowd busy first view door photo spot' },
    { id: 'walk', word: 'Walk', also: '3D three dimensions eye height child stand picture glTF model' },
  ],
  stockpile: [
    { id: 'needs', word: 'Needs', also: 'parts pieces short pick list bill of materials' },
    { id: 'matrix', word: 'Matrix', also: 'colours by family table' },
    { id: 'stock', word: 'Count', also: 'stock drawers own parts boxes' },
    { id: 'lists', word: 'Lists and kits', also: 'bring in import kit part list' },
    { id: 'orders', word: 'Orders', also: 'parcels loans money bought' },
    { id: 'buy', word: 'Buy', also: 'market offers sellers cheapest' },
    { id: 'swaps', word: 'Placeholders', also: 'wrong colour swap later substitutes' },
    { id: 'colours', word: 'Colours', also: 'recipes mix custom ground snow mud layers accents' },
    { id: 'methods', word: 'Methods', also: 'fill solid raft frame deck' },
    { id: 'layers', word: 'Layers', also: 'three dimensions 3D build sheets steps instructions' },
    { id: 'bases', word: 'Bases', also: 'baseplates sheets prices' },
  ],
  progress: [
    { id: 'sections', word: 'Sections', also: 'stages how far done' },
    { id: 'tonight', word: 'Tonight', also: 'what to do next evening hours' },
    { id: 'sessions', word: 'Sessions', also: 'hours worked clock start stop' },
    { id: 'tasks', word: 'Tasks', also: 'to do work estimates' },
    { id: 'outlook', word: 'Outlook', also: 'forecast chance odds ready earned value' },
    { id: 'agenda', word: 'Agenda', also: 'calendar evenings week' },
    { id: 'photos', word: 'Photos', also: 'pictures before after' },
    { id: 'day', word: 'One day', also: 'clock timetable minutes' },
  ],
  crew: [
    { id: 'holdings', word: 'Owners', also: 'who owns what sections' },
    { id: 'people', word: 'People', also: 'invite roles members' },
    { id: 'advice', word: 'Advice', also: 'messages threads questions comments' },
    { id: 'history', word: 'History', also: 'log changes restore undo before' },
    { id: 'report', word: 'Since last report', also: 'update followers newsletter' },
  ],
  transport: [
    { id: 'load', word: 'Load', also: 'van vehicle crates boxes packing trips carry trolley' },
    { id: 'day', word: 'Day', also: 'set-up take-down timetable show hall minutes hands ready' },
    {
      id: 'power',
      word: 'Light and power',
      also: 'lamps lights motors circuits cables volts amps supplies adapters batteries sockets mains',
    },
    {
      id: 'kit',
      word: 'Kit',
      also: 'spares tools cloths papers labels values insurance cautions risk print',
    },
    { id: 'show', word: 'At the show', also: 'visitors counted broke breakages lent missing next' },
  ],
  bench: [
    {
      id: 'fits',
      word: 'Sideways',
      also: 'studs not on top plates on their side bracket half stud cube fit',
    },
    { id: 'ring', word: 'Rings', also: 'round room tower wedges circle dome bays' },
    { id: 'roof', word: 'Roofs', also: 'pitch slope ridge gable spire courses' },
    { id: 'turn', word: 'Turned walls', also: 'angle triangle diagonal off the grid ties' },
    { id: 'hinge', word: 'Hinges', also: 'two walls angle folded bay window tower octagon corner pin' },
    { id: 'bays', word: 'Bays', also: 'repeat arches divide base panels' },
    { id: 'stack', word: 'Stacks', also: 'tall plates bricks joints measure height differ' },
    { id: 'volume', word: 'Block', also: 'volume solid hollow pieces grams weight box' },
    { id: 'picture', word: 'Picture', also: 'mosaic photo image studs dither portrait sign' },
    {
      id: 'enlarged',
      word: 'Enlarged',
      also: 'drawing sign letters logo template stencil print 1:1 upright plates',
    },
    { id: 'lift', word: 'Lift by hand', also: 'weigh mass kilogram carry' },
  ],
} as const satisfies Record<PageId, readonly { id: string; word: string; also: string }[]>;
export type PageWithSheets = Exclude<PageId, 'plan'>;
export type SheetOf<P extends PageWithSheets> = (typeof PAGE_SHEETS)[P][number]['id'];

/** Where a finding is shown: what stands in the room on the Survey, what has a place in the scene on the Plan. */
export const pageOfFinding = ({ place, page }: Pick<Finding, 'place' | 'page'>): Page =>
  place && page !== 'survey' ? 'plan' : page;

/** How long after `g` a letter still means a page, ms. */
const GO_MS = 1500;
let armedAt = -GO_MS;
let goneAt = -1;

/** Letters of pages come after a `g`: whoever hears a letter asks here what it means. Times are those of the events, ms. */
export const goKeys = {
  arm: (at: number) => void (armedAt = at),
  /** Whether the letter of this moment goes to a page; a second one after that does not. */
  takes: (at: number): boolean => {
    if (goneAt === at) return true;
    if (at - armedAt >= GO_MS) return false;
    armedAt = -GO_MS;
    goneAt = at;
    return true;
  },
};
