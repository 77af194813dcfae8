"""The numbers of a drill in its chuck, in these layers and on this machine: for one pair, or for many at once."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache
from typing import Any

import numpy as np
from numpy.typing import NDArray

from cutting.errors import CuttingError
from cutting.mechanics.jet import nozzle_flow
from cutting.operations.frame.in_metal import ONLY, pressure_outside, shut_in, stock_of_one
from cutting.operations.frame.pairs import Pairs
from cutting.operations.frame.setup import Skin
from cutting.operations.holes.drill.setup import DrillSetup
from cutting.operations.holes.shared.in_chuck import own_numbers, play, seated
from cutting.tooling.drill_stock import DrillStock
from cutting.tooling.drills import Drill, DrillType
from cutting.tooling.items import Grade
from cutting.tooling.roles import Index
from cutting.wear.drilling import drill_feeds, drill_speeds, feed_row

Array = NDArray[np.float64]
Mask = NDArray[np.bool_]
BESIDE = ("flood", "mist", "dry")  # what a machine that turns the tool brings beside it, never through its spindle
GRINDS = 0.35  # exponent of Taylor's law where fibres grind an edge away: the way counts more than the speed (common practice)
STANDS = 0.5  # of it that counts where the drill stands: the part turns true, the point finds its middle (common practice)
MIST, FLOODED = 1.0, 1.5  # bar from which outside coolant counts as some and as enough


@dataclass(frozen=True)
class DrillTool(Pairs):
    """Every array has shape (pairs, 1) or (1,), by layer (pairs, layers) or (layers,); lengths mm, angles °, money of one life."""

    pressure: Array  # bar at its own coolant outlets, 0 where none come through it
    flow: Array  # l/min through them
    runout: Array  # at the corner, of chuck and spindle
    grip: Array  # N·m
    feed_low: Array  # by layer
    feed_high: Array
    speed_low: Array
    speed_high: Array
    reference_feed: Array
    speed_factor: Array
    taylor_exponent: Array
    feed_exponent: Array
    coefficient_of_variation: Array
    toughness: Array
    softening: Array  # °C at which its edge gives way
    serves: Mask  # by layer: whether the grade's letters do
    side_use: Array
    burns: Mask  # by layer: diamond on iron
    diamond: Mask
    seats: Mask
    hss: Mask


def drill_tools(setup: DrillSetup, stock: DrillStock, left: Index, right: Index) -> DrillTool:
    """The numbers of pairs of the stock's drills and chucks; shape (pairs, 1) or (pairs, layers)."""
    layers = setup.layers
    columns, chucks = stock.drill_columns, stock.chuck_columns
    machine, delivery = setup.machine, setup.settings.coolant
    # drills of one type, grade and size start alike: few among many
    alike: dict[tuple[str, str, str, float], Drill] = {}
    names = [(one.type.kind, one.type.tool_class, one.grade.name, one.diameter) for one in stock.drills]
    for name, one in zip(names, stock.drills, strict=True):
        alike.setdefault(name, one)
    places = {name: k for k, name in enumerate(alike)}
    kind = np.array([places[name] for name in names], np.intp)
    known: dict[tuple[str, str, int], dict[str, float]] = {}  # what a grade does in a layer is of every size the same
    rows = [[_in_layer(setup, one.type, one.grade, one.diameter, k, known) for k in range(len(layers))] for one in alike.values()]
    found = {name: np.array([[one[name] for one in row] for row in rows], float).reshape(len(rows), len(layers)) for name in IN_LAYER}

    def by_layer(name: str) -> Array:
        return np.asarray(found[name][kind[left]])

    def of_drills(values: Any) -> Any:
        return np.array(list(values))[left][:, None]

    own = own_numbers(columns, chucks, left, right)
    through = of_drills(one.through for one in stock.drills) & np.array([one.through for one in stock.chucks], bool)[right][:, None]
    pressure, flow = supply(machine, delivery, through, own["coolant_holes"], own["coolant_hole"])
    laws = [one.grade for one in stock.drills]
    letters = [layer.material.group.letter for layer in layers]
    return DrillTool(
        own=own,
        pressure=pressure,
        flow=flow,
        runout=(STANDS if machine.turns else 1.0) * (own["chuck_runout"] + play(machine)),
        grip=own["chuck_grip"] * np.where(own["shank"] > 0, own["shank"], own["diameter"]) ** 2,
        feed_low=by_layer("feed_low"),
        feed_high=by_layer("feed_high"),
        speed_low=by_layer("speed_low"),
        speed_high=by_layer("speed_high"),
        reference_feed=by_layer("reference_feed"),
        speed_factor=by_layer("speed_factor"),
        taylor_exponent=by_layer("taylor_exponent"),
        feed_exponent=by_layer("feed_exponent"),
        coefficient_of_variation=by_layer("scatter"),
        toughness=of_drills(grade.toughness for grade in laws),
        softening=of_drills(grade.temperature_limit or 1000.0 for grade in laws),
        serves=by_layer("serves") > 0,
        side_use=of_drills(float(grade.main_letter not in letters) for grade in laws),
        burns=by_layer("burns") > 0,
        seats=seated(machine, stock.chucks, right),
        hss=of_drills(grade.tool_class == "hss" for grade in laws),
        diamond=of_drills(_diamond(grade) for grade in laws),
    )


