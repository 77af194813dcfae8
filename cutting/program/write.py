"""A path as a program: block by block, in long hand."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

from cutting.motion.moves import (
    Arc,
    Coolant,
    Dwell,
    Feed,
    Helix,
    Path,
    Per,
    Plane,
    Point,
    Rapid,
    SpindleOn,
    Step,
    Sync,
    ThreadPass,
    ToolChange,
)
from cutting.program.cycles import HoleCycle, folded
from cutting.program.dialect import Dialect

INCH = 25.4
AXES = "XYZ"
NO_COOLANT = ("", "dry")
WHOLE = 1e-9  # turns


def unrolled(path: Path) -> tuple[Step, ...]:
    """The steps of a path with its helices turn by turn, as a control goes them; ways of no length are left out."""
    steps, at = list[Step](), path.start
    for step in path.steps:
        for one in _turns(at, step) if isinstance(step, Helix) else (step,):
            if isinstance(one, Rapid | Feed | ThreadPass) and one.to == at:
                continue
            steps.append(one)
            at = one.to if isinstance(one, Rapid | Feed | Arc | Helix | ThreadPass) else at
    return tuple(steps)


def _turns(at: Point, helix: Helix) -> Iterator[Helix]:
    """A helix in whole turns and what is left of one at its end."""
    whole = int(helix.turns + WHOLE)
    rise = (helix.to[2] - at[2]) / helix.turns if helix.turns else 0.0
    rest = helix.turns - whole
    for k in range(1, whole + 1):
        last = k == whole and rest <= WHOLE
        yield replace(helix, to=helix.to if last else (at[0], at[1], at[2] + k * rise), turns=1.0)
    if rest > WHOLE:
        yield replace(helix, turns=rest)


def write(path: Path, dialect: Dialect, title: str = "", tool: int = 1, zero: float = 0.0, inch: bool = False) -> str:
    """The program of a path, its lines ended by line feeds.

    `title` stands in its first comment, `tool` is the number of the tool's place, `zero` what is taken from every z [mm] so that the
    program's zero lies there. Source: ISO 6983-1, the words of the dialect.
    """
    return "\n".join(_numbered(_blocks(path, dialect, title, tool, zero, inch), dialect)) + "\n"


@dataclass(frozen=True)
class JobStep:
    """An operation of a job in its program: number, title, path, its tool's place, the zero's z [mm], and a halt before it in words."""

    number: int
    title: str
    path: Path
    tool: int
    zero: float = 0.0
    halt: str = ""


def write_job(steps: Sequence[JobStep], dialect: Dialect, title: str, inch: bool = False) -> str:
    """The program of a whole job in run order; each operation begins with its own modes, so that it can be started from there."""
    return "\n".join(_numbered(_job_blocks(steps, dialect, title, inch), dialect)) + "\n"


def _job_blocks(steps: Sequence[JobStep], dialect: Dialect, title: str, inch: bool) -> Iterator[str]:
    opens, closes = dialect.comment
    yield f"{opens}{_plain(title)}{closes}"
    for step in steps:
        if step.halt:
            yield f"M0 {opens}{_plain(step.halt)}{closes}"
        yield from list(_blocks(step.path, dialect, f"OPERATION {step.number}: {step.title}", step.tool, step.zero, inch))[:-1]
    yield dialect.end


def _numbered(blocks: Iterator[str], dialect: Dialect) -> Iterator[str]:
    for k, block in enumerate(blocks, 1):
        yield f"N{k * dialect.numbered} {block}" if dialect.numbered else block


def _blocks(path: Path, dialect: Dialect, title: str, tool: int, zero: float, inch: bool) -> Iterator[str]:
    form, (opens, closes) = _Form(dialect, zero, INCH if inch else 1.0), dialect.comment
    scale, first = form.scale, True
    if title:
        yield f"{opens}{_plain(title)}{closes}"
    yield " ".join(("G20" if inch else "G21", "G90", *dialect.start))
    at, mode, feed = path.start, "", ""
    spindle = SpindleOn(0.0, 0.0)
    steps, skip = unrolled(path), 0
    for k, step in enumerate(steps):
        if k < skip:
            continue
        if dialect.cycles and (made := folded(steps, k)) is not None:
            took, cycle, at = made
            skip, first = k + took, False
            yield _cycle(cycle, at, dialect, form)
            yield "G80"
            mode, feed = dialect.per_turn if cycle.per is Per.TURN else dialect.per_minute, ""
            continue
        match step:
            case ToolChange(name, _):
                yield f"{dialect.tool.format(number=tool)} {opens}{_plain(name)}{closes}"
            case SpindleOn():
                spindle = step
                yield from _spindle(step, dialect, inch)
            case Coolant(delivery):
                yield "M9" if delivery in NO_COOLANT else f"M8 {opens}{_plain(delivery)}{closes}"
            case Sync():
                continue  # the word of the thread ties the spindle
            case Dwell() if spindle.top <= 0.0:  # somebody works at the tool: it goes on when they say so, never by time
                yield f"M0 {opens}BY HAND{closes}"
            case Dwell(seconds, turns):
                n = spindle.at(2.0 * abs(at[0]) if dialect.turns else 0.0)
                still = seconds + (60.0 * turns / n if turns and n > 0 else 0.0)
                yield f"G4 {dialect.dwell}{still * dialect.dwell_in:.{0 if dialect.dwell_in > 1 else 2}f}"
            case ThreadPass(to, lead):
                pitch = f"{dialect.thread_lead}{lead / scale:.{form.lead_decimals}f}"
                yield f"{dialect.thread} {_place(at, to, form)} {pitch}"
                at, feed = to, ""
            case Rapid(to):
                yield f"G0 {_place(at, to, form, first)}"  # nobody knows where the tool stood before
                at, first = to, False
            case Feed() | Arc() | Helix():
                per = step.per if isinstance(step, Feed | Arc) else Per.MINUTE
                wanted = dialect.per_turn if per is Per.TURN else dialect.per_minute
                said = f"F{step.feed / scale:.{dialect.feed_decimals if per is Per.TURN else 1}f}"
                lead_in = f"{wanted} " if wanted != mode else ""
                shown = f" {said}" if said != feed or wanted != mode else ""
                way = _place(at, step.to, form, not isinstance(step, Feed)) + _round(at, step, form)
                yield f"{lead_in}{_motion(step)} {way}{shown}"
                at, mode, feed = step.to, wanted, said
    yield f"{dialect.stop} M9"
    yield dialect.end


def _spindle(step: SpindleOn, dialect: Dialect, inch: bool) -> Iterator[str]:
    """The spindle on, at one speed or at a cutting speed with its clamp; or stopped."""
    if step.top <= 0.0:
        yield dialect.stop
    elif step.cutting_speed > 0.0 and step.low < step.top and dialect.turns:
        yield f"{dialect.clamp} S{step.top:.0f}"
        speed = step.cutting_speed * (1000.0 / INCH / 12.0 if inch else 1.0)  # ft/min
        yield f"G96 S{speed:.0f} {'M4' if step.backwards else 'M3'}"
    else:
        yield f"G97 S{step.at(0.0):.0f} {'M4' if step.backwards else 'M3'}"


def _cycle(cycle: HoleCycle, at: Point, dialect: Dialect, form: _Form) -> str:
    """A hole by its cycle: where it is, R, the bottom, its dwell and feed; on a lathe it always comes back to R."""
    wanted = dialect.per_turn if cycle.per is Per.TURN else dialect.per_minute
    decimals = 1 if cycle.per is Per.MINUTE else form.lead_decimals if cycle.word == "G84" else dialect.feed_decimals
    back = "" if dialect.turns else "G99 "
    place = f"X{form.number(at[0], 0)}" + ("" if dialect.turns else f" Y{form.number(at[1], 1)}")
    depths = f"Z{form.number(cycle.bottom, 2)} R{form.number(cycle.clear, 2)}"
    dwell = f" P{cycle.dwell * 1000.0:.0f}" if cycle.dwell else ""
    return f"{wanted} {back}{cycle.word} {place} {depths}{dwell} F{cycle.feed / form.scale:.{decimals}f}"


def _motion(step: Feed | Arc | Helix) -> str:
    if isinstance(step, Feed):
        return "G1"
    # the path counts from x to z, a control from z to x
    clockwise = step.clockwise if isinstance(step, Helix) or step.plane is Plane.XY else not step.clockwise
    return "G2" if clockwise else "G3"


@dataclass(frozen=True)
class _Form:
    """How numbers are written: from which zero [mm], in units of so many mm; in inches a figure more."""

    dialect: Dialect
    zero: float
    scale: float

    @property
    def decimals(self) -> int:
        return self.dialect.decimals + (self.scale != 1.0)

    @property
    def lead_decimals(self) -> int:
        """Of a lead, which adds up over a thread: one more than of a feed, and another in inches."""
        return self.dialect.feed_decimals + 1 + (self.scale != 1.0)

    def number(self, value: float, axis: int) -> str:
        """A coordinate [mm] of an axis."""
        wide = 2.0 if axis == 0 and self.dialect.diameter else 1.0
        found = f"{(wide * value - (self.zero if axis == 2 else 0.0)) / self.scale:.{self.decimals}f}"
        return found.lstrip("-") if float(found) == 0.0 else found


def _place(at: Point, to: Point, form: _Form, every: bool = False) -> str:
    """The axes that move, or every one of them; of an arc those of its plane."""
    said = []
    for axis, k, before, after in zip(AXES, range(3), at, to, strict=True):
        if axis == "Y" and form.dialect.turns:
            continue
        text = form.number(after, k)
        if every or text != form.number(before, k):
            said.append(f"{axis}{text}")
    return " ".join(said) or f"Z{form.number(to[2], 2)}"


def _round(at: Point, step: Feed | Arc | Helix, form: _Form) -> str:
    """The centre of an arc from where it begins."""
    if isinstance(step, Feed):
        return ""
    across = (("I", 0), ("J", 1)) if isinstance(step, Helix) or step.plane is Plane.XY else (("I", 0), ("K", 2))
    return "".join(f" {word}{(step.centre[k] - at[k]) / form.scale:.{form.decimals}f}" for word, k in across)


def _plain(text: str) -> str:
    """A comment's words: capitals and figures that every control shows, no brackets."""
    kept = {"Ø": "D", "×": "X", "(": "", ")": "", ";": ","}
    return "".join(kept.get(one, one) for one in text).upper().encode("ascii", "replace").decode().replace("?", " ").strip()
