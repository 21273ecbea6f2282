// Every request to the server, by what it is for. Nothing else speaks to it but the client this is made of.
import { api, ApiProblem, take, type Schemas } from './client';
import { orKept } from './kept';
import { WriteKeys } from './keys';
import { carried } from './seat';
import { unitsHeader } from './units';

type Facts = Schemas['VehicleFacts'];
const job = (id: string) => ({ params: { path: { id } } });

/** All of a list that comes in pages by key, page after page. */
async function whole<T>(
  page: (after: string | null) => Promise<T[]>,
  key: (t: T) => string,
  limit: number,
): Promise<T[]> {
  const out: T[] = [];
  for (;;) {
    const last = out.at(-1);
    const next = await page(last ? key(last) : null);
    out.push(...next);
    if (next.length < limit) return out;
  }
}
const PAGE = 200;

// The door.
export const getSession = () => take(api.GET('/api/v1/session'));
export const signInPin = (body: Schemas['ByPin']) => take(api.POST('/api/v1/session/pin', { body }));
export const signInPassphrase = (body: Schemas['ByPassphrase']) =>
  take(api.POST('/api/v1/session/passphrase', { body }));
export const signOut = () => take(api.DELETE('/api/v1/session'));
export const pickMember = (member: string) => take(api.POST('/api/v1/session/pick', { body: { member } }));
export const claimShop = (body: Schemas['ClaimShop']) => take(api.POST('/api/v1/shop/claim', { body }));
export const signInSlip = (body: Schemas['UseSlip']) => take(api.POST('/api/v1/shop/slip', { body }));
export const enrolByCode = (body: Schemas['UseCode']) => take(api.POST('/api/v1/devices/enrol', { body }));
export const enrolHere = (name: string) => take(api.POST('/api/v1/devices/here', { body: { name } }));
export const makeCode = () => take(api.POST('/api/v1/devices/code'));
export const keepOwnUnits = (units: Record<string, unknown>) =>
  take(api.PUT('/api/v1/session/units', { body: { units: units as Record<string, never> } }));
export const setOwnPin = (body: Schemas['OwnPin']) => take(api.PUT('/api/v1/session/pin', { body }));

// People, as the owner sees them.
const named = (id: string) => ({ params: { path: { id } } });
export const getPeople = () => take(api.GET('/api/v1/people'));
export const addMember = (body: Schemas['NewMember']) => take(api.POST('/api/v1/people', { body }));
export const saveMember = (id: string, body: Schemas['SaveMember']) =>
  take(api.PUT('/api/v1/people/{id}', { ...named(id), body }));
export const setPin = (id: string, pin: string) =>
  take(api.PUT('/api/v1/people/{id}/pin', { ...named(id), body: { pin } }));
export const setPassphrase = (id: string, body: Schemas['NewPassphrase']) =>
  take(api.PUT('/api/v1/people/{id}/passphrase', { ...named(id), body }));
export const endSessions = (id: string) => take(api.POST('/api/v1/people/{id}/end-sessions', named(id)));
export const removeDevice = (id: string) => take(api.DELETE('/api/v1/devices/{id}', named(id)));
export const saveTrust = (body: Schemas['TrustSettings']) => take(api.PUT('/api/v1/shop/trust', { body }));
export const ticketsOfPlate = (plate: string) =>
  take(api.GET('/api/v1/customer', { params: { query: { plate } } }));
export const eraseCustomer = (plate: string) => take(api.POST('/api/v1/customer/erase', { body: { plate } }));
export const customerFile = (plate: string) => `/api/v1/customer.zip?plate=${encodeURIComponent(plate)}`;
export const erasePersonal = (id: string) => take(api.POST('/api/v1/jobs/{id}/erase-personal', named(id)));
export const getRecord = (query: { job?: string; member?: string; before?: number; limit?: number }) =>
  take(api.GET('/api/v1/record', { params: { query } }));
/** A code to hold a camera to, which opens a page of ours on another device. */
export const sheetCode = (path: string) => `/api/v1/sheet-code.svg?path=${encodeURIComponent(path)}`;

// The shop.
export const getShop = () => orKept('shop', () => take(api.GET('/api/v1/shop')));
export const saveShopSettings = (body: Schemas['SaveSettings']) =>
  take(api.PUT('/api/v1/shop/settings', { body }));
