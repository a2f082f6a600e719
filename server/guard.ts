// guard.ts — the one place that decides whose requests are answered. The server has no accounts: whoever reaches it may change
// everything, so no page of another origin in the same browser may speak for the artist, nor under another name (DNS rebinding).
import type { RequestHandler } from 'express';
import { Refused } from './errors.ts';

/** Names a browser on this machine has for it. */
const LOOPBACK = ['localhost', '127.0.0.1', '[::1]'];

/** What `Sec-Fetch-Site` says of requests from our own pages, and of addresses that were typed. */
const OWN_SITES = ['same-origin', 'none'];

/** @param hosts names besides the machine's own under which the application may be reached, without ports */
export function knownHosts(hosts: readonly string[]): RequestHandler {
  const names = new Set([...LOOPBACK, ...hosts]);
  return (request, _response, next) => {
    const { host } = request.headers;
    if (!names.has(nameOf(host))) {
      throw new Refused(`This server does not answer to the name “${nameOf(host)}”; HOSTS says which names it has.`);
    }
    next();
  };
}

/** Refuses what a page of another origin asks for, whatever the method. Programs, which send neither header, may ask. */
export const ownOrigin: RequestHandler = (request, _response, next) => {
  const { origin, host } = request.headers;
  const site = request.headers['sec-fetch-site'];
  const isForeign = origin !== undefined && hostOf(origin) !== host;
  if (isForeign || (site !== undefined && !OWN_SITES.includes(String(site)))) {
    throw new Refused('Requests of other pages are not answered; open the application itself.');
  }
  next();
};

const nameOf = (host = ''): string => host.replace(/:\d+$/, '').toLowerCase();

/** Host and port of an origin; null for `null` and what is none. */
function hostOf(origin: string): string | null {
  return URL.canParse(origin) ? new URL(origin).host : null;
}
