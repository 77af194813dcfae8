"""What the studies of an operation give: plan and size, rigidity, edge life, ways, coolant, hard turning."""

from __future__ import annotations

from typing import Literal

from server.jobs.document.tools import ToolWords
from server.jobs.kinds.view import AxisOut, ChipOut
from server.jobs.schemas.operation import RemedyOut
from server.schema import Schema
from server.sentences import Sentence
from server.units import DisplayOut, Point


class LineOut(Schema):
    """A line of a chart."""

    name: str
    label: str
    points: list[Point]


class MarkOut(Schema):
    """A named place on a chart."""

    name: str
    label: DisplayOut
    at: Point


class ChartOut(Schema):
    """A chart: axes, curves, marks."""

    x: AxisOut
    y: AxisOut
    curves: list[LineOut]
    marks: list[MarkOut]


class DepthBoundOut(Schema):
    """How deep a pass may be by one limit."""

    name: str
    label: str
    depth: float
    display: DisplayOut
    least: bool
    why: Sentence


class PlannedPassOut(Schema):
    """A pass as it is planned."""

    number: int
    depth: DisplayOut
    to_diameter: DisplayOut
    push: DisplayOut
    springs: DisplayOut
    chip: ChipOut


class LedgerRowOut(Schema):
    """A piece that was measured, and what was set for it."""

    id: int
    piece: int
    pass_number: int
    commanded: DisplayOut
    measured: DisplayOut
    at_20: DisplayOut
    actual_depth: DisplayOut
    force: DisplayOut
    offset: DisplayOut
    expected: DisplayOut | None


class NextPassOut(Schema):
    """What to set for the next piece."""

    pass_number: int
    target: DisplayOut
    depth: DisplayOut
    force: DisplayOut
    offset: DisplayOut
    low: DisplayOut
    high: DisplayOut
    command: DisplayOut
    last: bool


class DoubtfulOut(Schema):
    """A reading that is kept and not counted."""

    id: int
    piece: int
    pass_number: int
    commanded: DisplayOut
    measured: DisplayOut


class WarmthOut(Schema):
    """Growth of a warm part against the share of its tolerance that it may take."""

    growth: DisplayOut
    bound: DisplayOut
    utilisation: float
    broken: bool


class FitShareOut(Schema):
    """What takes part of a tolerance."""

    name: str
    spread: DisplayOut
    of_tolerance: str
    why: str


class FitStageOut(Schema):
    """How surely a size holds so many pieces into the batch."""

    measured: int
    spread: DisplayOut
    chance: str
    grade: str


class SettledFitOut(Schema):
    """How surely a fit is met: what is not known, as ± (95 %), and what each further measured cut settles."""

    aim: DisplayOut
    shares: list[FitShareOut]
    stages: list[FitStageOut]


class LedgerOut(Schema):
    """The readings of a size and what they taught."""

    warmth: WarmthOut | None
    doubtful: list[DoubtfulOut]
    rows: list[LedgerRowOut]
    piece: int
    next: NextPassOut | None
    setting: DisplayOut
    setting_band: DisplayOut
    springing: DisplayOut
    springing_band: DisplayOut
    springing_taught: bool
    fit: SettledFitOut | None
    uncertainty: DisplayOut
    notes: list[Sentence]
    warnings: list[Sentence]
    working: list[str]


class PlanOut(Schema):
    """Passes, bounds of their depth, and the ledger of sizes."""

    bounds: list[DepthBoundOut]
    deepest: DisplayOut
    shallowest: DisplayOut
    stock: DisplayOut
    fewest: int
    equal_depth: DisplayOut
    passes: list[PlannedPassOut]
    notes: list[Sentence]
    drift: DisplayOut
    correct_every: str | None
    explicit: bool
    ledger: LedgerOut | None
    working: list[str]


class SupportOut(Schema):
    """A way to hold the part, and what it brings."""

    name: str
    text: Sentence
    largest: DisplayOut
    taper: DisplayOut
    barrel: DisplayOut
    times_stiffer: str
    remedy: RemedyOut | None


class SpeedOut(Schema):
    """A speed at which the cut sings least or most."""

    text: DisplayOut
    gain: str
    remedy: RemedyOut


class RigidityOut(Schema):
    """The part's bow along the cut, what would support it, and the lobes of part and shank."""

    bow: ChartOut
    shape: str
    largest: DisplayOut
    taper: DisplayOut
    barrel: DisplayOut
    allowed: DisplayOut
    supports: list[SupportOut]
    lobes: ChartOut
    says: Sentence
    width: DisplayOut
    limit: DisplayOut
    part_frequency: str
    tool_frequency: str
    suggestions: list[SpeedOut]
    working: list[str]


