import { isIP } from 'node:net';
import type { NextFunction, Request, Response } from 'express';

/**
 * Refuses changes that another site's page asks for. The session cookie is SameSite=Strict already; this also
 * covers browsers and tools that send an Origin. Requests without either header come from no page at all.
 */
export function sameOrigin(request: Request, response: Response, next: NextFunction): void {
  if (request.method === 'GET' || request.method === 'HEAD') return next();
  const site = request.get('sec-fetch-site');
  const origin = request.get('origin');
  const foreign =
    (site !== undefined && site !== 'same-origin' && site !== 'none') ||
    (origin !== undefined && hostOf(origin) !== request.get('host'));
  if (!foreign) return next();
  response
    .status(403)
    .json({ code: 'forbidden', message: 'This request comes from another site; nothing was changed.' });
}

function hostOf(origin: string): string | null {
  return URL.canParse(origin) ? new URL(origin).host : null;
}

/**
 * Answers to the names this server goes by, to localhost and to addresses in figures: another site's page cannot have
 * its own name point here and then ask in that name.
 * @param names without port, in small letters
 */
export const knownHost =
  (names: readonly string[]) =>
  (request: Request, response: Response, next: NextFunction): void => {
    // Old programs name no host at all.
    const host = String(request.hostname)
      .toLowerCase()
      .replace(/^\[|\]$/g, '');
    if (host === 'localhost' || isIP(host) !== 0 || names.includes(host)) return next();
    response.status(421).json({
      code: 'other-host',
      message: `This server does not go by the name “${host.slice(0, 80)}”. Start it with --host-name ${host.slice(0, 80)} if it should.`,
    });
  };
