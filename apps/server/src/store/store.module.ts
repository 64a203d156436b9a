import { Global, Module, type DynamicModule } from '@nestjs/common';
import { CONFIG, STORE, type Config } from '../config.ts';
import type { Store } from './database.ts';

/** The configuration and the open database, for every module. */
@Global()
@Module({})
export class StoreModule {
  static with(config: Config, store: Store): DynamicModule {
    return {
      module: StoreModule,
      providers: [
        { provide: CONFIG, useValue: config },
        { provide: STORE, useValue: store },
      ],
      exports: [CONFIG, STORE],
    };
  }
}