export interface AskedJobs {
  find?: string | null;
  after?: string | null;
  limit: number;
  closed?: boolean;
  archived?: boolean;
  kind?: Schemas['TicketKind'] | null;
  stage?: Schemas['Stage'] | null;
  sort?: 'newest' | 'oldest' | 'vehicle' | null;
}
export const listJobs = (query: AskedJobs) =>
  orKept(`jobs ${JSON.stringify(query)}`, () => take(api.GET('/api/v1/jobs', { params: { query } })));
export const putAway = (id: string, body: Schemas['PutAway']) =>
  take(api.POST('/api/v1/jobs/{id}/away', { ...job(id), body }));
export const sameCarAgain = (id: string) => take(api.POST('/api/v1/jobs/{id}/again', job(id)));
export const partsToOrder = (id: string) =>
  take(api.GET('/api/v1/plans/{id}/order', { params: { path: { id } } }));
export const jobStory = (id: string) => take(api.GET('/api/v1/jobs/{id}/story', job(id)));
export const listParts = () =>
  whole(
    (after) => take(api.GET('/api/v1/parts', { params: { query: { after, limit: PAGE } } })),
    (s) => s.part.id,
    PAGE,
  );
export const keepPart = (id: string, body: Schemas['SavePart']) =>
  take(api.PUT('/api/v1/parts/{id}', { params: { path: { id } }, body }));
export const madeParts = (body: Schemas['MadeFor']) => take(api.POST('/api/v1/parts/made', { body }));
export const lookAtPart = (body: Schemas['LookAtPart']) => take(api.POST('/api/v1/parts/look', { body }));
export const listAims = () =>
  whole(
    (after) => take(api.GET('/api/v1/aims', { params: { query: { after, limit: PAGE } } })),
    (s) => s.aim.id,
    PAGE,
  );
export const keepAim = (id: string, body: Schemas['SaveAim']) =>
  take(api.PUT('/api/v1/aims/{id}', { params: { path: { id } }, body }));
export const readAimWindow = (body: Schemas['SheetWindow']) => take(api.POST('/api/v1/aim-window', { body }));
export const removeAim = (id: string) => take(api.DELETE('/api/v1/aims/{id}', { params: { path: { id } } }));
export const getMethods = () => orKept('methods', () => take(api.GET('/api/v1/methods')));
export const getArchetypes = () => orKept('archetypes', () => take(api.GET('/api/v1/archetypes')));
export const fitArchetype = (id: string, body: Schemas['FitRequest']) =>
  take(api.POST('/api/v1/archetypes/{id}/fit', { params: { path: { id } }, body }));
export const lookAtMoving = (body: Schemas['MovingAsked']) => take(api.POST('/api/v1/moving', { body }));
export const keepShape = (id: string, body: Schemas['KeepShape']) =>
  take(api.POST('/api/v1/jobs/{id}/shapes', { ...job(id), body }));
export const removeShape = (id: string) =>
  take(api.DELETE('/api/v1/shapes/{id}', { params: { path: { id } } }));
export const getInspection = () => orKept('inspection', () => take(api.GET('/api/v1/inspection')));
export const turnable = (body: Schemas['TurnableRequest']) => take(api.POST('/api/v1/turnable', { body }));
export const getWearData = () => orKept('wear-data', () => take(api.GET('/api/v1/wear-data')));

// A ticket.
export const getTicket = (id: string) =>
  orKept(`ticket ${id}`, () => take(api.GET('/api/v1/jobs/{id}', job(id))));
export const newJob = (body: Schemas['NewArrival']) => take(api.POST('/api/v1/jobs', { body }));
export const saveVehicle = (id: string, version: number, facts: Facts) =>
  take(api.PUT('/api/v1/jobs/{id}/vehicle', { ...job(id), body: { version, facts } }));
export const saveTicket = (id: string, body: Schemas['SaveTicket']) =>
  take(api.PUT('/api/v1/jobs/{id}/ticket', { ...job(id), body }));
export const addNote = (id: string, body: Schemas['NewNote']) =>
  take(api.POST('/api/v1/jobs/{id}/notes', { ...job(id), body }));
export const strikeNote = (id: string, note: string) =>
  take(api.DELETE('/api/v1/jobs/{id}/notes/{note}', { params: { path: { id, note } } }));
