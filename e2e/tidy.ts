export { tidy as default } from './prepare.ts';
