import type { Schemas } from "../../api/client";
import type { OperationBench } from "../bench.svelte";

type Views = Schemas["EvaluationOut"]["view"];
export type ViewOf<K extends Views["kind"]> = Extract<Views, { kind: K }>;

/** The bench's view where it is of this kind; while another operation loads it may still be the last one's. */
export function viewOf<K extends Views["kind"]>(bench: OperationBench, kind: K): ViewOf<K> | null {
  const view = bench.evaluation?.view;
  return view?.kind === kind ? (view as ViewOf<K>) : null;
}

/** A path through points in pixels. */
export const pathOf = (points: [number, number][]): string =>
  points.map(([a, b], k) => `${k ? "L" : "M"}${a.toFixed(1)},${b.toFixed(1)}`).join("");

/** The names in a scene that are numbers. */
type Numbers<S> = { [K in keyof S]: S[K] extends number ? K : never }[keyof S];

/** Reads a number of a scene by its name; 0 until the first view has come. */
export const numbersOf =
  <S extends object>(view: () => { scene: S } | null | undefined) =>
  (name: Numbers<S>): number =>
    Number(view()?.scene[name] ?? 0);
