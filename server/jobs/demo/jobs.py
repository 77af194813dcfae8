"""The demo jobs of Gannet Rill Hydro, an invented workshop for small water turbines."""

from __future__ import annotations

from typing import Any

from django.contrib.auth.models import User

from server.jobs.demo.bores import BUSH_REAMED, CARRIER_BORED, CUP, VALVE_CAP
from server.jobs.demo.holes import HOLE_JOBS
from server.jobs.demo.narrow import NARROW_JOBS, PIN_CUT_OFF
from server.jobs.demo.threads import THREAD_JOBS
from server.jobs.document.drawing import drawn_up
from server.jobs.kept.actions import create_job


def operation(
    number: int, title: str, kind: str, insert: str, holder: str, feature: dict[str, Any], settings: str, **more: Any
) -> dict[str, Any]:
    """One turned operation of a demo job."""
    speed, feed, depth, coolant = settings.split(" / ")
    return {
        "id": f"op{number}",
        "number": number,
        "title": title,
        "operation": kind,
        "tool": {"insert": insert, "holder": holder},
        "feature": feature,
        "settings": {"cutting_speed": speed, "feed_per_rev": feed, "depth_of_cut": depth, "coolant": coolant},
        **more,
    }


RUNNER_SHAFT = {
    "name": "Runner shaft",
    "material": "34CrNiMo6",
    "hardness": 300,
    "machine": "two-axis lathe",
    "goal": "most secure",
    "batch": {"pieces": 60, "unattended_hours": 0, "yearly": 480},
    "money": {"blank": 14.5, "setup_minutes": 45, "good_share": 0.99, "target": 23.5},
    "stock": {"diameter": "64 mm", "free_length": "268 mm", "bore": "0 mm"},
    "holding": {"style": "chuck and centre", "centre_diameter": "8 mm"},
    "operations": [
        operation(
            10,
            "Face end",
            "face",
            "CNMG 120408 middle P20 CVD",
            "PCLNR 2525 M12",
            {"start_diameter": "64 mm", "end_diameter": "14 mm", "length": "2 mm", "roughness": "6.3 µm"},
            "170 m/min / 0.25 mm/rev / 1 mm / flood",
        ),
        operation(
            20,
            "Rough turn Ø57",
            "turn",
            "CNMG 120412 middle P20 CVD",
            "PCLNR 2525 M12",
            {"start_diameter": "64 mm", "end_diameter": "57", "length": "246 mm", "distance_from_chuck": "20 mm"},
            "140 m/min / 0.33 mm/rev / 1.75 mm / jet",
        ),
        operation(
            30,
            "Rough turn Ø49.5",
            "turn",
            "CNMG 120408 middle P20 CVD",
            "PCLNR 2525 M12",
            {"start_diameter": "57 mm", "end_diameter": "49.5", "length": "196 mm", "distance_from_chuck": "70 mm", "shoulder": True},
            "150 m/min / 0.3 mm/rev / 1.9 mm / jet",
        ),
        operation(
            40,
            "Finish bearing seat Ø49",
            "turn",
            "TNMG 160404 light P10 CVD",
            "MTJNR 2525 M16",
            {
                "start_diameter": "49.5 mm",
                "end_diameter": "49 h8",
                "length": "70 mm",
                "distance_from_chuck": "70 mm",
                "shoulder": True,
                "fillet": "0.6 mm",
                "roughness": "1.6 µm",
            },
            "190 m/min / 0.09 mm/rev / 0.3 mm / jet",
        ),
        operation(
            50,
            "Rough turn Ø35",
            "turn",
            "WNMG 080408 middle P20 CVD",
            "PWLNR 2525 M08",
            {"start_diameter": "49.5 mm", "end_diameter": "35.4", "length": "126 mm", "distance_from_chuck": "140 mm", "shoulder": True},
            "150 m/min / 0.3 mm/rev / 2.4 mm / jet",
        ),
        operation(
            60,
            "Finish coupling seat Ø35",
            "turn",
            "TNMG 160404 light P10 CVD",
            "MTJNR 2525 M16",
            {
                "start_diameter": "35.4 mm",
                "end_diameter": "35 k6",
                "length": "126 mm",
                "distance_from_chuck": "140 mm",
                "shoulder": True,
                "fillet": "0.6 mm",
                "roughness": "1.6 µm",
            },
            "190 m/min / 0.09 mm/rev / 0.2 mm / jet",
        ),
    ],
    "baseline": {
        "name": "present process",
        "seconds": 742,
        "cost": 31.8,
        "note": "brazed tools on the geared lathe, edges ground in house",
    },
}
DEFLECTOR_HUB = {
    "name": "Deflector hub, weld repaired",
    "material": "S235JR",
    "hardness": None,
    "machine": "geared lathe",
    "goal": "most secure",
    "batch": {"pieces": 1, "unattended_hours": 0, "yearly": 6},
    "money": {"blank": 0, "setup_minutes": 20, "good_share": 1, "target": 40},
    "stock": {"diameter": "97 mm", "free_length": "150 mm", "bore": "32 mm"},
    "holding": {"style": "chuck", "grip_diameter": "90 mm"},
    "operations": [
        operation(
            10,
            "Face hub",
            "face",
            "CNMG 120408 middle P30 CVD",
            "PCLNR 2525 M12",
            {"start_diameter": "97 mm", "end_diameter": "32 mm", "length": "1.5 mm", "roughness": "6.3 µm"},
            "120 m/min / 0.2 mm/rev / 0.75 mm / flood",
        ),
        operation(
            20,
            "Turn under the weld",
            "turn",
            "CNMG 120412 middle P30 CVD",
            "PCLNR 2525 M12",
            {"start_diameter": "97 mm", "end_diameter": "91.5", "length": "68.5 mm", "distance_from_chuck": "80 mm"},
            "62 m/min / 0.2 mm/rev / 0.75 mm / flood",
            skin="weld",
        ),
        operation(
            30,
            "Finish bearing size Ø90",
            "turn",
            "CNMG 120404 light P10 CVD",
            "PCLNR 2525 M12",
            {
                "start_diameter": "91.5 mm",
                "end_diameter": "90 h7",
                "length": "66.5 mm",
                "distance_from_chuck": "82 mm",
                "roughness": "1.6 µm",
            },
            "200 m/min / 0.12 mm/rev / 0.375 mm / flood",
        ),
    ],
}
VANE_PIN = {
    "name": "Guide-vane pin",
    "material": "11SMn30",
    "hardness": None,
    "machine": "sliding-head lathe",
    "goal": "most secure",
    "batch": {"pieces": 8000, "unattended_hours": 6, "yearly": 32000},
    "money": {"blank": 0.48, "setup_minutes": 60, "good_share": 0.995, "target": 1.6},
    "stock": {"diameter": "20 mm", "free_length": "44 mm", "bore": "0 mm", "bar_length": "3000 mm", "remnant": "120 mm", "bar_price": 29},
    "holding": {"style": "chuck"},
    "operations": [
        operation(
            10,
            "Face",
            "face",
            "CCMT 09T304 light positive P10 CVD",
            "SCLCR 1616 H09",
            {"start_diameter": "20 mm", "end_diameter": "0 mm", "length": "0.5 mm", "roughness": "3.2 µm"},
            "220 m/min / 0.12 mm/rev / 0.5 mm / flood",
        ),
        operation(
            20,
            "Rough turn Ø14.4",
            "turn",
            "CCMT 09T308 middle positive P20 CVD",
            "SCLCR 1616 H09",
            {"start_diameter": "20 mm", "end_diameter": "14.4", "length": "37.5 mm", "distance_from_chuck": "6 mm", "shoulder": True},
            "240 m/min / 0.18 mm/rev / 1.4 mm / flood",
        ),
        operation(
            30,
            "Finish Ø14 h7",
            "turn",
            "DCMT 11T304 light positive P10 CVD",
            "SDJCR 1616 H11",
            {
                "start_diameter": "14.4 mm",
                "end_diameter": "14 h7",
                "length": "37.5 mm",
                "distance_from_chuck": "6 mm",
                "shoulder": True,
                "roughness": "1.6 µm",
            },
            "260 m/min / 0.095 mm/rev / 0.25 mm / flood",
        ),
        PIN_CUT_OFF,
    ],
    "baseline": {"name": "present process", "seconds": 52, "cost": 1.94, "note": "four-corner inserts, one pass fewer"},
}
WEAR_BUSH = {
    "name": "Wear bush",
    "material": "CuSn12-C",
    "hardness": None,
    "machine": "mill-turn",
    "goal": "cheapest",
    "batch": {"pieces": 200, "unattended_hours": 2, "yearly": 1200},
    "money": {"blank": 6.2, "setup_minutes": 30, "good_share": 0.99, "target": 9.5},
    "stock": {"diameter": "72 mm", "free_length": "70 mm", "bore": "45 mm"},
    "holding": {"style": "chuck", "grip_share": 0.5},
    "operations": [
        operation(
            10,
            "Face",
            "face",
            "CCGT 120408 ground N10 plain",
            "SCLCR 2525 M12",
            {"start_diameter": "72 mm", "end_diameter": "45 mm", "length": "1 mm", "roughness": "3.2 µm"},
            "250 m/min / 0.2 mm/rev / 1 mm / flood",
        ),
        operation(
            20,
            "Turn Ø68.4",
            "turn",
            "CCGT 120408 ground N10 plain",
            "SCLCR 2525 M12",
            {"start_diameter": "72 mm", "end_diameter": "68.4", "length": "61 mm", "distance_from_chuck": "8 mm"},
            "250 m/min / 0.3 mm/rev / 1.8 mm / flood",
        ),
        operation(
            30,
            "Finish Ø68 p6",
            "turn",
            "CCGT 09T304 ground N10 plain",
            "SCLCR 2525 M09",
            {"start_diameter": "68.4 mm", "end_diameter": "68 p6", "length": "61 mm", "distance_from_chuck": "8 mm", "roughness": "1.6 µm"},
            "250 m/min / 0.115 mm/rev / 0.2 mm / flood",
        ),
    ],
}
SPEAR_NEEDLE = {
    "name": "Spear-valve needle, hardened",
    "material": "X20Cr13 hardened 50 HRC",
    "hardness": None,
    "machine": "two-axis lathe",
    "goal": "cheapest",
    "batch": {"pieces": 24, "unattended_hours": 0, "yearly": 96},
    "money": {"blank": 9.4, "setup_minutes": 25, "good_share": 0.98, "target": 26},
    "stock": {
        "diameter": "36.4 mm",
        "free_length": "82 mm",
        "bore": "0 mm",
        "shape": "0 mm:36.4 mm; 36 mm:36.4 mm; 38 mm:34.4 mm; 44 mm:36.4 mm; 54 mm:36.4 mm; 82 mm:16.4 mm",
    },
    "holding": {"style": "chuck"},
    "operations": [
        operation(
            10,
            "Hard turn guide Ø36",
            "turn",
            "CNGA 120404 bare H10 CBN",
            "PCLNR 2525 M12",
            {"start_diameter": "36.4 mm", "end_diameter": "36 h6", "length": "28 mm", "distance_from_chuck": "8 mm", "roughness": "0.8 µm"},
            "125 m/min / 0.07 mm/rev / 0.2 mm / dry",
            skin="hardened",
            grinding={"seconds": 210, "rate": 64, "wheel": 0.35},
        ),
        operation(
            20,
            "Copy the tip",
            "turn",
            "DNGA 150608 bare H10 CBN",
            "PDJNR 2525 M15",
            {
                "start_diameter": "36.4 mm",
                "end_diameter": "36",
                "length": "44 mm",
                "distance_from_chuck": "38 mm",
                "profile": "38 mm:34 mm; 44 mm:36 mm; 54 mm:36 mm; 82 mm:16 mm",
                "roughness": "1.6 µm",
            },
            "125 m/min / 0.1 mm/rev / 0.2 mm / dry",
            skin="hardened",
        ),
    ],
}
DEMO_JOBS = (
    RUNNER_SHAFT,
    DEFLECTOR_HUB,
    VANE_PIN,
    WEAR_BUSH,
    SPEAR_NEEDLE,
    *NARROW_JOBS,
    *HOLE_JOBS,
    CARRIER_BORED,
    VALVE_CAP,
    BUSH_REAMED,
    CUP,
    *THREAD_JOBS,
)


def fill_jobs() -> None:
    """The invented jobs of the demo."""
    author = User.objects.get(username="engineer")
    for document in DEMO_JOBS:
        create_job(drawn_up(document), author)
