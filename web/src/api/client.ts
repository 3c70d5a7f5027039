// The server's interface, typed from its OpenAPI document.
import createClient from 'openapi-fetch';
import type { components, paths } from './generated/schema';

export const api = createClient<paths>({ baseUrl: '' });

export type Schemas = components['schemas'];
export type ProjectView = Schemas['ProjectView'];
export type BagView = Schemas['BagView'];
export type AddedView = Schemas['AddedView'];
export type PieceView = Schemas['PieceView'];
export type PartView = Schemas['PartView'];
export type MeasuredView = Schemas['MeasuredView'];
export type MadeUpView = Schemas['MadeUpView'];
export type ClothView = Schemas['ClothView'];
export type ScrapDraft = Schemas['ScrapDraft'];
export type ScrapDrawn = Schemas['ScrapDrawn'];
export type SeenView = Schemas['SeenView'];
export type Flaw = Schemas['Flaw'];
export type KeptEdge = Schemas['KeptEdge'];
export type Point = Schemas['Point'];
export type PrintBoardView = Schemas['PrintBoardView'];
export type TryView = Schemas['TryView'];
export type ClaimsView = Schemas['ClaimsView'];
export type NotionView = Schemas['NotionView'];
export type NotionChange = Schemas['NotionChange'];
export type NewNotion = Schemas['NewNotion'];
export type ForLine = Schemas['ForLine'];
export type Offer = Schemas['Offer'];
export type LayWith = Schemas['LayWith'];
export type Make = Schemas['Make'];
export type LayView = Schemas['LayView'];
export type ClothLayView = Schemas['ClothLayView'];
export type PurchaseView = Schemas['PurchaseView'];
export type StepView = Schemas['StepView'];
export type MakingView = Schemas['MakingView'];
export type MakingStepView = Schemas['MakingStepView'];
export type Card = Schemas['Card'];
export type CupboardEdit = Schemas['CupboardEdit'];
export type EntryView = Schemas['EntryView'];
export type CupboardCloth = Schemas['CupboardCloth'];
export type ChoicesView = Schemas['ChoicesView'];
export type PutAwayView = Schemas['PutAwayView'];
export type CupboardView = Schemas['CupboardView'];
export type ShelfView = Schemas['ShelfView'];
export type Alternative = Schemas['Alternative'];
export type Measure = Schemas['Measure'];
export type DimensionView = Schemas['DimensionView'];
export type DrawingView = Schemas['DrawingView'];
export type NoticeView = Schemas['NoticeView'];
export type ProblemView = Schemas['ProblemView'];
export type Edit = Schemas['Edit'];
/** A field of the bag, as its family lists it. */
export type BagField = string;
export type FieldView = Schemas['FieldView'];
export type GroupView = Schemas['GroupView'];
export type RowView = Schemas['RowView'];
export type RowField = Schemas['RowField'];
export type FoundView = Schemas['FoundView'];
export type ClothField = Schemas['ClothField'];
export type Look = Schemas['Look'];
export type ApiErrorBody = Schemas['ApiErrorBody'];

/** A refusal of the server, or that it could not be reached. */
export class ApiError extends Error {
  constructor(
    readonly status: number,
    readonly body: ApiErrorBody,
  ) {
    super(body.message);
  }
}

const UNREACHED: ApiErrorBody = {
  message: 'Bofta does not answer. Your saved work is safe. Start the program again and reload this page.',
  problems: [],
};

/** The data of a call, or a thrown {@link ApiError}. */
export async function must<T>(call: Promise<{ data?: T; error?: unknown; response: Response }>): Promise<T> {
  const answer = await done(call);
  if (answer.data === undefined) throw new ApiError(answer.response.status, UNREACHED);
  return answer.data;
}

/** A call whose answer has no data, or a thrown {@link ApiError}. */
export async function done<T>(
  call: Promise<{ data?: T; error?: unknown; response: Response }>,
): Promise<{ data?: T; response: Response }> {
  let answer: Awaited<typeof call>;
  try {
    answer = await call;
  } catch {
    throw new ApiError(0, UNREACHED);
  }
  if (!answer.response.ok) {
    const body = answer.error as ApiErrorBody | undefined;
    throw new ApiError(answer.response.status, body?.message ? body : UNREACHED);
  }
  return answer;
}

/** Whether the same call may well succeed in a moment: the program does not answer, or cannot keep anything just now. */
export const isPassing = (error: unknown): error is ApiError =>
  error instanceof ApiError && [0, 502, 503, 504, 507].includes(error.status);