/** Where a photo is fetched from. */
export const photoOf = (id: string, note: string) => `/api/v1/jobs/${id}/notes/${note}/photo.jpg`;
export const openVisit = (id: string, kind: Schemas['Visit']) =>
  take(api.POST('/api/v1/jobs/{id}/visits', { ...job(id), body: { kind } }));
export const saveVisit = (id: string, kind: Schemas['Visit'], body: Schemas['SaveAnswers']) =>
  take(api.PUT('/api/v1/jobs/{id}/visits/{kind}', { params: { path: { id, kind } }, body }));
export const putRight = (id: string, kind: Schemas['Visit']) =>
  take(api.POST('/api/v1/jobs/{id}/visits/{kind}/put-right', { params: { path: { id, kind } } }));
export const previewReading = (id: string, body: Schemas['TypedReading']) =>
  take(api.POST('/api/v1/jobs/{id}/readings/preview', { ...job(id), body }));
export const addReading = (id: string, body: Schemas['TypedReading']) =>
  take(api.POST('/api/v1/jobs/{id}/readings', { ...job(id), body }));
export const addForm = (id: string, body: Schemas['TypedReading'][]) =>
  take(api.POST('/api/v1/jobs/{id}/readings/form', { ...job(id), body }));
export const getTread = (id: string) => take(api.GET('/api/v1/jobs/{id}/tread', job(id)));
export const writeTread = (id: string, body: Schemas['NewLine']) =>
  take(api.POST('/api/v1/jobs/{id}/tread', { ...job(id), body }));
export const strikeTread = (id: string, line: string) =>
  take(api.POST('/api/v1/jobs/{id}/tread/strike', { ...job(id), body: { id: line } }));

// Its plans.
export const newPlan = (id: string, body: Schemas['NewPlan']) =>
  take(api.POST('/api/v1/jobs/{id}/plans', { ...job(id), body }));
export const savePlan = (id: string, body: Schemas['SavePlan']) =>
  take(api.PUT('/api/v1/plans/{id}', { ...job(id), body }));
export const copyPlan = (id: string) => take(api.POST('/api/v1/plans/{id}/copy', job(id)));
export const removePlan = (id: string) => take(api.DELETE('/api/v1/plans/{id}', job(id)));
export const choosePlan = (id: string, body: Schemas['ChoosePlan']) =>
  take(api.PUT('/api/v1/jobs/{id}/plan', { ...job(id), body }));
export const getSheet = (id: string) =>
  orKept(`sheet ${id}`, () => take(api.GET('/api/v1/plans/{id}/sheet', job(id))));
export const markStep = (id: string, body: Schemas['MarkStep']) =>
  take(api.PUT('/api/v1/plans/{id}/done', { ...job(id), body }));
export const doAfter = (id: string, body: Schemas['DoAfter']) =>
  take(api.POST('/api/v1/jobs/{id}/aftercare', { ...job(id), body }));
export const getLenders = () => take(api.GET('/api/v1/shop/lenders'));
export const putOut = (origin: string) =>
  take(api.DELETE('/api/v1/shop/lenders/{origin}', { params: { path: { origin } } }));
export const getMemory = () => take(api.GET('/api/v1/shop/memory'));
export const getHandover = (id: string) => take(api.GET('/api/v1/plans/{id}/handover', job(id)));
export const turnedAgain = (id: string, body: Schemas['TurnedAgain']) =>
  take(api.POST('/api/v1/plans/{id}/turned', { ...job(id), body }));

// Worked out, kept nowhere.
/** Whose weaves and outlines come along. */
export type Pictures = 'none' | 'front' | 'rear' | 'both';
export const predict = (body: Schemas['CarInput'], pictures: Pictures) =>
  take(api.POST('/api/v1/predict', { params: { query: { pictures } }, body }));
export const askJig = (body: Schemas['JigAsked']) => take(api.POST('/api/v1/jig', { body }));
export const forecastWear = (body: Schemas['CarWearRequest']) => take(api.POST('/api/v1/wear', { body }));
export const contactPatches = (body: Schemas['PatchRequest']) =>
  take(api.POST('/api/v1/contact-patches', { body }));
export const diagnose = (body: Schemas['DiagnoseRequest']) => take(api.POST('/api/v1/diagnose', { body }));
export const heightTarget = (body: Schemas['HeightTarget']) =>
  take(api.POST('/api/v1/height-target', { body }));
