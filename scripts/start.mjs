/** `npm start`: a real, empty instance; the first start prints a one-time code for the first account. */
import { build, hand } from './prepare.mjs';

build('web', 'server');
hand('apps/server/dist/main.js', process.argv.slice(2));
