"""Passes, how surely their size is met, and the offset ledger, as the API gives them."""

from __future__ import annotations

from collections.abc import Sequence

from cutting.operations.frame.outcome import Outcome
from cutting.operations.turned.planner import PassPlan
from cutting.operations.turned.setup import Setup
from cutting.operations.turned.size_control import Ledger
from cutting.quantities import display
from cutting.sizing.settling import SettlingFit
from server.jobs.kinds.view import chip_out
from server.jobs.models import Measurement
from server.jobs.studies.answers import Answer, small


def plan_out(found: PassPlan, setup: Setup, outcome: Outcome, ledger: Answer | None) -> Answer:
    """Passes and bounds in words."""
    every = outcome.results.get("correct_every")
    smaller, larger = sorted((setup.feature.start_diameter, setup.target_diameter))
    return {
        "bounds": [{**vars(bound)} for bound in found.bounds],
        **{name: display(round(getattr(found, name), 3), "length") for name in ("deepest", "shallowest", "equal_depth")},
        "stock": display(setup.stock_to_remove, "length"),
        "fewest": found.fewest,
        "passes": [
            {
                "number": p.number,
                "depth": display(round(p.depth, 4), "length"),
                "to_diameter": display(p.to_diameter, "length"),
                "push": display(p.passive_force, "force"),
                "springs": small(p.size_error),
                "chip": chip_out(p.chip),
            }
            for p in outcome.passes
        ],
        "notes": found.notes,
        "drift": outcome.results["drift"].display,
        "correct_every": every.display.metric if every else None,
        "explicit": bool(setup.settings.pass_depths),
        "ledger": ledger,
        "working": [
            f"stock = ({larger:.5g} − {smaller:.5g})/2 = {setup.stock_to_remove:.4g} mm",
            f"fewest = ⌈{setup.stock_to_remove:.4g}/{found.deepest:.3g}⌉ = {found.fewest}; equal depth {found.equal_depth:.4g} mm",
            "each bound: the depth at which that limit stands at its bound, from one run over 160 depths",
            f"growth by wear = 2·0.3 mm·tan(clearance)/pieces that the edge lasts = {outcome.results['drift'].value:.3g} µm (ISO 3685)",
        ],
    }


def _of_tolerance(share: float) -> str:
    return f"{share:.0%} of the tolerance" if share < 2.0 else f"{share:.0f} times the tolerance"


def _chance(share: float) -> str:
    return f"{share:.0%}" if share < 0.995 else "over 99%"


def fit_out(found: SettlingFit) -> Answer:
    """How surely the fit is met, cut by measured cut."""
    width = found.upper - found.lower
    return {
        "aim": display(round(found.aim, 4), "length"),
        "shares": [
            {"name": one.name, "spread": small(2.0 * one.spread), "why": one.why, "of_tolerance": _of_tolerance(4.0 * one.spread / width)}
            for one in found.shares
        ],
        "stages": [
            {"measured": one.measured, "spread": small(2.0 * one.spread), "chance": _chance(one.chance),
             "grade": f"IT{one.grade}" if one.grade else "wider than IT12"}
            for one in found.stages
        ],
    }  # fmt: skip


def ledger_out(found: Ledger, setup: Setup, rows: Sequence[Measurement]) -> Answer:
    """The ledger of sizes in words."""
    by_place = {(row.piece, row.pass_number): row.pk for row in rows}
    following = found.next
    return {
        "rows": [
            {
                "id": by_place[(entry.piece, entry.pass_number)],
                "piece": entry.piece,
                "pass_number": entry.pass_number,
                "commanded": display(entry.commanded, "length"),
                "measured": display(entry.measured, "length"),
                "at_20": display(round(entry.at_20, 4), "length"),
                "actual_depth": display(round(entry.actual_depth, 4), "length"),
                "force": display(entry.force, "force"),
                "offset": small(entry.offset),
                "expected": small(entry.expected) if entry.expected is not None else None,
            }
            for entry in found.entries
        ],
        "doubtful": [
            {
                "id": by_place[(one.piece, one.pass_number)],
                "piece": one.piece,
                "pass_number": one.pass_number,
                "commanded": display(one.commanded, "length"),
                "measured": display(one.measured, "length"),
            }
            for one, _ in found.doubtful
        ],
        "piece": max([one.piece for one in found.entries] + [one.piece for one, _ in found.doubtful], default=1),
        "next": {
            "pass_number": following.pass_number,
            "target": display(round(following.target, 4), "length"),
            "depth": display(round(following.depth, 4), "length"),
            "force": display(following.force, "force"),
            "offset": small(following.offset),
            "low": small(following.low),
            "high": small(following.high),
            "command": display(round(following.command, 3), "length"),
            "last": following.last,
        }
        if following
        else None,
        "setting": small(found.setting),
        "setting_band": small(1.96 * found.setting_spread),
        "springing": small(found.springing),
        "springing_band": small(1.96 * found.springing_spread),
        "springing_taught": found.springing_taught,
        "fit": fit_out(found.fit) if found.fit else None,
        "uncertainty": small(setup.house.measuring_uncertainty),
        "warmth": {
            "growth": small(found.warmth.growth),
            "bound": small(found.warmth.allowed),
            "utilisation": found.warmth.utilisation,
            "broken": found.warmth.broken,
        }
        if found.warmth
        else None,
        "notes": found.notes,
        "warnings": found.warnings,
        "working": _ledger_working(found),
    }


def _ledger_working(found: Ledger) -> list[str]:
    lines = ["measured − commanded = a + c·Fp: a the setting of the tool, c what part and tool post spring per newton of passive force"]
    lines.append(
        f"before measuring: a unknown, c = 2·(beam + tool post) = {1000 * found.prior_spring:.3g} µm/N ± 40 % (stepped beam, Roark)"
    )
    for entry in found.entries:
        lines.append(
            f"pass {entry.pass_number}: {entry.at_20:.4f} − {entry.commanded:.4f} = {1000 * entry.offset:+.1f} µm at Fp"
            f" {entry.force:.0f} N, actual depth {entry.actual_depth:.4f} mm, known to ± {1000 * entry.uncertainty:.1f} µm"
        )
    if found.next and found.entries:
        slope = 1000 * found.springing / max(found.next.force, 1e-9)
        lines.append(f"least squares with that prior: a = {1000 * found.setting:.1f} µm, c = {slope:.3g} µm/N (linear Bayes)")
        lines.append(
            f"next: a + c·{found.next.force:.0f} N = {1000 * found.next.offset:.1f} µm;"
            f" command {found.next.target:.4f} − {found.next.offset:.4f} = {found.next.command:.4f} mm"
        )
    return [line.replace("-", "−") for line in lines]
