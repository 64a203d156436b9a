// What Vite says of a file by `import.meta`, said in the modules of Jest: where it lies, and that it is no build.
import { createTransformer as createSwc } from '@swc/jest';

const inJest = (source) =>
  source
    .replaceAll('import.meta.url', "require('node:url').pathToFileURL(__filename)")
    .replaceAll('import.meta.env.PROD', 'false');

const createTransformer = (options) => {
  const swc = createSwc(options);
  return {
    canInstrument: swc.canInstrument,
    process: (source, ...more) => swc.process(inJest(source), ...more),
    getCacheKey: (source, ...more) => swc.getCacheKey(inJest(source), ...more),
  };
};
export default { createTransformer };
