"""Trouble as the trade knows it: what is seen, what was found on looking, and the cause that a master names first.

Source of every row: common practice, no single source; written down before the clinic was run on them.
"""

from __future__ import annotations

import pytest

from cutting.clinic.suspects import case_of, case_of_kind, diagnose
from cutting.doors.json_form import read_setup
from tests.core.every_kind import EVERY_KIND

NO = False
AT: dict[str, dict[str, object]] = {"built_up_slow": {"cutting_speed": 45}}  # where the operation's own numbers must let it be
CASES = (
    # kind, seen, found on looking, the master's first
    ("turn", "long_chips", {"chip_thin": True}, "feed_below_breaker"),
    ("turn", "long_chips", {"bigger_depth": True}, "depth_under_nose light_last_cut"),
    ("turn", "long_chips", {"marking": True}, "breaker_for_other_metal"),
    ("turn", "packed_chips", {"program": True}, "above_breaker program_wrong"),
    ("turn", "packed_chips spindle_slows", {"wear_land": True}, "edge_worn"),
    ("turn", "torn_surface welded_chips", {"edge_metal": True}, "built_up_slow"),
    ("turn", "torn_surface", {"true_speed": True}, "speed_out_of_reach"),
    ("turn", "smeared_surface", {"chip_thin": True}, "rubbing"),
    ("turn", "feed_lines", {"line_pitch": True, "corner_gauge": NO}, "feed_for_finish"),
    ("turn", "feed_lines", {"corner_gauge": True}, "corner_small"),
    ("turn", "one_scratch", {"edge_nick": True}, "edge_nicked"),
    ("turn", "waves squeal", {"pitch_part": True}, "part_rings"),
    ("turn", "waves squeal", {"overhang": True}, "overhang_long"),
    ("turn", "thick_free_end", {"spring_pass": True}, "part_springs"),
    ("turn", "thick_at_chuck", {"collar_test": True}, "tailstock_out"),
    ("turn", "barrel", {"spring_pass": True}, "bends_between"),
    ("turn", "hourglass", {"centre_force": True}, "centre_loose"),
    ("turn", "size_wanders", {"bigger_depth": True}, "light_last_cut"),
    ("turn", "size_wanders", {"seat": True}, "seat_bad"),
    ("turn", "size_wanders", {"stop_clean": True}, "chips_on_stop"),
    ("turn", "wrong_cold", {"part_warm": True}, "warm_part"),
    ("turn", "out_of_round", {"grip_relax": True}, "grip_hard"),
    ("turn", "flank_wear", {"hardness": True}, "bar_hard"),
    ("turn", "flank_wear blue_chips", {"true_fast": True}, "speed_high"),
    ("turn", "notch", {"same_depth": True}, "hardened_layer"),
    ("turn", "comb_cracks", {"gaps": True}, "thermal_shock"),
    ("turn", "chipping", {"gaps": True}, "gaps_unsaid"),
    ("turn", "dear_part", {"corners_left": True}, "changed_early"),
    ("turn", "dear_part", {"watch": True}, "machine_waits"),
    ("bore", "waves squeal", {"pitch_tool": True}, "bar_rings"),
    ("bore", "tapered_bore", {"spring_pass": True}, "bar_springs"),
    ("bore", "torn_surface", {"chips_left": True}, "chips_fill_bore"),
    ("cut off", "dished_face", {"blade_square": True}, "blade_leans"),
    ("cut off", "pip breaks_at_centre", {"tip_height": True}, "cut_off_height"),
    ("cut off", "breaks_at_centre", {"program": True}, "feed_not_cut"),
    ("cut off", "falls_badly", {"support_off": True}, "part_unsupported"),
    ("groove", "rough_walls", {"recut": True}, "chip_does_not_fold"),
    ("groove", "width_off", {"marking": True}, "slot_insert_width"),
    ("face groove", "scored_outside", {"blade_range": True}, "blade_outer_range"),
    ("face groove", "scored_inside", {"blade_range": True}, "blade_inner_range"),
    ("drill", "oversize", {"tool_runout": True}, "drill_runs_out"),
    ("drill", "oversize crooked", {"lips": True}, "lips_uneven"),
    ("drill", "off_place", {"spotted": True}, "rough_start"),
    ("drill", "packed_flutes blue_chips", {"chips_left": True}, "chips_past_room"),
    ("drill", "packed_flutes", {"pressure": True}, "pressure_lost"),
    ("drill", "corkscrews", {"chip_thin": True}, "drill_feed_low"),
    ("drill", "exit_burr", {"exit_feed": True}, "exit_too_fast"),
    ("drill", "load_grows", {"wear_land": True}, "chisel_worn"),
    ("drill", "tight_hole screech", {"margins": True}, "margins_worn"),
    ("drill", "small_in_layer", {"part_warm": True}, "layer_grows"),
    ("mill hole", "tapered_bore", {"spring_pass": True}, "mill_pushed_off"),
    ("mill thread", "gauge_no_go", {"path_offset": True}, "offset_thread"),
    ("mill thread", "tapered_thread", {"thread_spring": True}, "thread_pushed"),
    ("turn thread", "torn_flank", {"shim": True}, "tilt_wrong"),
    ("turn thread", "gauge_no_go", {"thread_depth": True}, "thread_not_deep"),
    ("turn thread", "drunken_thread", {"lead_ten": True}, "drive_lags"),
    ("tap", "tap_breaks", {"hole_gauge": True}, "core_small"),
    ("tap", "tap_breaks packed_flutes", {"chips_left": True}, "tap_packed"),
    ("tap", "tap_breaks", {"bottom": True}, "tap_bottoms"),
    ("tap", "stripped_low", {"hole_large": True}, "core_large"),
    ("heavy bore", "shakes", {"balance": True}, "head_unbalanced"),
    ("heavy bore", "waves squeal", {"pitch_tool": True}, "tool_resonates"),
)


@pytest.mark.parametrize(("kind", "seen", "found", "first"), CASES)
def test_the_masters_cause_is_among_the_first_two(kind: str, seen: str, found: dict[str, bool], first: str) -> None:
    told = EVERY_KIND[kind]
    told = {**told, "settings": {**told["settings"], **AT.get(first, {})}}
    for case in (case_of_kind(kind), case_of(read_setup(told))):  # with nothing known of the operation, and on a sound one
        two = [one.cause.name for one in diagnose(case, seen.split(), found).suspects if one.cause][:2]
        assert set(two) & set(first.split()), two
