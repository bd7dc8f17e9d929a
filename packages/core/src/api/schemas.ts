import { array, boolean, mixed, number, object, type Schema, string, type InferType } from 'yup';
import type { Change } from '../change/change.ts';
import type { Library } from '../model/app.ts';
import type { DifferenceKind } from '../compare/causes.ts';
import type { HeardWeight } from '../compare/heard.ts';
import type { FaultKind } from '../compare/width_faults.ts';
import type { DeliveryAsk, Fate } from '../delivery/plan.ts';
import type { HistoryEntry } from '../change/history.ts';
import { type Answers, answersSchema } from '../iterate/answers.ts';
import { type App, appSchema } from '../model/app.ts';
import { type Design, designSchema } from '../model/design.ts';
import { ICON_LIBRARIES, type IconLibrary, MOST_ICONS } from '../intake/html/outside_packages.ts';
import type { UtilityPlan } from '../intake/html/utilities.ts';

/**
 * What crosses HTTP, described once: the types of both ends, the checks of requests and answers, and the OpenAPI document
 * come from here. Documents and changes have declarations of their own (`model`), which are checked where they come in.
 */

/** A document that is described by name elsewhere. */
const document = <T extends object>(name: 'App' | 'Design' | 'Change'): Schema<T> =>
  mixed<T>((value): value is T => typeof value === 'object' && value !== null)
    .required()
    .meta({ ref: name }) as unknown as Schema<T>;

export const namedDocuments = { App: appSchema, Design: designSchema, Answers: answersSchema };

export const projectId = string()
  .matches(/^[a-z0-9]{1,40}$/, 'A project is named by small letters and digits.')
  .required();
export const assetHash = string()
  .matches(/^[0-9a-f]{64}$/, 'A file is named by its SHA-256 in hex.')
  .required();
export const seq = number().integer().min(0).max(4_000_000_000);
const time = string().max(40).meta({ format: 'date-time' });

export const projectName = string()
  .matches(/\S/, 'A project needs a name.')
  .max(120, 'A name has at most 120 characters.')
  .required('A project needs a name.');

export const newProject = object({ name: projectName }).noUnknown();

export const made = object({ id: projectId }).noUnknown();

/** Who makes a step: a device and a window of it. */
export const author = string().matches(
  /^[\w-]{1,40}\.[\w-]{1,40}$/,
  'An author is a device and a window, as “d1.w1”.',
);
/** What every step says of itself. */
const stepFields = {
  /** The place in the history that the step was made on. */
  base: seq.required(),
  /** The author's name for the step: said twice, it is done once. */
  id: string().matches(/^[\w-]{8,40}$/, 'A step is named by 8 to 40 letters, digits and -.'),
  author,
  /** The place in the history when the author's window was opened. */
  since: seq,
};

export const newChange = object({
  ...stepFields,
  label: string().min(1).max(300).required(),
  change: mixed().required().meta({ ref: 'Change' }),
}).noUnknown();
export type NewChange = Omit<InferType<typeof newChange>, 'change'> & { readonly change: Change };

/** A script of a running app: all of it as it was built at a time, or what became of that. */
export const scriptName = string().matches(/^[0-9a-f]{1,16}(-[0-9a-f]{1,16})?$/);

/** A line of the code, with the element that is written there; nothing where nothing is known of it. */
export const placeInCode = object({
  place: object({
    path: string().required(),
    /** From 1. */
    line: seq.required(),
    element: string().nullable().defined(),
  })
    .noUnknown()
    .nullable()
    .defined(),
}).noUnknown();
export type PlaceInCode = Readonly<InferType<typeof placeInCode>>['place'];

/** Undo and redo: of the step that is named, or of one's own last one. */
export const historyStep = object({ ...stepFields, of: seq }).noUnknown();

