/** Builds the named apps whose sources have changed: `node scripts/build.mjs web server cli`. */
import { build } from './prepare.mjs';

build(...process.argv.slice(2));