def _diamond(grade: Grade) -> bool:
    return grade.tool_class == "pcd" or grade.coating == "diamond"


IN_LAYER = (
    "serves", "burns", "feed_low", "feed_high", "speed_low", "speed_high", "reference_feed", "speed_factor", "taylor_exponent",
    "feed_exponent", "scatter",
)  # fmt: skip


def _in_layer(
    setup: DrillSetup, made: DrillType, grade: Grade, diameter: float, k: int, known: dict[tuple[str, str, int], dict[str, float]]
) -> dict[str, float]:
    """A kind of drill in one layer: windows of feed and speed, law of life; nan where the trade does not run it there."""
    layer = setup.layers[k]
    assert layer.work
    material = layer.material
    feeds, speeds = drill_feeds(made, diameter, material, layer.work.hardness), drill_speeds(made, grade.tool_class, material)
    letter = material.group.letter
    found = {"serves": float(letter in grade.letters), "burns": float(_diamond(grade) and letter in "PMKH")}
    if feeds is None or speeds is None:
        return {**dict.fromkeys(IN_LAYER, float("nan")), **found}
    low, high, law = speeds
    name = made.kind, grade.name, k
    if (alone := known.get(name)) is None:
        skin = setup.skin if k == 0 else Skin.CLEAN
        alone = known[name] = shut_in(layer.work, grade, law, (low, high), pressure_outside(setup), skin)
    return {
        **found,
        "feed_low": feeds[0],
        "feed_high": feeds[1],
        "reference_feed": (feeds[0] + feeds[1]) / 2.0,
        **alone,
        "taylor_exponent": max(law.taylor_exponent, GRINDS) if layer.laminate else law.taylor_exponent,
    }


def supply(machine: Any, delivery: str, through: Any, holes: Any, hole: Any) -> tuple[Array, Array]:
    """Pressure [bar] and flow [l/min] at a drill's own outlets: the machine's, less where its pump cannot feed them."""
    pressure = machine.pressure(delivery) or 0.0
    through = through & (machine.turns or delivery not in BESIDE)
    wanted = np.where(through, nozzle_flow(holes, hole, pressure), 0.0)
    budget = pump_budget(machine, pressure)
    share = np.minimum(1.0, budget / np.maximum(wanted, 1e-9))
    return np.where(through, pressure * share**2, 0.0), wanted * share


def pump_budget(machine: Any, pressure: float) -> float:
    """What the pump delivers at a pressure [l/min]: its flow at the highest, more in proportion below, up to double; inf if not given."""
    if machine.pump_flow <= 0 or pressure <= 0:
        return float("inf")
    highest = max(bar for _, bar in machine.coolant)
    return float(machine.pump_flow * min(highest / pressure, 2.0))


@lru_cache(maxsize=64)
def single_tool(setup: DrillSetup) -> DrillTool:
    """The numbers of the set-up's own tool, shape (1,) or (layers,). Raises `CuttingError` for a set-up that cannot be."""
    setup.check()
    tool = drill_tools(setup, stock_of_one(DrillStock, setup.drill, setup.chuck), ONLY, ONLY).take(0)
    missing = np.flatnonzero(np.isnan(tool.speed_high))
    if len(missing):
        material = setup.layers[int(missing[0])].material
        raise CuttingError(
            "tool.drill",
            f"a {setup.drill.type.kind} of {setup.drill.grade.tool_class} is not run in {material.name} ({feed_row(material)}).",
        )
    return tool