/** What was read of a batch. */
const readFields = {
  screens: array(mixed().required()).max(5000).required(),
  assets: array(mixed().required()).max(20_000).required(),
  notices: array(mixed().required()).max(100_000).required(),
  fonts: array(mixed().required()).max(2000),
  brief: string().max(200_000),
  /** Whether these are all screens there are: what is not among them is gone. */
  whole: boolean().default(false),
};
export const newIntake = object({ ...stepFields, ...readFields }).noUnknown();

/** What was fetched for a source, until it is taken in. */
export const ticket = string().uuid();

/** A next round of screens, that waits until somebody takes it in. */
export const newRound = object({ ...readFields, ticket }).noUnknown();
export const waitingRound = object({
  round: object({ screens: seq.required(), whole: boolean().required(), madeAt: time.required() })
    .noUnknown()
    .nullable()
    .default(null),
}).noUnknown();
export type WaitingRound = Readonly<InferType<typeof waitingRound>>['round'];
export const roundRead = object({
  whole: boolean().required(),
  read: document<Design>('Design'),
}).noUnknown();
export const takenRound = object({
  ...stepFields,
  whole: boolean().required(),
  /** What somebody said of what was asked, by element. */
  answers: mixed<Answers>((value): value is Answers => typeof value === 'object' && value !== null)
    .required()
    .meta({ ref: 'Answers' }),
}).noUnknown();

export const projectSummary = object({
  id: projectId,
  name: string().defined(),
  screens: seq.required(),
  live: seq.required(),
  elements: seq.required(),
  /** ISO 8601, UTC. */
  changedAt: time.required(),
  deletedAt: time.nullable().defined(),
}).noUnknown();
export type ProjectSummary = Readonly<InferType<typeof projectSummary>>;

const role = string<'do' | 'undo' | 'redo'>().oneOf(['do', 'undo', 'redo']).required();
const head = {
  seq: seq.required(),
  role,
  of: seq,
  label: string().defined(),
  author: string(),
};
const entryHead = object(head).noUnknown();
export const historyEntry = object({
  ...head,
  change: document<Change>('Change'),
  id: string(),
})
  .noUnknown()
  .required() as unknown as Schema<HistoryEntry>;
const historyState = object({
  seq: seq.required(),
  undo: entryHead.nullable().default(null),
  redo: entryHead.nullable().default(null),
}).noUnknown();

/** A project as the interface works on it: one moment of it. */
export const projectState = object({
  id: projectId,
  name: string().defined(),
  design: document<Design>('Design'),
  app: document<App>('App'),
  history: historyState.required(),
  changedAt: time.required(),
  /** Rises with every intake; the design is the same while it is. */
  revision: seq.required(),
}).noUnknown();
export type ProjectState = Readonly<InferType<typeof projectState>>;

/** What a step led to. */
export const changeResult = object({
  entry: historyEntry,
  /** What others did between the step's base and the step, oldest first. */
  missed: array(historyEntry).required(),
  history: historyState.required(),
  changedAt: time.required(),
  /** The revision of the design that the step left. */
  revision: seq.required(),
}).noUnknown();
export type ChangeResult = Readonly<InferType<typeof changeResult>>;

/** A step as a timeline lists it. */
export const timelineStep = object({
  ...head,
  /** ISO 8601, UTC. */
  madeAt: time.required(),
  /** Whether it counts, is taken back, or can no longer be made again; of an undo or redo, not said. */
  standing: string<'done' | 'undone' | 'dropped'>().oneOf(['done', 'undone', 'dropped']).nullable().defined(),
  /** Keys of the screens that it has to do with. */
  screens: array(string().defined()).required(),
  /** Whether it moved the design. */
  isIteration: boolean().required(),
}).noUnknown();
export type TimelineStep = Readonly<InferType<typeof timelineStep>>;
export const timeline = object({
  steps: array(timelineStep.required()).required(),
  /** The place to ask for steps before; null where these are the first. */
  before: seq.nullable().defined(),
}).noUnknown();
export type Timeline = Readonly<InferType<typeof timeline>>;

const versionName = string()
  .matches(/\S/, 'A version needs a name.')
  .max(120, 'A name has at most 120 characters.')
  .required('A version needs a name.');
