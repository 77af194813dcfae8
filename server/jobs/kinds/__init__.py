"""What each kind of operation shows of its own: its view, its table and its facts; one line per kind."""

from __future__ import annotations

from types import MappingProxyType
from typing import Annotated

from pydantic import Field

from server.jobs.kinds import (
    bore,
    cut_off,
    drill,
    face_groove,
    groove,
    heavy_bore,
    mill_hole,
    mill_thread,
    tap,
    trepan,
    turn_thread,
    turned,
)
from server.jobs.kinds.view import Viewer

VIEWERS: MappingProxyType[str, Viewer] = MappingProxyType(
    {
        "turn": turned.VIEWER,
        "face": turned.VIEWER,
        "groove": groove.VIEWER,
        "face groove": face_groove.VIEWER,
        "trepan": trepan.VIEWER,
        "drill": drill.VIEWER,
        "mill hole": mill_hole.VIEWER,
        "bore": bore.VIEWER,
        "heavy bore": heavy_bore.VIEWER,
        "turn thread": turn_thread.VIEWER,
        "tap": tap.VIEWER,
        "mill thread": mill_thread.VIEWER,
        "cut off": cut_off.VIEWER,
    }
)
AnyView = Annotated[
    turned.TurnedView
    | groove.GrooveView
    | face_groove.FaceGrooveView
    | trepan.TrepanView
    | drill.DrillView
    | mill_hole.MillHoleView
    | bore.BoreView
    | heavy_bore.HeavyBoreView
    | turn_thread.TurnThreadView
    | tap.TapView
    | mill_thread.MillThreadView
    | cut_off.CutOffView,
    Field(discriminator="kind"),
]
