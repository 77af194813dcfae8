"""What the ways to a thread show alike: words of the thread, its table of hands, facts for paper."""

from __future__ import annotations

from cutting.errors import CuttingError
from cutting.operations.threads.shared.feature import ThreadFeature
from cutting.quantities import Display, display
from cutting.workpiece.threads.measuring import gauges, over_wires
from cutting.workpiece.threads.spelling import write_thread
from server.jobs.kinds.view import both, length


def thread_words(f: ThreadFeature) -> str:
    """The thread with its class, as it is gauged."""
    cls = "" if f.thread.class_name else f"-{f.limits.class_name}" if f.limits.class_name else ""
    return f"{write_thread(f.thread)}{cls} {'inside' if f.internal else 'outside'}"


def size_labels(f: ThreadFeature) -> dict[str, Display]:
    """Thread, length and pitch diameter."""
    pitch = f.limits.pitch
    return {
        "thread": Display(thread_words(f), thread_words(f)),
        "length": display(f.length, "length"),
        "pitch": display(f.thread.pitch, "length"),
        "pitch_low": display(round(pitch.low or 0.0, 3), "length", False),
        "pitch_high": display(round(pitch.high or 0.0, 3), "length"),
    }


def thread_facts(f: ThreadFeature, system: str) -> list[tuple[str, str]]:
    """The thread's lines on the set-up sheet: limits, gauges, over wires."""
    low, high = f.limits.pitch.low or 0.0, f.limits.pitch.high or 0.0
    lead = f", lead {length(f.thread.lead, system)} with {f.thread.starts} starts" if f.thread.starts > 1 else ""
    found = [
        ("thread", f"{thread_words(f)}, {length(f.length, system)} of full thread{lead}"),
        ("pitch Ø", f"{length(round(low, 3), system)} to {length(round(high, 3), system)}"),
    ]
    try:
        over = over_wires(f.thread, f.limits.pitch.middle, None, f.internal)
        where = "between balls" if f.internal else "over wires"
        found.append(
            (
                where,
                f"{both(display(round(over.measure, 3), 'length'), system)} with Ø {length(round(over.wire, 3), system)}, at the middle",
            )
        )
    except CuttingError:
        pass
    go = gauges(f.thread, f.limits)[:2]
    found.append(("gauges", "; ".join(f"{one.name}: {one.must}" for one in go)))
    return found