export const newVersion = object({ name: versionName, seq: seq.required() }).noUnknown();
export const renamedVersion = object({ name: versionName }).noUnknown();
/** A place in the history that somebody gave a name to. */
export const version = object({
  id: seq.required(),
  name: string().defined(),
  seq: seq.required(),
  madeAt: time.required(),
}).noUnknown();
export type Version = Readonly<InferType<typeof version>>;

/** When code was handed over, and of which place of the history. */
export const codeDelivery = object({
  id: seq.required(),
  seq: seq.required(),
  /** What the project was called then. */
  name: string().defined(),
  kind: string().oneOf(['zip', 'push']).required(),
  madeAt: time.required(),
}).noUnknown();
export type CodeDelivery = Readonly<InferType<typeof codeDelivery>>;
export const newReturn = object({
  ...stepFields,
  to: seq.required(),
  label: string().min(1).max(300).required(),
}).noUnknown();

/** A place on the web that screens come from, and that can be asked for them again. */
export const designSource = object({
  id: seq.required(),
  address: string().defined(),
  /** ISO 8601, UTC. */
  fetchedAt: time.required(),
}).noUnknown();
export type DesignSource = Readonly<InferType<typeof designSource>>;

export const newSource = object({
  address: string()
    .trim()
    .max(2000, 'An address has at most 2000 characters.')
    .matches(/^https?:\/\/[^\s/]/i, 'An address starts with http:// or https://.')
    .required('Which address? It starts with http:// or https://.'),
}).noUnknown();

export const fetchedText = object({ text: string().defined() }).noUnknown();
export type FetchedText = Readonly<InferType<typeof fetchedText>>;

const text = string().max(2000);
export const fontRequest = object({
  family: string().max(80).required(),
  weights: array(number().integer().min(1).max(1000).required()).max(20).required(),
  hasItalic: boolean().required(),
  isIcons: boolean().required(),
}).noUnknown();
export const fontFace = object({
  weight: string().defined(),
  style: string().defined(),
  unicodeRange: string(),
  type: string().defined(),
  file: string().defined(),
  /** The file, in base 64. */
  data: string().defined(),
}).noUnknown();

/** A file of a package, as a host names it that serves packages. */
export const packageFile = object({
  name: string().max(100).required(),
  version: string().max(40).required(),
  file: string().max(500).required(),
}).noUnknown();
export const shippedSheet = object({
  version: string().defined(),
  sheet: string().defined(),
  text: string().defined(),
  /** What the sheet refers to, in base 64. */
  files: array(
    object({ path: string().defined(), data: string().defined() }).noUnknown().required(),
  ).required(),
}).noUnknown();
export const iconRequest = object({
  library: string<IconLibrary>().oneOf(ICON_LIBRARIES).required(),
  names: array(string().max(100).required()).max(MOST_ICONS).required(),
}).noUnknown();

/** Most utility classes of one page: a page of 20,000 elements has a few thousand different ones at most. */
export const MOST_CLASSES = 5000;
export const utilityRequest = object({
  config: mixed().nullable(),
  css: string().max(500_000).defined(),
  isLegacy: boolean().required(),
  plugins: array(string().max(40).defined()).max(20),
  classes: array(text.max(200).defined())
    .max(MOST_CLASSES, `A page has at most ${MOST_CLASSES} utility classes.`)
    .required(),
}).noUnknown() as unknown as Schema<UtilityPlan>;

export const hashList = object({
  hashes: array(string().max(64).defined()).max(5000, 'At most 5000 at once.').required(),
}).noUnknown();

/** Why a change was not taken: others wrote the same place first. Carries what was missed, oldest first. */
export const conflict = object({
  code: string<'behind'>().oneOf(['behind']).required(),
  message: string().defined(),
  missed: array(historyEntry).required(),
  history: historyState.required(),
}).noUnknown();
export type Conflict = Readonly<InferType<typeof conflict>>;

/** An error as the server says it. */
export const apiError = object({ code: string().defined(), message: string().defined() }).noUnknown();
export type ApiError = Readonly<InferType<typeof apiError>>;

