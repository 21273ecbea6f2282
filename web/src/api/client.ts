// The generated client, and errors as the server's problem documents.
import createClient, { type Middleware } from 'openapi-fetch';
import { heard } from './away';
import { reads, WriteKeys } from './keys';
import type { components, paths } from './schema';
import { carried, OTHER_SEAT, unseated } from './seat';
import { unitsHeader } from './units';

export type Schemas = components['schemas'];
export type Ticket = Schemas['Ticket'];
export type JobLine = Schemas['JobLine'];
export type CarFacts = Schemas['CarFacts'];
/** The server always sends the facts of the whole car. */
export type VehicleFacts = Schemas['VehicleFacts'] & { car: CarFacts };
export type Geometry = Schemas['Geometry'];
export type GeometryLook = Schemas['GeometryLook'];
export type CarInput = Schemas['CarInput'];
export type CarAnswer = Schemas['CarAnswer'];
export type CarPlan = Schemas['CarPlan'];
export type AxlePlan = Schemas['AxlePlan'];
export type PlanResult = Schemas['PlanResult'];
export type Plan = Schemas['Plan'];
export type SidePlan = Schemas['SidePlan'];
export type Candidate = Schemas['Candidate'];
export type Drawing = Schemas['Drawing'];
export type Aim = Schemas['Aim'];
export type CarWear = Schemas['CarWear'];
export type SceneWear = Schemas['SceneWear'];
export type Sheet = Schemas['Sheet'];
export type Reading = Schemas['Reading'];
export type TypedReading = Schemas['TypedReading'];
export type Problem = Schemas['Problem'];
export type SideName = 'left' | 'right';
export type AxleName = 'front' | 'rear';

/** A problem document as an exception; status 0 when the server did not answer. */
export class ApiProblem extends Error {
  constructor(
    public readonly status: number,
    public readonly title: string,
    detail: string,
    public readonly problems: Problem[],
    private readonly kind = '',
  ) {
    super(detail);
  }
  /** Nothing was wrong with what was sent: the server, its database or who sits there is not ready for it, and it can go again. */
  get canGoAgain(): boolean {
    const { status } = this;
    return status === 0 || status >= 500 || status === 401 || status === 429 || this.kind === OTHER_SEAT;
  }
  /** The fault at a field, whatever stands before it in the path. */
  at(field: string): Problem | undefined {
    return this.problems.find((p) => p.field === field || p.field.endsWith(`.${field}`));
  }
}

export const api = createClient<paths>({ baseUrl: '' });

// Every write carries a key. Without an answer the same write sent again carries the same one; an answer that says the
// server does not know leaves it too.
const keys = new WriteKeys();
const written = new WeakMap<Request, string>();
const once: Middleware = {
  async onRequest({ request }) {
    if (reads(request.method)) return undefined;
    const body = await request.clone().text();
    const write = `${request.method} ${request.url} ${body}`;
    const out = new Request(request);
    out.headers.set('Idempotency-Key', keys.of(write));
    written.set(out, write);
    return out;
  },
  onResponse({ request, response }) {
    const write = written.get(request);
    if (write && response.status < 500) keys.answered(write);
    return undefined;
  },
};
const units: Middleware = {
  onRequest({ request }) {
    for (const [k, v] of Object.entries(unitsHeader())) request.headers.set(k, v);
    return request;
  },
};
const seat: Middleware = {
  async onRequest({ request }) {
    if (reads(request.method)) return undefined;
    for (const [k, v] of Object.entries(await carried())) request.headers.set(k, v);
    return request;
  },
};
api.use(units);
api.use(seat);
api.use(once);

type Answer<T> = { data?: T; error?: unknown; response: Response };

/** The data of an answer, or an ApiProblem thrown. */
export async function take<T>(call: Promise<Answer<T>>): Promise<T> {
  let answer: Answer<T>;
  try {
    answer = await call;
  } catch {
    heard(false);
    throw new ApiProblem(0, 'No answer', 'The server does not answer. What you typed is still here.', []);
  }
  heard(true);
  if (answer.response.ok) return answer.data as T;
  const doc = (answer.error ?? {}) as Partial<Schemas['ProblemDocument']>;
  if (answer.response.status === 401 || doc.type === OTHER_SEAT) unseated();
  throw new ApiProblem(
    answer.response.status,
    doc.title ?? 'Refused',
    doc.detail ?? answer.response.statusText,
    doc.problems ?? [],
    doc.type,
  );
}
