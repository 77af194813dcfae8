"""What the crib's doors take and give."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import Field

from server.schema import Schema
from server.sentences import Sentence
from server.units import DisplayOut, Point, TickOut, Units


class ToolFilter(Schema):
    """Words in any spelling; each facet takes any number of values."""

    q: str = Field(default="", max_length=120)
    kind: list[str] = []
    diameter: list[str] = []
    pitch: list[str] = []
    shape: list[str] = []
    circle: list[str] = []
    nose_radius: list[str] = []
    geometry: list[str] = []
    grade: list[str] = []
    tool_class: list[str] = []
    hand: list[str] = []
    section: list[str] = []
    angle: list[str] = []
    letter: Literal["", "P", "M", "K", "N", "S", "H"] = ""
    stocked: bool = False
    archived: bool = False
    offset: int = Field(default=0, ge=0, le=10_000_000)
    limit: int = Field(default=60, ge=1, le=200)


class ToolRow(Schema):
    """A tool in the list."""

    id: int
    kind: str
    name: str
    designation: str
    inch_designation: str
    geometry: str
    purpose: str
    grade: str
    substrate: str
    edges: int | None
    nose_radius: DisplayOut | None
    angle: DisplayOut | None
    section: DisplayOut | None
    width: DisplayOut | None
    diameter: DisplayOut | None
    price: DisplayOut
    edge_price: DisplayOut | None
    own_number: str
    bin: str
    quantity: int
    coolant: str
    source: str
    archived: bool


class FacetValue(Schema):
    """A value of a facet and how many have it."""

    value: str
    count: int


class Facet(Schema):
    """What tools are told apart by."""

    name: str
    values: list[FacetValue]


class ToolPage(Schema):
    """A page of the list with its facets."""

    matched: int
    total: int
    offset: int
    rows: list[ToolRow]
    facets: list[Facet]


class PartOut(Schema):
    """One position of a designation."""

    position: str
    code: str
    name: str
    meaning: str


class InsertDrawingOut(Schema):
    """Lines in mm: plan about the middle, section through it."""

    plan: list[Point]
    inscribed_circle: float
    hole: float | None
    section: list[list[Point]]
    thickness: float
    clearance: float | None
    nose_radius: float
    circle_display: DisplayOut
    thickness_display: DisplayOut
    nose_display: DisplayOut


class DrillDrawingOut(Schema):
    """Lines in mm: from the tip along the axis, and onto the point."""

    side: list[Point]
    shank: list[Point]
    flutes: list[list[Point]]
    outline: list[Point]
    lips: list[list[Point]]
    holes: list[list[float]]


class LifeCost(Schema):
    """Money of one life when a tool has been reground so often."""

    regrinds: int
    cost: DisplayOut


class MetalAdviceOut(Schema):
    """How well a tool's material and coating go in a metal, 0 to 1, and why."""

    letter: str
    metal: str
    rating: float
    why: str


class RoundToolOut(Schema):
    """A drill or an end mill: drawn, what its type usually reaches, which metals it is for, and what a life costs by regrinds."""

    drawing: DrillDrawingOut
    facts: list[Sentence]
    advice: list[MetalAdviceOut]
    lives: list[LifeCost]


class Decoded(Schema):
    """A designation, explained."""

    text: str
    kind: str
    standard: str
    designation: str
    other: str
    parts: list[PartOut]
    edges: int | None
    edges_why: str
    seat: str
    drawing: InsertDrawingOut | None
    remarks: list[str]
    partners: list[str]
    in_crib: int


class PropertyOut(Schema):
    """An ISO 13399 property of a tool."""

    symbol: str
    name: str
    display: DisplayOut


class SpanOut(Schema):
    """A supplier's span."""

    min: DisplayOut | None
    start: DisplayOut | None
    max: DisplayOut | None


class WindowOut(Schema):
    """A supplier's window in one group."""

    id: int
    group: int
    speed: SpanOut
    feed: SpanOut
    depth: SpanOut
    source: str


class GradeNeighbour(Schema):
    """The same edge in another grade: what it is to this one, its row and name."""

    word: str
    id: int
    name: str


class ToolSheet(ToolRow):
    """A tool with its properties and windows."""

    decoded: Decoded | None
    properties: list[PropertyOut]
    windows: list[WindowOut]
    partners: list[str]
    geometry_window: list[Point]
    round: RoundToolOut | None
    successor: str
    successor_id: int | None
    neighbours: list[GradeNeighbour]


class GeometryRow(Schema):
    """A chipbreaker geometry in the list."""

    id: int
    version: int
    name: str
    purpose: str
    suits: str
    window: list[Point]
    rake: DisplayOut
    edge_radius: DisplayOut
    curl_radius: DisplayOut | None
    wiper: bool
    flank: str
    source: str


class PointsIn(Schema):
    """The corners of a chip window."""

    points: list[list[float]] = Field(min_length=3, max_length=40)
    units: Units = "mm"


class PointOut(Schema):
    """A corner of a chip window."""

    feed: DisplayOut
    depth: DisplayOut


class Hull(Schema):
    """The field that points enclose, with the points in words and the axes to draw it on."""

    hull: list[Point]
    points: list[PointOut]
    feed_top: float
    depth_top: float
    feed_ticks: list[TickOut]
    depth_ticks: list[TickOut]


class GradeRow(Schema):
    """A grade in the list."""

    id: int
    name: str
    tool_class: str
    substrate: str
    coating: str
    spans: list[str]
    bars: list[list[Any]]
    main_letter: str
    toughness: float
    temperature_limit: str
    source: str


class CheckOut(Schema):
    """A rule of fit, kept or broken."""

    name: str
    fits: bool
    reason: str


ToolNames = dict[Annotated[str, Field(max_length=20)], Annotated[str, Field(max_length=180)]]  # parts by role


class AssemblyIn(Schema):
    """A tool put together of its parts."""

    name: str = Field(min_length=1, max_length=80)
    tool: ToolNames
    overhang: str = Field(max_length=40)
    machine: str = Field(default="", max_length=80)
    pocket: str = Field(default="", max_length=10)
    note: str = Field(default="", max_length=200)
    units: Literal["mm", "inch"] = "mm"


class FitIn(Schema):
    """An assembly that is being thought of."""

    tool: ToolNames
    machine: str = Field(default="", max_length=80)
    overhang: str = Field(default="", max_length=40)
    units: Literal["mm", "inch"] = "mm"


class AssemblyOut(Schema):
    """An assembly with what does not go together."""

    id: int
    name: str
    tool: dict[str, str]
    overhang: DisplayOut
    machine: str
    pocket: str
    note: str
    checks: list[CheckOut]
    fits: bool
    drawing: ToolPlanOut | None
    round: DrillDrawingOut | None


class ToolPlanOut(Schema):
    """Insert and holder in plan, mm: the tip at the origin, x along the part away from the chuck."""

    insert: list[Point]
    holder: list[Point]


class KindOut(Schema):
    """A kind of tool: what its edge has, and the properties it carries."""

    name: str
    carries: list[str]
    properties: list[str]
    required: list[str]
