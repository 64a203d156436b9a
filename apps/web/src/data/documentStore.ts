import { clear, createStore } from 'idb-keyval';

/** Displays as they were last seen, by display and user. */
export const documents = createStore('open-quarry-displays', 'documents');

/** Forgets every kept display: the next user of this browser sees only their own. Waiting batches stay. */
export const forgetDocuments = async (): Promise<void> => clear(documents);
