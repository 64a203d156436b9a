/** Digest of the core's code in this build: see vite.config.ts. */
declare const CORE_DIGEST: string;
