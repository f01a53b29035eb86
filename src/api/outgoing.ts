import { lookup } from 'node:dns';
import { request as httpRequest, type IncomingHttpHeaders } from 'node:http';
import { request as httpsRequest } from 'node:https';
import { BlockList, isIP, type LookupFunction } from 'node:net';

/** A host that the owner named. Null approves the usual port of https only. */
export interface NamedHost {
  host: string;
  port: number | null;
}

export interface Outgoing {
  method: string;
  url: string;
  headers: Readonly<Record<string, string>>;
  body?: string | undefined;
  /** In milliseconds, for the whole answer. */
  timeout: number;
  maxBytes: number;
  /** Private, loopback and link-local addresses are asked only where they are among these, with their port. */
  named: readonly NamedHost[];
}

export interface Answered {
  status: number;
  headers: IncomingHttpHeaders;
  bytes: Uint8Array;
  /** The answer as UTF-8. */
  text: string;
}

/** An answer of more bytes than are taken. */
export class TooLargeError extends Error {
  constructor(maxBytes: number) {
    super(`the response is larger than ${maxBytes} bytes`);
    this.name = 'TooLargeError';
  }
}

/** An address inside a network that is not the internet's, and that the owner did not name. */
export class PrivateAddressError extends Error {
  constructor(host: string, address: string) {
    super(
      host === address
        ? `${host} is a private address`
        : `${host} resolves to the private address ${address}`,
    );
    this.name = 'PrivateAddressError';
  }
}

/** Addresses that are not for the internet (IANA special-purpose address registries, RFC 6890). */
const inside = new BlockList();
for (const [net, bits] of [
  ['0.0.0.0', 8],
  ['10.0.0.0', 8],
  ['100.64.0.0', 10],
  ['127.0.0.0', 8],
  ['169.254.0.0', 16],
  ['172.16.0.0', 12],
  ['192.0.0.0', 24],
  ['192.168.0.0', 16],
  ['198.18.0.0', 15],
  ['224.0.0.0', 3],
] as const)
  inside.addSubnet(net, bits, 'ipv4');
for (const [net, bits] of [
  ['::', 96],
  ['64:ff9b::', 96],
  ['2002::', 16],
  ['fc00::', 7],
  ['fe80::', 10],
  ['ff00::', 8],
] as const)
  inside.addSubnet(net, bits, 'ipv6');

/** Whether an address is private, loopback, link-local or otherwise not for the internet. */
export function isPrivateAddress(address: string): boolean {
  const mapped = /^::ffff:(?:(\d+\.\d+\.\d+\.\d+)|([0-9a-f]{1,4}):([0-9a-f]{1,4}))$/i.exec(address);
  if (mapped?.[1]) return isPrivateAddress(mapped[1]);
  if (mapped) {
    const [high, low] = [parseInt(mapped[2] ?? '0', 16), parseInt(mapped[3] ?? '0', 16)];
    return isPrivateAddress([high >> 8, high & 255, low >> 8, low & 255].join('.'));
  }
  const family = isIP(address);
  return family === 0 || inside.check(address, family === 6 ? 'ipv6' : 'ipv4');
}

/** Whether the owner named the host of an address: with this very port, or without one and it is the usual one of https. */
export function isNamed(url: URL, named: readonly NamedHost[]): boolean {
  return named.some(
    ({ host, port }) =>
      host === url.hostname.toLowerCase() &&
      (port === null ? url.protocol === 'https:' && url.port === '' : port === portOf(url)),
  );
}

/** The port of an address, the usual one of its scheme when it names none. */
export function portOf(url: URL): number {
  return url.port === '' ? (url.protocol === 'https:' ? 443 : 80) : Number(url.port);
}

/**
 * Asks another machine. Redirects are not followed. The address is looked at when the connection is made, so a name
 * that leads elsewhere meanwhile gains nothing.
 * @throws PrivateAddressError, TooLargeError, or the errors of the connection; an abort error when it is too late
 */
export function ask({ method, url, headers, body, timeout, maxBytes, named }: Outgoing): Promise<Answered> {
  const target = new URL(url);
  const host = target.hostname.replace(/^\[|\]$/g, '');
  const mayBePrivate = named.some((one) => one.host === target.hostname && one.port === portOf(target));
  return new Promise((resolve, reject) => {
    if (target.protocol !== 'http:' && target.protocol !== 'https:')
      return reject(new Error(`${target.protocol} is not a web scheme`));
    if (isIP(host) !== 0 && !mayBePrivate && isPrivateAddress(host))
      return reject(new PrivateAddressError(host, host));
    const send = target.protocol === 'https:' ? httpsRequest : httpRequest;
    const call = send(
      target,
      {
        method,
        headers: { ...headers, ...(body === undefined ? {} : { 'Content-Length': Buffer.byteLength(body) }) },
        lookup: mayBePrivate ? undefined : publicOnly,
        signal: AbortSignal.timeout(timeout),
      },
      (response) => {
        const chunks: Buffer[] = [];
        let size = 0;
        response.on('data', (chunk: Buffer) => {
          chunks.push(chunk);
          size += chunk.length;
          if (size > maxBytes) call.destroy(new TooLargeError(maxBytes));
        });
        response.on('end', () => {
          const bytes = Buffer.concat(chunks);
          const { statusCode: status = 0, headers: answered } = response;
          resolve({ status, headers: answered, bytes, text: bytes.toString('utf8') });
        });
        response.on('error', reject);
      },
    );
    call.on('error', reject);
    call.end(body);
  });
}

/** Looks a name up, and refuses addresses that are not for the internet. */
const publicOnly: LookupFunction = (hostname, options, callback) => {
  lookup(hostname, { ...options, all: true }, (error, addresses) => {
    if (error) return callback(error, []);
    const refused = addresses.find(({ address }) => isPrivateAddress(address));
    if (refused) return callback(new PrivateAddressError(hostname, refused.address), []);
    const [first] = addresses;
    if (options.all || !first) callback(null, addresses);
    else callback(null, first.address, first.family);
  });
};
