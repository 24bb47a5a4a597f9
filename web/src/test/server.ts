// A server for component tests: it answers what a test told it to, and remembers what it was asked.
import demo from './demo.json';
import folder from './folder.json';

import type { BoughtOffer, BoxAnswer, Shipment, Studio, StyleOffer } from '@/api/types';

/** What was asked: `PATCH /api/v1/shipments/7`, with its body. */
export interface Asked {
  what: string;
  body: unknown;
}

/** What is answered: a status of 200 unless it is told; `away` is no answer at all. */
type Answer = { status?: number; body?: unknown } | 'away';
type Answers = Answer | ((asked: Asked) => Answer);

const known = new Map<string, Answers>();
export const asked: Asked[] = [];

/** Tells what is answered to a question from now on. */
export function serve(what: string, answer: Answers): void {
  known.set(what, answer);
}

/** Forgets everything that was told and asked. */
export function clear(): void {
  known.clear();
  asked.length = 0;
}

/** How often something was asked. */
export const times = (what: string): number => asked.filter((one) => one.what === what).length;

/** The demo studio and one of its shipments, as the server tells them; each copy is its own. */
export const studio = (): Studio => structuredClone(demo.studio) as unknown as Studio;
export const shipment = (): Shipment => structuredClone(demo.shipment) as unknown as Shipment;

/** How the box of that shipment could be made, and a folder with the pictures of its folding. */
export const styles = (): StyleOffer[] => structuredClone(demo.styles) as unknown as StyleOffer[];
export const bought = (): BoughtOffer[] => structuredClone(demo.bought) as unknown as BoughtOffer[];
export const foldedFolder = (): BoxAnswer => structuredClone(folder) as unknown as BoxAnswer;

/** Stands in for the browser's own. */
export async function answered(input: RequestInfo | URL, init?: RequestInit): Promise<Response> {
  const request = input instanceof Request ? input : new Request(input, init);
  const text = await request.clone().text();
  const { pathname } = new URL(request.url);
  const one = {
    what: `${request.method} ${pathname}`,
    body: text ? (JSON.parse(text) as unknown) : undefined,
  };
  asked.push(one);
  const told = known.get(one.what);
  const answer = typeof told === 'function' ? told(one) : told;
  if (answer === 'away') throw new TypeError('Failed to fetch');
  const { status = 200, body } = answer ?? { status: 404, body: problem(404, 'there is nothing here') };
  const type = status < 400 ? 'application/json' : 'application/problem+json';
  return new Response(JSON.stringify(body ?? null), { status, headers: { 'content-type': type } });
}

/** A refusal as the server writes it. */
export function problem(status: number, detail: string, more: object = {}): object {
  return { type: '/problems/test', title: detail, status, detail, ...more };
}
