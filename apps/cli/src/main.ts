import { quarry } from './quarry.ts';

void quarry(process.argv.slice(2)).then((code) => (process.exitCode = code));
