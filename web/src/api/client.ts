import createClient from "openapi-fetch";
import { shortName } from "../ui/window";
import type { components, paths } from "./schema";

type Schemas = components["schemas"];
export type Difference = Schemas["DifferenceOut"];
export type Version = Schemas["VersionOut"];
export type Screen = Schemas["ScreenOut"];
export type DressView = Schemas["ViewOut"];
export type Piece = Schemas["PieceOut"];
export type Edge = Schemas["EdgeOut"];
export type Join = Schemas["JoinOut"];
export type Remedy = Schemas["RemedyDocument"];
export type Word = Schemas["WordOut"];
export type SentencePart = Schemas["SentencePartOut"];
export type Finding = Schemas["StageFinding"];
export type Working = Schemas["WorkingDocument"];
export type DeskRow = Schemas["DeskRow"];
export type Lay = Schemas["LayOut"];
export type Hang = Schemas["HangOut"];
export type Fullness = Schemas["FullnessOut"];
export type Plan = Schemas["PlanOut"];
export type SaidOfOperation = Schemas["SaidOfOperation"];
export type Operation = Schemas["OperationOut"];
export type Days = Schemas["CalendarOut"];
export type Day = Schemas["DayOut"];
export type KeptCopy = Schemas["CopyOut"];
export type Activity = Schemas["ActivityOut"];
export type OnePerson = Schemas["PersonPage"];
export type Costing = Schemas["CostingIn"];
export type CostLine = Schemas["CostLineOut"];
export type Exercise = Schemas["ProblemOut"];
export type Answered = Schemas["AnsweredIn"];
export type Sitting = Schemas["SittingOut"];
export type Trouble = Schemas["TroubleOut"];
export type Hours = Schemas["HoursIn"];
export type Fittings = Schemas["FittingsOut"];
export type NoteIn = Schemas["NoteIn"];
export type Try = Schemas["TryOut"];
export type ShelfCloth = Schemas["ClothOut"];
export type Plotting = Schemas["PlotterOut"];
export type ChalkDrawing = Schemas["ChalkOut"];
export type FoldedRing = Schemas["RingOut"];
export type Term = Schemas["TermOut"];
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

// what is changed is written down with the window that changed it
api.use({
  onRequest({ request }) {
    request.headers.set("x-window", shortName());
    return request;
  },
});

/** Thrown when the program refuses; a lost connection stays the browser's own TypeError. */
export class Refused extends Error {
  constructor(
    readonly problem: Problem,
    readonly status: number,
  ) {
    super(problem.detail);
  }
}

/** The data of an answer, or Refused with what was wrong. */
export async function answer<T>(
  call: Promise<{ data?: T; error?: unknown; response: Response }>,
): Promise<T> {
  const { data, error, response } = await call;
  if (error !== undefined || data === undefined) {
    const said = (typeof error === "object" && error ? error : {}) as Partial<Problem>;
    throw new Refused({ ...said, detail: said.detail ?? "", errors: said.errors ?? [] }, response.status);
  }
  return data;
}

/** Waits for an answer that has nothing to say but that it is done; Refused with what was wrong. */
export const done = (call: Promise<{ error?: unknown; response: Response }>) =>
  answer(call.then(({ error, response }) => ({ data: true, error, response })));

/** Sends a file; Refused with what was wrong with it. */
export async function upload<T>(address: string, file: File): Promise<T> {
  const body = new FormData();
  body.append("file", file);
  const sent = await fetch(address, { method: "POST", body, headers: { "x-window": shortName() } });
  const told = await sent.json();
  if (!sent.ok) throw new Refused(told, sent.status);
  return told as T;
}
