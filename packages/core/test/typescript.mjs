// What tests of the core import is TypeScript: they run in plain Node, which reads it by this.
import { register } from 'tsx/esm/api';

register();
