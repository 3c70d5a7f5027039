// The server's interface, typed from its OpenAPI document.
import createClient from 'openapi-fetch';
import type { components, paths } from './generated/schema';

export const api = createClient<paths>({ baseUrl: '' });

type Schemas = components['schemas'];
export type ProjectView = Schemas['ProjectView'];
export type BagView = Schemas['BagView'];
export type PieceView = Schemas['PieceView'];
export type PartView = Schemas['PartView'];
export type MeasuredView = Schemas['MeasuredView'];
export type MadeUpView = Schemas['MadeUpView'];
export type ClothView = Schemas['ClothView'];
export type LayView = Schemas['LayView'];
export type ClothLayView = Schemas['ClothLayView'];
export type StepView = Schemas['StepView'];
export type Card = Schemas['Card'];
export type CupboardCloth = Schemas['CupboardCloth'];
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
export type RefusalBody = Schemas['RefusalBody'];

/** A refusal of the server, or that it could not be reached. */
export class Refused extends Error {
  constructor(
    readonly status: number,
    readonly body: RefusalBody,
  ) {
    super(body.message);
  }
}

const UNREACHED: RefusalBody = {
  message: 'The program does not answer. What was acknowledged is kept; start it again and reload.',
  problems: [],
};

/** The data of a call, or a thrown {@link Refused}. */
export async function must<T>(call: Promise<{ data?: T; error?: unknown; response: Response }>): Promise<T> {
  let answer: Awaited<typeof call>;
  try {
    answer = await call;
  } catch {
    throw new Refused(0, UNREACHED);
  }
  if (answer.error !== undefined || answer.data === undefined) {
    throw new Refused(answer.response.status, (answer.error as RefusalBody) ?? UNREACHED);
  }
  return answer.data;
}