const ofProject = { project: projectId };
const events = {
  /** Where a project is when one begins to listen. */
  at: object({
    kind: string<'at'>().oneOf(['at']).required(),
    ...ofProject,
    seq: seq.required(),
    revision: seq.required(),
  }),
  /** A step, with all that is needed to take it in. */
  changed: object({
    kind: string<'changed'>().oneOf(['changed']).required(),
    ...ofProject,
    entry: historyEntry,
    changedAt: time.required(),
    revision: seq.required(),
  }),
  /** How far the writing of the running app's code is, in screens; 0 of 0 when it has ended. */
  building: object({
    kind: string<'building'>().oneOf(['building']).required(),
    ...ofProject,
    done: number().integer().min(0).required(),
    total: number().integer().min(0).required(),
  }),
  built: object({
    kind: string<'built'>().oneOf(['built']).required(),
    ...ofProject,
    seq: seq.required(),
    error: string().nullable().default(null),
  }),
  gone: object({ kind: string<'gone'>().oneOf(['gone']).required(), ...ofProject }),
  /** A visitor of the published app left a note, or one was answered. */
  noted: object({ kind: string<'noted'>().oneOf(['noted']).required(), ...ofProject }),
};
/** What the server tells of a project while it is open. */
export type ProjectEvent =
  | Readonly<InferType<typeof events.at>>
  | Readonly<InferType<typeof events.changed>>
  | Readonly<InferType<typeof events.building>>
  | Readonly<InferType<typeof events.built>>
  | Readonly<InferType<typeof events.gone>>
  | Readonly<InferType<typeof events.noted>>;
export const eventKinds = events;
export const settings = object({
  runPort: number().integer().required(),
  designPort: number().integer().nullable().default(null),
  /** Where repositories to try things out with are served, and the token that they want. */
  repositories: object({ address: string().required(), token: string().required() })
    .noUnknown()
    .nullable()
    .default(null),
}).noUnknown();

/** What a visitor said of an element of a published app. */
export const note = object({
  id: number().integer().required(),
  /** Of the app that they saw. */
  version: string().required(),
  path: string().required(),
  /** Keys of the screen and the element that it is about, where they are known. */
  screen: string().nullable().defined(),
  element: string().nullable().defined(),
  text: string().required(),
  author: string().defined(),
  leftAt: time.required(),
  answer: string().nullable().defined(),
  settledAt: time.nullable().defined(),
}).noUnknown();
export type Note = Readonly<InferType<typeof note>>;
export const answeredNote = object({
  answer: string().trim().max(2000).nullable().default(null),
  isSettled: boolean().required(),
}).noUnknown();

export const newPublication = object({
  title: string().trim().min(1, 'A published app needs a title.').max(200).required(),
  version: string().trim().min(1, 'A published app needs a version.').max(60).required(),
  /** The address of this machine that it is served at. */
  host: string().max(45).required(),
  /** What visitors have to know; null for nothing, the one of before where nothing is said. */
  pass: string().min(4, 'A pass phrase has at least 4 letters.').max(200).nullable(),
}).noUnknown();
export const publication = object({
  /** Addresses of this machine, and who reaches them, in words. */
  hosts: array(object({ host: string().required(), says: string().required() }).noUnknown()).required(),
  publication: object({
    address: string().required(),
    /** The address as a QR code: an SVG. */
    code: string().required(),
    title: string().required(),
    version: string().required(),
    number: number().integer().required(),
    seq: seq.required(),
    publishedAt: time.required(),
    hasPass: boolean().required(),
    isOpen: boolean().required(),
    /** Why it is not served although it should be. */
    problem: string().nullable().defined(),
  })
    .noUnknown()
    .nullable()
    .default(null),
}).noUnknown();
export type PublicationAnswer = Readonly<InferType<typeof publication>>;

