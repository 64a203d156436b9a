import { randomUUID } from 'node:crypto';
import { existsSync, readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { Inject, Injectable } from '@nestjs/common';
import { addDays, addMinutes, differenceInCalendarDays, formatISO, parseISO, subDays } from 'date-fns';
import { present } from '@quarry/core/grid';
import {
  displayOf,
  listOf,
  readFile,
  reduce,
  type Change,
  type Kind,
  type Role,
  type Scene,
} from '@quarry/core/document';
import type { DemoMember, User } from '@quarry/protocol/accounts';
import { AccountsService } from '../accounts/accounts.service.ts';
import { WriterService } from '../changes/writer.service.ts';
import { DisplaysService } from '../displays/displays.service.ts';
import { PhotosService } from '../photos/photos.service.ts';
import { rasterizeSvg } from '../photos/picture.ts';
import { ShareService } from '../share/share.service.ts';
import { pastOf } from './past.ts';

/** The invented crew; the sign-in name of each is the id of their person in the demo files. */
const CREW: readonly { login: string; name: string; role: Role; line: string }[] = [
  { login: 'iva', name: 'Iva Thorsby', role: 'owner', line: 'leads the display' },
  { login: 'tobin', name: 'Tobin Orr', role: 'planner', line: 'plans the quarry' },
  { login: 'brenna', name: 'Brenna Rook', role: 'builder', line: 'builds Mill street' },
  { login: 'mads', name: 'Mads Elvery', role: 'builder', line: 'builds the tarn and the incline' },
  { login: 'suri', name: 'Suri Vale', role: 'viewer', line: 'hosts the show, looks on' },
];
/** The display everybody is on; the others are the owner's. */
const SHARED = 'skarn-edge.quarry.json';
/** Days from the day the demo starts to a show. */
const DAYS_TO_SHOW = 70;
/** Of everybody on the demo: it guards nothing, it is there so that one can try how a password is changed. */
export const DEMO_PASSWORD = 'slate and tarn';

/** Drawings that stand for photos of the tarn from one spot, with the days before the demo starts. */
const PHOTOS = [
  { drawing: 'tarn-1.svg', daysAgo: 30, note: 'Drawn for the demo: supports and deck' },
  { drawing: 'tarn-2.svg', daysAgo: 16, note: 'Drawn for the demo: the fell closed, water in' },
  { drawing: 'tarn-3.svg', daysAgo: 2, note: 'Drawn for the demo: dam, trees, the keeper’s house' },
] as const;
const PHOTO_SPOT = { section: 'tarn-d', by: 'mads', x: 190, y: 150, bearing: 350 };

@Injectable()
export class DemoService {
  constructor(
    @Inject(AccountsService) private readonly accounts: AccountsService,
    @Inject(DisplaysService) private readonly displays: DisplaysService,
    @Inject(WriterService) private readonly writer: WriterService,
    @Inject(ShareService) private readonly share: ShareService,
    @Inject(PhotosService) private readonly photos: PhotosService,
  ) {}

  crew(): readonly DemoMember[] {
    return CREW;
  }

  /** Makes the crew and the displays, once. @param folder where the demo files are */
  async seed(folder: string, today: Date): Promise<void> {
    const lead = present(CREW[0], 'the demo’s crew');
    if (this.accounts.byLogin(lead.login)) return;
    const users = new Map<string, User>();
    for (const { login, name, role } of CREW)
      users.set(login, await this.accounts.create(login, name, DEMO_PASSWORD, role === 'owner'));
    const owner = present(users.get(lead.login), 'the owner of the demo');
    for (const file of readdirSync(folder).filter((name) => name.endsWith('.quarry.json'))) {
      const reading = readFile(readFileSync(join(folder, file), 'utf8'));
      if (!reading.ok) throw new Error(`${file}: ${reading.error}`);
      const scene = shiftDates(reading.scene, today);
      const log = join(folder, file.replace('.quarry.json', '.log.json'));
      const { origin, batches } = existsSync(log)
        ? pastOf(scene, readFileSync(log, 'utf8'), today)
        : { origin: scene, batches: [] };
      const [first] = batches;
      const began = first ? subDays(first.at, 1) : today;
      const { id } = this.displays.create(owner, origin, lead.login, began.getTime());
      if (file === SHARED) {
        for (const { login, role } of CREW.slice(1)) {
          const user = users.get(login);
          if (user) this.displays.join(id, user.id, role, scene.person[login] ? login : null);
        }
        this.share.set(id, { names: false, fresh: false });
      }
      for (const { by, at, label, changesIn } of batches) {
        const changes = changesIn(this.displays.load(id).scene);
        const batch = { id: randomUUID(), label, changes };
        await this.writer.write(id, users.get(by) ?? owner, { role: 'owner', person: by }, batch, {
          at: at.getTime(),
        });
      }
      const last = batches.at(-1)?.at ?? today;
      if (file === SHARED)
        await this.addPhotos(id, owner, join(folder, 'photos'), today, addMinutes(last, 1));
    }
  }

  /** @param at when they were added: after everything else in the demo's past */
  private async addPhotos(id: string, owner: User, folder: string, today: Date, at: Date): Promise<void> {
    const changes: Change[] = [];
    for (const [i, { drawing, daysAgo, note }] of PHOTOS.entries()) {
      const kept = await this.photos.keep(id, owner, await rasterizeSvg(join(folder, drawing)));
      const taken = subDays(today, daysAgo).toISOString();
      changes.push({
        op: 'add',
        kind: 'photo',
        id: `tarn-${i + 1}`,
        data: { ...kept, ...PHOTO_SPOT, taken, note, published: true },
      });
    }
    const batch = { id: randomUUID(), label: 'added photos of the tarn', changes };
    await this.writer.write(id, owner, { role: 'owner', person: PHOTO_SPOT.by }, batch, { at: at.getTime() });
  }
}

/** What else has dates, and which fields they are. */
const DATED: readonly (readonly [Kind, ...string[]])[] = [
  ['milestone', 'date'],
  ['section', 'partsBy'],
  ['order', 'expected'],
  ['loan', 'due', 'back'],
  ['placeholder', 'built', 'swapped'],
  ['task', 'parts', 'done'],
  ['slot', 'day'],
];

/** What happened at a moment, and which fields say when. */
const TIMED: readonly (readonly [Kind, ...string[]])[] = [
  ['acceptance', 'at'],
  ['thread', 'at'],
  ['reply', 'at'],
  ['report', 'at', 'fromAt'],
  ['session', 'start'],
];

/** Moves every date of a display so that its show is ten weeks from today: the demo never looks stale. */
function shiftDates(scene: Scene, today: Date): Scene {
  const { showDate, startDate, v } = displayOf(scene);
  if (!showDate) return scene;
  const days = differenceInCalendarDays(addDays(today, DAYS_TO_SHOW), parseISO(showDate));
  const moved = (date: string | null) =>
    date === null ? null : formatISO(addDays(parseISO(date), days), { representation: 'date' });
  const reduction = reduce(scene, [
    {
      op: 'patch',
      kind: 'display',
      id: 'display',
      v,
      set: { showDate: moved(showDate), startDate: moved(startDate) },
    },
    ...DATED.flatMap((entry) => shifted(scene, entry, moved)),
    ...TIMED.flatMap((entry) =>
      shifted(scene, entry, (moment) => moment && addDays(parseISO(moment), days).toISOString()),
    ),
  ]);
  if (!reduction.ok) throw new Error(reduction.refusal.sentence);
  return reduction.scene;
}

/** Patches that move some fields of every entity of a kind. */
function shifted(
  scene: Scene,
  [kind, ...fields]: readonly [Kind, ...string[]],
  move: (text: string | null) => string | null,
): Change[] {
  return listOf(scene, kind).map((entity) => {
    const said: Readonly<Record<string, unknown>> = { ...entity };
    const set = Object.fromEntries(
      fields.map((field) => [field, move(typeof said[field] === 'string' ? said[field] : null)]),
    );
    return { op: 'patch', kind, id: entity.id, v: entity.v, set };
  });
}
