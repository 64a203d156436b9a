import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Database from 'libsql';
import { startServer } from './stage.ts';

const TIMES = Number(process.env.POWER_CUTS ?? 100);

/**
 * Kills the server with SIGKILL in the middle of a stream of writes, again and again on the same file.
 * Every batch it had acknowledged must be in the log and in the rows, and the file must be whole.
 */
test(`after ${TIMES} power cuts every acknowledged batch is there`, async () => {
  const folder = mkdtempSync(join(tmpdir(), 'quarry-cut-'));
  const acknowledged: { id: string; level: string }[] = [];
  let display = '';
  try {
    for (let cut = 0; cut < TIMES; cut++) {
      const server = await startServer({ demo: true, folder });
      const signIn = await fetch(`${server.url}/api/demo/session`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: '{"login":"iva"}',
      });
      const headers = {
        'content-type': 'application/json',
        cookie: signIn.headers.getSetCookie()[0].split(';')[0],
      };
      if (!display) {
        const made = await fetch(`${server.url}/api/displays`, {
          method: 'POST',
          headers,
          body: '{"name":"Cut","preset":"vignette16"}',
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
      // Somewhere in the middle, a different place each time.
      await new Promise((resolve) => setTimeout(resolve, 150 + ((cut * 37) % 120)));
      await server.stop('SIGKILL');
      await Promise.all(writers);
    }
    const client = new Database(join(folder, 'quarry.sqlite'));
    const whole: unknown = client.prepare('PRAGMA integrity_check').get();
    expect(Object.values(Object(whole))[0]).toBe('ok');
    const log = new Set(
      client
        .prepare('SELECT batchId AS id FROM batches WHERE displayId = ?')
        .all(display)
        .map((row) => String(Object(row).id)),
    );
    const rows = new Set(
      client
        .prepare("SELECT id FROM entities WHERE displayId = ? AND kind = 'level'")
        .all(display)
        .map((row) => String(Object(row).id)),
    );
    client.close();
    expect(acknowledged.length).toBeGreaterThan(TIMES * 5);
    expect(acknowledged.filter(({ id }) => !log.has(id))).toEqual([]);
    expect(acknowledged.filter(({ level }) => !rows.has(level))).toEqual([]);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}, 600_000);