/** Where code is pushed to. */
export const newRepository = object({
  address: string().min(1).max(500).required(),
  branch: string().min(1).max(200).required(),
  /** Kept in the memory of the server alone; one that was given before stays where none is. */
  token: string().min(1).max(500),
}).noUnknown();
/** A repository that may become that of a project: its branches are asked for. */
export const askedRepository = newRepository.omit(['branch']).noUnknown();
export const branches = object({ branches: array(string().required()).required() }).noUnknown();
export const repository = object({
  repository: object({
    address: string().required(),
    branch: string().required(),
    hasToken: boolean().required(),
    pushed: object({ commit: string().required(), seq: seq.required(), at: time.required() })
      .noUnknown()
      .nullable()
      .default(null),
  })
    .noUnknown()
    .nullable()
    .default(null),
}).noUnknown();
export type ConnectedRepository = Readonly<InferType<typeof repository>>['repository'];

const mergeSide = string<'theirs' | 'ours'>().oneOf(['theirs', 'ours']);
const mergeAnswers = array(
  object({ id: string().max(100).required(), side: mergeSide.required() }).noUnknown(),
)
  .max(10_000)
  .required();
export const pushLook = object({ answers: mergeAnswers }).noUnknown();
export const newPush = object({
  /** The commit that was looked at; null for a branch that was not there. */
  head: string().max(64).nullable().defined(),
  answers: mergeAnswers,
  message: string()
    .trim()
    .min(1, 'A commit needs a message.')
    .max(20_000)
    .required('A commit needs a message.'),
}).noUnknown();

export const pushPlan = object({
  head: string().nullable().defined(),
  target: string().required(),
  /** What others pushed since Tovel did, newest first. */
  commits: array(
    object({
      hash: string().required(),
      author: string().defined(),
      message: string().defined(),
      at: time.required(),
    }).noUnknown(),
  ).required(),
  files: array(
    object({
      path: string().required(),
      fate: string<Fate>().required(),
      movedFrom: string(),
      byLines: string(),
      before: string(),
      after: string(),
    }).noUnknown(),
  ).required(),
  asks: array(
    object({
      id: string().required(),
      path: string().required(),
      line: number().integer().required(),
      why: string<DeliveryAsk['why']>().required(),
      base: string().nullable().defined(),
      theirs: string().nullable().defined(),
      ours: string().nullable().defined(),
      element: string(),
      side: mergeSide.required(),
    }).noUnknown(),
  ).required(),
  notices: array(string().defined()).required(),
  added: array(string().required()).required(),
  /** What people changed in the code and what means something in the project. */
  offers: array(
    object({
      path: string().required(),
      line: number().integer().required(),
      says: string().required(),
      change: mixed().required().meta({ ref: 'Change' }),
    }).noUnknown(),
  ).required(),
  message: string().required(),
}).noUnknown();
export type PushPlan = Readonly<InferType<typeof pushPlan>>;
const boxOnPage = object({
  x: number().required(),
  y: number().required(),
  width: number().required(),
  height: number().required(),
}).noUnknown();
export const newComparison = object({
  /** Key of the drawing that says how it should look. */
  drawing: string().max(200).required(),
  /** Of the window, in CSS px. */
  width: number().integer().min(200).max(4000).required(),
  reference: string<'source' | 'picture' | 'pages' | 'vue'>().oneOf(['source', 'picture', 'pages', 'vue']),
  /** A place in the history whose app is the reference instead. */
  version: number().integer().min(0),
}).noUnknown();
export const comparison = object({
  view: object({
    screen: string().required(),
    drawing: string().required(),
    width: number().required(),
    height: number().required(),
  })
    .noUnknown()
    .required(),
  percent: number().required(),
  unexplained: number().required(),
  causes: array(
    object({
      id: string().required(),
      kind: string<DifferenceKind>().required(),
      name: string().defined(),
      box: boxOnPage.required(),
      element: string().nullable().defined(),
      alsoAt: number().integer().required(),
      property: string(),
      was: string().defined().optional(),
      is: string().defined().optional(),
      says: string().required(),
      sets: mixed<Readonly<Record<string, string>>>(),
      isDecided: boolean().required(),
      pixels: number().required(),
      weight: number().required(),
    }).noUnknown(),
  ).required(),
  problems: array(string().defined()).required(),
  pictures: object({
    reference: string().required(),
    running: string().required(),
    difference: string().required(),
  })
    .noUnknown()
    .required(),
  heights: object({ reference: number().required(), running: number().required() }).noUnknown().required(),
}).noUnknown();
export type ComparisonAnswer = Readonly<InferType<typeof comparison>>;
/** The text files of a folder or package of components. */
export const librarySources = object({
  /** What the folder is called. */
  name: string().max(200).required(),
  files: array(
    object({
      path: string()
        .max(500)
        .required()
        .test('inside', 'a path within the folder', (path) => isInside(path)),
      text: string().max(2_000_000).defined(),
    }).noUnknown(),
  )
    .min(1)
    .max(5000)
    .required(),
}).noUnknown();
/** Whether a path leads to a file within the folder that it is written from. */
const isInside = (path: string): boolean =>
  !path.startsWith('/') &&
  !/[\\\0:]/.test(path) &&
  path.split('/').every((part) => part !== '..' && part !== '.' && part !== '');
