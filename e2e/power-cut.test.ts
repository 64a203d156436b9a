import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Database from 'libsql';
import { byExtent } from '../packages/core/test/runs.ts';
import { startServer } from './stage.ts';

const CUTS = byExtent({ check: 2, test: 2, all: 6, soak: 100 });
/** Files that suffer at the same time: starting a server is what takes long, and machines have more than one core. */
const FILES = 2;

interface Acknowledged {
  id: string;
  level: string;
}

/** Starts a server on a folder, lets eight writers write, and kills it in the middle: again and again. */
async function suffer(
  folder: string,
  cuts: number,
): Promise<{ display: string; acknowledged: Acknowledged[] }> {
  const acknowledged: Acknowledged[] = [];
  let display = '';
  for (let cut = 0; cut < cuts; cut++) {
    const server = await startServer({ demo: true, folder });
    const json = { 'content-type': 'application/json' };
    const signIn = await fetch(`${server.url}/api/demo/session`, {
      method: 'POST',
      headers: json,
      body: '{"login":"iva"}',
    });
    const headers = { ...json, cookie: signIn.headers.getSetCookie()[0].split(';')[0] };
    if (!display) {
      const made = await fetch(`${server.url}/api/displays`, {
        method: 'POST',
        headers,
        body: '{"name":"Cut","start":{"kind":"vignette","w":16,"d":16}}',
      });
      display = String(Object(await made.json()).id);
    }
    const write = async (writer: number) => {
      for (let i = 0; ; i++) {
        const level = `level-${cut}-${writer}-${i}`;
        const id = randomUUID();
        const body = JSON.stringify({
          id,
          label: 'test',
          changes: [{ op: 'add', kind: 'level', id: level, data: { name: level, height: i } }],
        });
        const answer = await fetch(`${server.url}/api/displays/${display}/batches`, {
          method: 'POST',
          headers,
          body,
        }).catch(() => null);
        if (!answer) return;
        if (answer.status === 200) acknowledged.push({ id, level });
      }
    };
    const writers = Array.from({ length: 8 }, (_, writer) => write(writer));
    // Somewhere in the middle, a different place each time; on a slow machine too, not before some have landed.
    const before = acknowledged.length;
    for (let waited = 0; acknowledged.length < before + LEAST && waited < 10_000; waited += 10)
      await new Promise((resolve) => setTimeout(resolve, 10));
    await new Promise((resolve) => setTimeout(resolve, 20 + ((cut * 37) % 90)));
    await server.stop('SIGKILL');
    await Promise.all(writers);
  }
  return { display, acknowledged };
}

/** A cut comes after so many batches of its round have been acknowledged. */
const LEAST = 4;

/** Every batch that was acknowledged must be in the log and in the rows, and the file must be whole. */
test(`after ${CUTS} power cuts every acknowledged batch is there`, async () => {
  const folders = Array.from({ length: FILES }, () => mkdtempSync(join(tmpdir(), 'quarry-cut-')));
  try {
    const results = await Promise.all(folders.map((folder) => suffer(folder, Math.ceil(CUTS / FILES))));
    for (const [i, { display, acknowledged }] of results.entries()) {
      const client = new Database(join(folders[i], 'quarry.sqlite'));
      const whole: unknown = client.prepare('PRAGMA integrity_check').get();
      expect(Object.values(Object(whole))[0]).toBe('ok');
      const column = (sql: string) =>
        new Set(
          client
            .prepare(sql)
            .all(display)
            .map((row) => String(Object(row).id)),
        );
      const log = column('SELECT batchId AS id FROM batches WHERE displayId = ?');
      const rows = column("SELECT id FROM entities WHERE displayId = ? AND kind = 'level'");
      client.close();
      expect(acknowledged.length).toBeGreaterThan(CUTS);
      expect(acknowledged.filter(({ id }) => !log.has(id))).toEqual([]);
      expect(acknowledged.filter(({ level }) => !rows.has(level))).toEqual([]);
    }
  } finally {
    for (const folder of folders) rmSync(folder, { recursive: true, force: true });
  }
}, 600_000);
