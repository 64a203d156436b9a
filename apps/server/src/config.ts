/** What a server is started with. */
export interface Config {
  /** The database file. */
  database: string;
  migrations: string;
  /** The folder in which the packages with the fonts of printed sheets lie. */
  fonts: string;
  /** The program of the threads that make sheets. */
  worker: string;
  /** Folder of the built pages, or null to serve the interface only. */
  web: string | null;
  /** Demo mode: a crew that signs in by one click. Never on a real instance. */
  demo: boolean;
  /** Names under which the server is asked for, besides localhost and addresses in figures. */
  hosts: readonly string[];
  /** Stands behind one proxy that speaks TLS to the world. */
  behindProxy: boolean;
  /** Sign-in attempts a minute for one account and address. */
  signInLimit: number;
  logLevel: string;
}

export const CONFIG = Symbol('config');
export const STORE = Symbol('store');
