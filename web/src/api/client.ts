import createClient from "openapi-fetch";
import { reach } from "../connection";
import type { components, paths } from "./schema";

type Schemas = components["schemas"];
export type Problem = Schemas["Problem"];
export type LineAsk = Schemas["LineAsk"];
export type PacketLabel = Schemas["PacketLabel"];
export type RecipeLine = Schemas["RecipeLine"];
export type Liking = Schemas["Liking"];
export type RecipeHistory = Schemas["RecipeHistory"];
export type Strength = Schemas["Strength"];
export type BrokenRecord = Schemas["BrokenRecord"];
export type Counter = Schemas["Counter"];
export type Kitchen = Schemas["Kitchen"];
export type AltitudeReason = Schemas["AltitudeReason"];
export type KitchenChange = Partial<Schemas["KitchenRequest"]>;
export type Lot = Schemas["LotView"];
export type LoadView = Schemas["LoadView"];
export type Batch = Schemas["Batch"];
export type PlanRequest = Schemas["PlanRequest"];
export type PlanPreview = Schemas["PlanPreview"];
export type PlanAnswer = Schemas["PlanAnswer"];
export type Refusal = Schemas["Refusal"];
export type JarStep = Schemas["JarStep"];
export type Canner = Schemas["Canner"];
export type Phase = Schemas["Phase"];
export type WaterOver = Schemas["WaterOver"];
export type UnderJars = Schemas["UnderJars"];
export type LiquidLost = Schemas["LiquidLost"];
export type BoilEvent = Schemas["BoilEvent"];
export type JarSize = Schemas["JarSize"];
export type Product = Schemas["Product"];
export type Medium = Schemas["Medium"];
export type Pack = Schemas["Pack"];
export type Agent = Schemas["Agent"];
export type Kind = Schemas["Kind"];
export type Condition = Schemas["Condition"];
export type Thickness = Schemas["Thickness"];
export type Units = Schemas["Units"];
export type Ways = Schemas["Ways"];
export type Figure = Schemas["FigureName"];
export type Verdict = Schemas["LidVerdict"];
export type Rescue = Schemas["Rescue"];
export type Leaving = Schemas["Leaving"];
export type Discard = Schemas["Discard"];
export type JarRecord = Schemas["JarRecord"];
export type BatchRecord = Schemas["BatchRecord"];
export type Shape = Schemas["Shape"];
export type Paper = Schemas["Paper"];
export type DayView = Schemas["DayView"];
export type Work = Schemas["Work"];
export type Mark = Schemas["Mark"];
export type BatchChange = Schemas["BatchChangeRequest"];
export type Towel = Schemas["TowelView"];
export type ShelfGroup = Schemas["ShelfGroup"];
export type Amount = Schemas["Amount"];
export type Finding = Schemas["Finding"];
export type Fix = Schemas["Fix"];
export type Judged = Schemas["Judged"];
export type Claims = Schemas["Claims"];
export type Question = Schemas["Question"];
export type Added = Schemas["Added"];
export type AlsoIn = Schemas["AlsoIn"];
export type DoseMeasure = Schemas["DoseMeasure"];
export type Measured = Schemas["Measured"];
export type Ingredient = Schemas["Ingredient"];
export type Height = Schemas["Height"];
export type NearAnswer = Schemas["NearAnswer"];
export type Almanac = Schemas["Almanac"];
export type FirstRequest = Schemas["FirstRequest"];
export type FirstLine = Schemas["FirstLine"];
export type Compared = Schemas["Compared"];
export type Goal = Schemas["Goal"];
export type SplitRequest = Schemas["SplitRequest"];
export type SplitAnswer = Schemas["SplitAnswer"];
export type CountRequest = Schemas["CountRequest"];
export type Method = Schemas["Method"];
export type PotSize = Schemas["PotSize"];
export type KettleView = Schemas["KettleView"];
export type Simulation = Schemas["Simulation"];
export type HeatSetting = Schemas["HeatSetting"];
export type Warmth = Schemas["Warmth"];
export type FlaggedLine = Schemas["FlaggedLine"];
export type CookView = Schemas["CookView"];
export type CookRequest = Schemas["CookRequest"];
export type CookEventRequest = Schemas["CookEventRequest"];
export type Mouth = Schemas["Mouth"];
export type Fault = Schemas["Fault"];
export type Food = Schemas["Food"];
export type FoodPlace = Schemas["FoodPlace"];
export type FoodMeasure = Schemas["FoodMeasure"];
export type FoodMove = Schemas["FoodMoveRequest"];
export type ColdFood = Schemas["ColdFoodView"];
export type DayBooks = Schemas["DayBooks"];
export type RecipeView = Schemas["RecipeView"];
export type RecipeText = Schemas["RecipeText"];
export type RecipeScale = Schemas["RecipeScale"];
export type Buffer = Schemas["Buffer"];
export type RecipePlan = Schemas["RecipePlan"];
export type RecipePlanRequest = Schemas["RecipePlanRequest"];
export type RecipeInLoad = Schemas["RecipeInLoad"];
export type ScaleRequest = Schemas["ScaleRequest"];
export type ShippedView = Schemas["ShippedView"];
export type PrintedTime = Schemas["PrintedTime"];
export type ReadLine = Schemas["ReadLine"];
export type BowlsView = Schemas["BowlsView"];
export type BowlsChange = Schemas["BowlsChange"];
export type Proportion = Schemas["Proportion"];
export type Part = Schemas["Part"];
export type Role = Schemas["Role"];
export type RecipeUnit = Schemas["Unit"];
export type Wait = Schemas["Wait"];
export type AcidAnswer = Schemas["AcidAnswer"];
export type AcidRequest = Schemas["AcidRequest"];

export const api = createClient<paths>({ baseUrl: "/", fetch: reach });

/** What the server refused, with the field it is about. */
export class Refused extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail);
  }
}

interface Answer<T> {
  data?: T;
  error?: unknown;
  response: Response;
}

function isProblem(error: unknown): error is Problem {
  return typeof error === "object" && error !== null && "detail" in error && "code" in error;
}

/** The body of a good answer; throws what was wrong otherwise. */
export async function take<T>(asked: Promise<Answer<T>>): Promise<T> {
  const { data, error, response } = await asked;
  if (response.ok) return data as T;
  if (isProblem(error)) throw new Refused(error);
  throw new Error(`Bodega answered ${response.status}; try again`);
}

/** Sends a file as it is. */
async function sendFile<T>(path: string, type: string, file: File): Promise<T> {
  const response = await fetch(path, { method: "POST", headers: { "content-type": type }, body: file });
  const body: unknown = await response.json();
  if (response.ok) return body as T;
  if (isProblem(body)) throw new Refused(body);
  throw new Error(`Bodega answered ${response.status}; try again`);
}

/** Brings a harvest log in. */
export const importHarvest = (file: File) =>
  sendFile<Schemas["Imported"]>("/api/harvest.csv", "text/csv", file);

/** Brings everything in, into an empty kitchen. */
export const importRecords = (file: File) =>
  sendFile<Schemas["Taken"]>("/api/import.json", "application/json", file);
