import { randomBytes } from 'node:crypto';
import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { Inject, Injectable } from '@nestjs/common';
import { addDays, differenceInCalendarDays, formatISO, parseISO } from 'date-fns';
import { displayOf, listOf, readFile, reduce, type Kind, type Role, type Scene } from '@quarry/core/scene';
import { AccountsService, type User } from '../accounts/accounts.service.ts';
import { DisplaysService } from '../displays/displays.service.ts';

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

export type CrewMember = (typeof CREW)[number];

@Injectable()
export class DemoService {
  constructor(
    @Inject(AccountsService) private readonly accounts: AccountsService,
    @Inject(DisplaysService) private readonly displays: DisplaysService,
  ) {}

  crew(): readonly CrewMember[] {
    return CREW;
  }

  /** Makes the crew and the displays, once. @param folder where the demo files are */
  async seed(folder: string, today: Date): Promise<void> {
    if (this.accounts.byLogin(CREW[0].login)) return;
    const users = new Map<string, User>();
    for (const { login, name } of CREW)
      users.set(login, await this.accounts.create(login, name, randomBytes(24).toString('base64')));
    const [owner] = users.values();
    for (const file of readdirSync(folder).filter((name) => name.endsWith('.quarry.json'))) {
      const reading = readFile(readFileSync(join(folder, file), 'utf8'));
      if (!reading.ok) throw new Error(`${file}: ${reading.error}`);
      const { id } = this.displays.create(owner, shiftDates(reading.scene, today), CREW[0].login);
      if (file !== SHARED) continue;
      for (const { login, role } of CREW.slice(1)) {
        const user = users.get(login);
        if (user) this.displays.join(id, user.id, role, reading.scene.person[login] ? login : null);
      }
    }
  }
}

/** What else has dates, and which fields they are. */
const DATED: readonly (readonly [Kind, ...string[]])[] = [
  ['milestone', 'date'],
  ['section', 'partsBy'],
  ['order', 'expected'],
  ['loan', 'due', 'back'],
  ['placeholder', 'built', 'swapped'],
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
    ...listOf(scene, 'acceptance').map((entry) => ({
      op: 'patch' as const,
      kind: 'acceptance' as const,
      id: entry.id,
      v: entry.v,
      set: { at: entry.at === null ? null : addDays(parseISO(entry.at), days).toISOString() },
    })),
    ...DATED.flatMap(([kind, ...fields]) =>
      listOf(scene, kind).map((entity) => {
        const said: Readonly<Record<string, unknown>> = { ...entity };
        const set = Object.fromEntries(
          fields.map((field) => [field, moved(typeof said[field] === 'string' ? said[field] : null)]),
        );
        return { op: 'patch' as const, kind, id: entity.id, v: entity.v, set };
      }),
    ),
  ]);
  if (!reduction.ok) throw new Error(reduction.refusal.sentence);
  return reduction.scene;
}