export const libraryRead = object({
  library: mixed<Library>(
    (value): value is Library => typeof value === 'object' && value !== null,
  ).required(),
  problems: array(string().required()).required(),
}).noUnknown();
export type LibraryRead = Readonly<InferType<typeof libraryRead>>;

export const newSweep = object({ screen: string().max(200).required() }).noUnknown();
const sweptFaultsOf = array(
  object({
    id: string().required(),
    kind: string<FaultKind>().required(),
    name: string().defined(),
    box: boxOnPage.required(),
    says: string().required(),
    widths: array(number().required()).required(),
  }).noUnknown(),
);
export const sweptScreen = object({
  screen: string().required(),
  faults: sweptFaultsOf.required(),
  problems: array(string().defined()).required(),
}).noUnknown();
export type SweptAnswer = Readonly<InferType<typeof sweptScreen>>;
/** What was found of a screen at the last place of the history at which it was looked at. */
export const keptSweep = object({
  screen: string().required(),
  seq: seq.required(),
  faults: sweptFaultsOf.required(),
  at: string().required(),
}).noUnknown();
export type SweepKept = Readonly<InferType<typeof keptSweep>>;
export const newListening = object({
  screen: string().max(200).required(),
  width: number().integer().min(200).max(4000).required(),
}).noUnknown();
const heardPlace = object({ says: string().defined(), box: boxOnPage.required() }).noUnknown();
/** A screen as it is heard and gone through by keys. */
export const heardScreen = object({
  picture: string().required(),
  width: number().required(),
  height: number().required(),
  findings: array(
    object({
      id: string().required(),
      weight: string<HeardWeight>().required(),
      says: string().required(),
      places: array(heardPlace).required(),
    }).noUnknown(),
  ).required(),
  stops: array(
    object({
      name: string().defined(),
      role: string().defined(),
      isSeen: boolean().required(),
      box: boxOnPage.required(),
    }).noUnknown(),
  ).required(),
  headings: array(
    object({ level: number().required(), says: string().defined(), box: boxOnPage.required() }).noUnknown(),
  ).required(),
  landmarks: array(
    object({ role: string().required(), name: string().defined(), box: boxOnPage.required() }).noUnknown(),
  ).required(),
}).noUnknown();
export type HeardAnswer = Readonly<InferType<typeof heardScreen>>;
export const comparisonScore = object({
  screen: string().required(),
  drawing: string().required(),
  width: number().required(),
  reference: string().required(),
  seq: number().required(),
  iteration: number().required(),
  percent: number().required(),
  causes: number().required(),
  at: time.required(),
}).noUnknown();
export type ComparisonScore = Readonly<InferType<typeof comparisonScore>>;
export const pushed = object({
  commit: string().required(),
  address: string().required(),
  branch: string().required(),
}).noUnknown();