class SpeedPointOut(Schema):
    """A speed with its life and its cost."""

    name: str
    speed: DisplayOut
    life: DisplayOut
    seconds: DisplayOut
    cost: DisplayOut
    parts: str
    remedy: RemedyOut | None


class EdgeChangeOut(Schema):
    """A planned change of the edge."""

    probability: str
    parts: str


class EdgeLifeOut(Schema):
    """Speed against life and cost."""

    cost: ChartOut
    life: ChartOut
    survival: ChartOut
    points: list[SpeedPointOut]
    book: DisplayOut
    changes: list[EdgeChangeOut]
    planned: EdgeChangeOut
    shape: str
    run: str
    sister_tools: int
    says: Sentence
    working: list[str]


class WayOut(ToolWords):
    """A way to turn a feature with its best tool."""

    name: str
    title: str
    when: str
    why_not: str
    present: bool
    tool_class: str
    passes: int
    speed: DisplayOut | None
    feed: DisplayOut | None
    seconds: DisplayOut | None
    cost: DisplayOut | None
    parts: str
    secure: str
    chip_index: float
    roughness: DisplayOut | None
    reach: str
    remedy: RemedyOut | None


class SlotMethodOut(Schema):
    """A method of a cut-off or groove with the tool that is in it."""

    title: str
    when: Sentence
    why_not: str
    note: Sentence
    present: bool
    feed: DisplayOut | None
    seconds: DisplayOut | None
    cost: DisplayOut | None
    secure: str
    remedy: RemedyOut | None


class AskedOut(Schema):
    """One thing that is asked of a hole, what each layer gets (null: not of that layer), and what was measured."""

    name: str
    label: str
    by_layer: list[DisplayOut | None]
    asked: DisplayOut | None
    chance: str
    standing: Literal["holds", "close", "over", ""]
    measurable: bool
    measured: DisplayOut | None
    met: bool | None


class OtherDrillOut(Schema):
    """A drill of the size at this speed and feed; `parts` its thrust over what parts the last plies, `harm` the hard limit it breaks."""

    name: str
    point: str
    thrust: DisplayOut
    parts: str
    burr: DisplayOut
    holes: str
    cost: DisplayOut
    harm: str
    present: bool
    remedy: RemedyOut | None


class AcceptanceOut(Schema):
    """What is asked of a hole against what its layers get; what harms, and what is only not ideal."""

    layers: list[str]
    asked: list[AskedOut]
    harms: list[str]
    tastes: list[str]
    drills: list[OtherDrillOut]


class DeliveryOut(Schema):
    """A delivery of coolant and what speaks for it."""

    name: str
    pressure: DisplayOut
    jet_speed: str
    flow: DisplayOut
    left: DisplayOut
    fits: str
    says: Sentence
    remedy: RemedyOut | None


class CoolantOut(Schema):
    """Every delivery of the machine, judged."""

    rule: Sentence
    why: Sentence
    wanted: str
    present: str
    present_fits: bool
    deliveries: list[DeliveryOut]
    notes: list[Sentence]


class HeightOut(Schema):
    """Where the tip stands, and what of the angles that leaves."""

    name: str
    height: DisplayOut
    rake: DisplayOut
    clearance: DisplayOut
    rake_inside: DisplayOut
    clearance_inside: DisplayOut
    cutting_force: DisplayOut
    passive_force: DisplayOut
    larger: DisplayOut
    pip: DisplayOut
    present: bool
    remedy: RemedyOut | None


class EdgeAnglesOut(Schema):
    """How the edge stands to the work."""

    angles: list[AngleRow]
    thinner: str
    heights: list[HeightOut]
    working: list[str]


class AngleRow(Schema):
    """An angle by both schools."""

    label: str
    display: DisplayOut
    says: Sentence


class ProcessRow(Schema):
    """A driver or a share of both processes, and what it saves."""

    label: str
    present: DisplayOut
    proposed: DisplayOut
    saves: DisplayOut


class ProcessOut(Schema):
    """The present process against another; nothing in it where none was entered. `plan` are the plan's own drivers, as typed."""

    rows: list[ProcessRow]
    shares: list[ProcessRow]
    present: DisplayOut | None
    proposed: DisplayOut | None
    saving: DisplayOut | None
    says: list[Sentence]
    of_plan: bool
    plan: dict[str, str]


class HardOut(Schema):
    """Hard turning against grinding."""

    applies: bool
    hardness: str
    rows: list[HardRow]
    says: list[Sentence]
    saving: DisplayOut | None
    saving_per_batch: DisplayOut | None
    working: list[str]


class HardRow(Schema):
    """One figure of both."""

    label: str
    hard: DisplayOut
    grinding: DisplayOut | None
    note: Sentence


HardOut.model_rebuild()
EdgeAnglesOut.model_rebuild()