export const onJack = (id: string, body: Schemas['JackedWheel']) =>
  take(api.POST('/api/v1/plans/{id}/jacked', { params: { path: { id } }, body }));
export const getLadders = (body: Schemas['LadderAsked']) => take(api.POST('/api/v1/ladders', { body }));
export const lookAtGeometry = (body: Schemas['Geometry']) => take(api.POST('/api/v1/geometry', { body }));
export const drawCar = (body: Schemas['CarDrawingRequest']) =>
  take(api.POST('/api/v1/car-drawing', { body }));
export const cornerFile = (body: Schemas['CornerFileAsked']) =>
  take(api.POST('/api/v1/corner-file', { body }));

// The gauge.
export const getGauge = () => take(api.GET('/api/v1/gauge'));
export const tellGauge = (body: Schemas['TellGauge']) => take(api.POST('/api/v1/gauge/tell', { body }));
/** Angles as they come, until what is given back is called. */
export function listenToGauge<T>(angle: (a: T) => void, lost: () => void): () => void {
  const source = new EventSource('/api/v1/gauge/stream');
  source.onmessage = (e) => angle(JSON.parse(e.data as string) as T);
  source.onerror = lost;
  return () => source.close();
}

/** A problem document as it came, where nothing types it. */
async function refused(r: Response): Promise<ApiProblem> {
  const doc = (await r.json().catch(() => ({}))) as Partial<Schemas['ProblemDocument']>;
  return new ApiProblem(r.status, doc.title ?? 'Refused', doc.detail ?? r.statusText, doc.problems ?? []);
}

const files = new WriteKeys();

/** Sends a table as a file has it: CSV, or JSON by the file's name. */
export async function sendTable<T>(path: string, f: File): Promise<T> {
  const kind = f.name.endsWith('.json') ? 'application/json' : 'text/csv';
  // A file whose answer was lost is sent again with the key it had.
  const write = `POST ${path} ${f.name} ${f.size} ${f.lastModified}`;
  const r = await fetch(path, {
    method: 'POST',
    headers: {
      'content-type': kind,
      'Idempotency-Key': files.of(write),
      ...unitsHeader(),
      ...(await carried()),
    },
    body: await f.arrayBuffer(),
  });
  if (r.status < 500) files.answered(write);
  if (!r.ok) throw await refused(r);
  return (await r.json()) as T;
}

/** A search that says how far it is, line by line, then gives what it found. Ends on the server when `signal` does. */
async function streamed<Result>(
  path: string,
  body: unknown,
  progress: (p: Schemas['Progress']) => void,
  signal: AbortSignal,
): Promise<Result> {
  const cut = () => new ApiProblem(0, 'No answer', 'The server does not answer. Search again.', []);
  const r = await fetch(path, {
    method: 'POST',
    headers: { 'content-type': 'application/json', ...unitsHeader(), ...(await carried()) },
    body: JSON.stringify(body),
    signal,
  }).catch(() => {
    throw cut();
  });
  if (!r.ok || !r.body) throw await refused(r);
  const reader = r.body.pipeThrough(new TextDecoderStream()).getReader();
  let rest = '';
  for (;;) {
    const { value, done } = await reader.read().catch(() => {
      throw cut();
    });
    // The last line is the result or what was wrong; a stream that ends before it was cut.
    if (done) throw cut();
    rest += value;
    const lines = rest.split('\n');
    rest = lines.pop() ?? '';
    for (const text of lines) {
      const line = JSON.parse(text) as {
        progress?: Schemas['Progress'];
        result?: Result;
        problems?: Schemas['Problem'][];
      };
      if (line.progress) progress(line.progress);
      if (line.result) return line.result;
      if (line.problems)
        throw new ApiProblem(
          422,
          'Something needs another look',
          line.problems[0]?.wrong ?? '',
          line.problems,
        );
    }
  }
}

type Told = (p: Schemas['Progress']) => void;
/** Sets of parts for an axle. */
export const searchPlans = (body: Schemas['SearchRequest'], told: Told, signal: AbortSignal) =>
  streamed<Schemas['SearchResult']>('/api/v1/plans/search', body, told, signal);
/** Heights and sets of parts for both axles together. */
export const searchCar = (body: Schemas['CarSearchRequest'], told: Told, signal: AbortSignal) =>
  streamed<Schemas['CarFound']>('/api/v1/plans/search-car', body, told, signal);
