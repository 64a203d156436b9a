import 'reflect-metadata';
import { Controller, Get, Module } from '@nestjs/common';
import { APP_GUARD, ModulesContainer, NestFactory } from '@nestjs/core';
import { PATH_METADATA } from '@nestjs/common/constants';
import { AccountsService } from '../src/accounts/accounts.service.ts';
import { DisplaysService } from '../src/displays/displays.service.ts';
import { ACCESS, AccessGuard, OnDisplay } from '../src/http/access.ts';
import { Harness } from './harness.ts';

// Access is declared by every route, and what declares nothing is closed.

const harness = new Harness();
afterAll(() => harness.end());

test('every route declares who may use it; those for anyone are the ones that must be', async () => {
  await harness.start();
  const app = harness.running?.app;
  if (!app) throw new Error('the server is not up');
  const declared = new Map<string, unknown>();
  for (const { controllers } of app.get(ModulesContainer).values())
    for (const { metatype, instance } of controllers.values()) {
      if (!metatype || !instance) continue;
      const prototype: object = Object.getPrototypeOf(instance);
      for (const [name, { value }] of Object.entries(Object.getOwnPropertyDescriptors(prototype))) {
        if (
          name === 'constructor' ||
          typeof value !== 'function' ||
          !Reflect.hasMetadata(PATH_METADATA, value)
        )
          continue;
        const access: unknown = Reflect.getMetadata(ACCESS, value) ?? Reflect.getMetadata(ACCESS, metatype);
        declared.set(`${metatype.name}.${name}`, access);
      }
    }
  expect(declared.size).toBeGreaterThan(50);
  expect([...declared].filter(([, access]) => access === undefined)).toEqual([]);
  const forAnyone = [...declared].flatMap(([route, access]) =>
    JSON.stringify(access) === JSON.stringify({ to: 'anyone' }) ? [route] : [],
  );
  expect(forAnyone.sort()).toEqual([
    'AccountsController.reset',
    'AccountsController.setUp',
    'AccountsController.signIn',
    'AccountsController.signOut',
    'AccountsController.welcome',
    'DemoController.crew',
    'DemoController.signIn',
    'HealthController.health',
    'JoinController.ask',
    'JoinController.join',
    'JoinController.look',
    'PublicController.page',
    'PublicController.photo',
  ]);
});

test('a route that declares nothing is closed, also to an owner; a display needs a member of the rank', async () => {
  @Controller()
  class Forgotten {
    @Get('forgotten')
    forgotten(): string {
      return 'secret';
    }
    @Get('displays/:id')
    @OnDisplay('planner', 'look here')
    display(): string {
      return 'plan';
    }
  }
  const user = { id: 'u', login: 'u', name: 'U' };
  let role = 'owner';
  @Module({
    controllers: [Forgotten],
    providers: [
      { provide: APP_GUARD, useClass: AccessGuard },
      { provide: AccountsService, useValue: { userOf: () => user } },
      { provide: DisplaysService, useValue: { actor: () => ({ role, person: null }) } },
    ],
  })
  class Small {}
  const app = await NestFactory.create(Small, { logger: false });
  try {
    await app.listen(0, '127.0.0.1');
    const get = (path: string, cookie = 'quarry_session=x') =>
      app.getUrl().then((url) => fetch(url + path, { headers: { cookie } }));
    expect((await get('/forgotten')).status).toBe(403);
    const seen = await get('/displays/d');
    expect([seen.status, await seen.text()]).toEqual([200, 'plan']);
    expect((await get('/displays/d', '')).status).toBe(401);
    role = 'builder';
    const refused = await get('/displays/d');
    expect([refused.status, await refused.text()]).toEqual([
      403,
      expect.stringContaining('Only owners and planners may look here.'),
    ]);
  } finally {
    await app.close();
  }
});
