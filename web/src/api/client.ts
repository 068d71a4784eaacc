import createClient from "openapi-fetch";
import type { components, paths } from "./schema";

type Schemas = components["schemas"];
export type Screen = Schemas["ScreenOut"];
export type Piece = Schemas["PieceOut"];
export type Edge = Schemas["EdgeOut"];
export type Join = Schemas["JoinOut"];
export type Remedy = Schemas["RemedyDocument"];
export type Word = Schemas["WordOut"];
export type SentencePart = Schemas["SentencePartOut"];
export type Finding = Schemas["StageFinding"];
export type Working = Schemas["WorkingDocument"];
export type Saved = Schemas["SavedOut"];
export type DeskRow = Schemas["DeskRow"];
export type Commission = Schemas["OpenCommission"];
export type SumDescription = Schemas["SumOut"];
export type SumInput = Schemas["SumInputOut"];
export type Stage = Finding["stage"];
export type Unit = Schemas["Unit"];
export type Recipe = Record<string, unknown>;

/** A refusal in the trade's language, with the field each sentence belongs to. */
export interface Problem {
  detail: string;
  errors: { field: string; text: string }[];
}

export const api = createClient<paths>({ baseUrl: "/" });

/** Thrown when the program refuses; a lost connection stays the browser's own TypeError. */
export class Refused extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail);
  }
}

/** The data of an answer, or Refused with what was wrong. */
export async function answer<T>(call: Promise<{ data?: T; error?: unknown }>): Promise<T> {
  const { data, error } = await call;
  if (error !== undefined || data === undefined) {
    const said = (error ?? {}) as Partial<Problem>;
    throw new Refused({ detail: said.detail ?? "", errors: said.errors ?? [] });
  }
  return data;
}
