import { createStore } from 'idb-keyval';

/**
 * Where what was computed is kept by display: one store, so that signing out forgets all of it. A browser that refuses
 * storage throws when it is opened: only async functions use it, so that their callers catch that.
 */
export const computedStore = createStore('open-quarry-counts', 'counts');
