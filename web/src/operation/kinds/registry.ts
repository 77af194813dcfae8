import type { Component } from "svelte";
import type { OperationBench } from "../bench.svelte";
import BoreScene from "./bore/Scene.svelte";
import CutOffFoot from "./cut_off/Foot.svelte";
import CutOffMap from "./cut_off/Map.svelte";
import CutOffScene from "./cut_off/Scene.svelte";
import DrillMap from "./drill/Map.svelte";
import DrillScene from "./drill/Scene.svelte";
import FaceGrooveMap from "./face_groove/Map.svelte";
import FaceGrooveScene from "./face_groove/Scene.svelte";
import GrooveMap from "./groove/Map.svelte";
import GrooveScene from "./groove/Scene.svelte";
import HeavyBoreMap from "./heavy_bore/Map.svelte";
import HeavyBoreScene from "./heavy_bore/Scene.svelte";
import MillHoleMap from "./mill_hole/Map.svelte";
import MillHoleScene from "./mill_hole/Scene.svelte";
import MillThreadMap from "./mill_thread/Map.svelte";
import MillThreadScene from "./mill_thread/Scene.svelte";
import TapMap from "./tap/Map.svelte";
import TapScene from "./tap/Scene.svelte";
import TrepanMap from "./trepan/Map.svelte";
import TrepanScene from "./trepan/Scene.svelte";
import TurnThreadMap from "./turn_thread/Map.svelte";
import TurnThreadScene from "./turn_thread/Scene.svelte";
import TurnedMap from "./turned/ChipMap.svelte";
import TurnedScene from "./turned/Scene.svelte";

type Part = Component<{ bench: OperationBench }>;

/** What a kind of operation draws of its own on the bench; the rest of the frame is common. */
export interface KindParts {
  Scene: Part;
  Map: Part;
  /** At the foot of the left column. */
  Foot?: Part;
}

export const KINDS: Record<string, KindParts> = {
  turned: { Scene: TurnedScene, Map: TurnedMap },
  groove: { Scene: GrooveScene, Map: GrooveMap },
  "face groove": { Scene: FaceGrooveScene, Map: FaceGrooveMap },
  trepan: { Scene: TrepanScene, Map: TrepanMap },
  bore: { Scene: BoreScene, Map: TurnedMap },
  "heavy bore": { Scene: HeavyBoreScene, Map: HeavyBoreMap },
  drill: { Scene: DrillScene, Map: DrillMap },
  "mill hole": { Scene: MillHoleScene, Map: MillHoleMap },
  "turn thread": { Scene: TurnThreadScene, Map: TurnThreadMap },
  tap: { Scene: TapScene, Map: TapMap },
  "mill thread": { Scene: MillThreadScene, Map: MillThreadMap },
  "cut off": { Scene: CutOffScene, Map: CutOffMap, Foot: CutOffFoot },
};
