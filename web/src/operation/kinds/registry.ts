import type { Component } from "svelte";
import type { OperationBench } from "../bench.svelte";

type Part = Component<{ bench: OperationBench }>;

/** What a kind of operation draws of its own on the bench; the rest of the frame is common. */
export interface KindParts {
  Scene: Part;
  Map: Part;
  /** At the foot of the left column. */
  Foot?: Part;
}

const DRAWN = import.meta.glob<Part>("./*/{Scene,Map,Foot}.svelte", { eager: true, import: "default" });
/** Where a kind has no map of its own, whose map it has. */
const MAP_OF: Record<string, string> = { bore: "turned" };

/** A kind's parts stand in the folder of its name: "cut off" in `cut_off`. */
export function partsOf(kind: string): KindParts | undefined {
  const folder = kind.replaceAll(" ", "_");
  const Scene = DRAWN[`./${folder}/Scene.svelte`];
  const Map = DRAWN[`./${MAP_OF[kind] ?? folder}/Map.svelte`];
  return Scene && Map && { Scene, Map, Foot: DRAWN[`./${folder}/Foot.svelte`] };
}
