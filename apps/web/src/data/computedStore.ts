import { createStore } from 'idb-keyval';

/** Where what was computed is kept by display: one store, so that signing out forgets all of it. */
export const computedStore = createStore('open-quarry-counts', 'counts');
