"""The cycle tape: one segment per thing that takes time, with its seconds and its money."""

from __future__ import annotations

from dataclasses import dataclass

from cutting.belief.bands import band
from cutting.machine.machines import Machine
from cutting.operations.frame.outcome import Outcome
from cutting.quantities.kinds import currency
from cutting.quantities.write import Display, display


@dataclass(frozen=True)
class TapeSegment:
    """One stretch of the tape; `kind` is cut, idle, edges (share of edge changes) or handling."""

    kind: str
    operation: str | None
    label: str
    seconds: float
    money: float


@dataclass(frozen=True)
class PieceMoney:
    """What a piece costs besides cutting: blank each, set-up minutes per batch, share of good pieces."""

    blank: float = 0.0
    setup_minutes: float = 0.0
    good_share: float = 1.0


@dataclass(frozen=True)
class Tape:
    """Segments in order, and totals per good piece with their band."""

    segments: tuple[TapeSegment, ...]
    seconds: float
    money: float
    seconds_display: Display
    money_display: Display
    seconds_band: tuple[float, float]
    money_band: tuple[float, float]
    working: tuple[str, ...]


def cycle_tape(outcomes: list[tuple[str, str, Outcome]], machine: Machine, pieces: int, piece: PieceMoney) -> Tape:
    """Tape of a piece from its operations' (identity, title, outcome).

    Money per piece = (rate/3600·seconds + edges + blank + set-up/batch)/good share. Source: Groover, ch. 24.
    """
    per_second = machine.rate / 3600.0
    segments: list[TapeSegment] = []
    low = high = edges_total = 0.0
    for identity, title, outcome in outcomes:
        total = outcome.results["operation_time"].value
        cut_seconds = sum(p.seconds for p in outcome.passes)
        changes = outcome.results["change_parts"].value
        change_seconds = 60.0 * machine.edge_change_time / changes
        edges = outcome.results["operation_cost"].value - per_second * total
        segments.append(TapeSegment("cut", identity, title, cut_seconds, per_second * cut_seconds + edges))
        idle = max(total - cut_seconds - change_seconds, 0.0)
        segments.append(TapeSegment("idle", identity, "index, approach and return", idle, per_second * idle))
        segments.append(TapeSegment("edges", identity, "share of edge changes", change_seconds, per_second * change_seconds))
        sooner, later = band("seconds").about(total)
        if "deburr_time" in outcome.results and (by_hand := outcome.results["deburr_time"].value) > 0:
            segments.append(TapeSegment("handling", identity, "deburr by hand", by_hand, per_second * by_hand))
            hand = band("by hand").about(by_hand)
            low, high = low + hand[0], high + hand[1]
        low, high = low + sooner, high + later
        edges_total += edges
    segments.append(TapeSegment("handling", None, "load and unload", machine.handling_time, per_second * machine.handling_time))
    seconds = sum(s.seconds for s in segments)
    setup = piece.setup_minutes * 60.0 * per_second / pieces
    money = (sum(s.money for s in segments) + piece.blank + setup) / piece.good_share
    working = (
        f"{seconds:.1f} s × {machine.rate:g} {currency()}/h ÷ 3600 = {per_second * seconds:.2f} {currency()}",
        f"edges {edges_total:.2f} {currency()} · blank {piece.blank:.2f} {currency()}"
        f" · set-up {piece.setup_minutes:g} min ÷ {pieces} = {setup:.2f} {currency()}",
        f"sum ÷ good share {piece.good_share:g} = {money:.2f} {currency()} per piece (Groover, ch. 24)",
    )
    life = band("life")
    return Tape(
        tuple(segments),
        seconds,
        money,
        display(seconds, "duration"),
        display(money, "money"),
        (low + machine.handling_time, high + machine.handling_time),
        (money - edges_total * (1 - 1 / life.high), money + edges_total * (1 / life.low - 1)),
        working,
    )
