"""Demo jobs with grooves, face grooves, trepanning and cut-off, of the same invented workshop."""

from __future__ import annotations

from typing import Any

from cutting.operations.registry import kind_of


def narrow(
    number: int, title: str, kind: str, tool: tuple[str, ...], feature: dict[str, Any], settings: dict[str, Any], **more: Any
) -> dict[str, Any]:
    """One operation of a narrow edge."""
    return {
        "id": f"op{number}",
        "number": number,
        "title": title,
        "operation": kind,
        "tool": {role.name: name for role, name in zip(kind_of(kind).roles, tool, strict=True)},
        "feature": feature,
        "settings": settings,
        **{"holding": {}, "skin": "clean", **more},
    }


PIN_CUT_OFF = narrow(
    40,
    "Cut off Ø20",
    "cut off",
    ("edge 2 lead 5 R light positive M15 PVD", "screw holder 2 reach 12"),
    {
        "diameter": "20 mm",
        "part_length": "38 mm",
        "distance_from_chuck": "4 mm",
        "flatness": "30 µm",
        "pip": "0.6 mm",
        "edge_break": "0.3 mm",
    },
    {"cutting_speed": "140 m/min", "feed_per_rev": "0.08 mm/rev", "spindle_clamp": "6000 1/min", "coolant": "high", "feed_zones": "early"},
    holding={"guide_bush": True, "part_catcher": True},
)
BEARING_CARRIER = {
    "name": "Bearing carrier",
    "material": "EN-GJS-500-7",
    "hardness": None,
    "machine": "two-axis lathe",
    "goal": "cheapest",
    "batch": {"pieces": 120, "unattended_hours": 0, "yearly": 480},
    "money": {"blank": 11.5, "setup_minutes": 40, "good_share": 0.98, "target": 19},
    "stock": {"diameter": "116 mm", "free_length": "70 mm", "bore": "62 mm"},
    "holding": {"style": "chuck", "grip_diameter": "116 mm", "grip_share": 0.6},
    "operations": [
        narrow(
            10,
            "Turn Ø110",
            "turn",
            ("CNMG 120412 middle P20 CVD", "PCLNR 2525 M12"),
            {
                "start_diameter": "116 mm",
                "end_diameter": "110 h9",
                "length": "58 mm",
                "distance_from_chuck": "12 mm",
                "roughness": "3.2 µm",
            },
            {"cutting_speed": "150 m/min", "feed_per_rev": "0.2 mm/rev", "depth_of_cut": "1.6 mm", "coolant": "flood"},
            skin="cast",
        ),
        narrow(
            20,
            "Belt groove 24 × Ø98",
            "groove",
            ("edge 4 turn middle positive K15 CVD", "screw holder 4 reach 18"),
            {
                "where": "outside",
                "diameter": "110 mm",
                "floor": "98 h11",
                "width": "24 +0.2/0",
                "distance_from_chuck": "26 mm",
                "corner_radius": "0.8 mm",
                "roughness": "3.2 µm",
            },
            {"cutting_speed": "125 m/min", "feed_per_rev": "0.115 mm/rev", "way": "plunge and turn", "finish": True, "coolant": "jet"},
        ),
        narrow(
            30,
            "Ring groove for bore 62",
            "groove",
            ("ring three 2.2 middle positive K15 CVD", "inside bar 25 tri 16"),
            {"where": "inside", "standard": "DIN 472", "diameter": "62 mm", "distance_from_chuck": "52 mm"},
            {"cutting_speed": "120 m/min", "feed_per_rev": "0.08 mm/rev", "way": "one plunge", "dwell": 1, "coolant": "jet"},
        ),
    ],
}
NOZZLE_RING = {
    "name": "Nozzle ring",
    "material": "X2CrNiMoN22-5-3",
    "hardness": None,
    "machine": "two-axis lathe",
    "goal": "most secure",
    "batch": {"pieces": 40, "unattended_hours": 0, "yearly": 160},
    "money": {"blank": 21, "setup_minutes": 35, "good_share": 0.98, "target": 36},
    "stock": {"diameter": "130 mm", "free_length": "42 mm", "bore": "50 mm"},
    "holding": {"style": "chuck", "grip_diameter": "130 mm"},
    "operations": [
        narrow(
            10,
            "Face",
            "face",
            ("CNMG 120408 sticky M15 PVD", "PCLNR 2525 M12"),
            {"start_diameter": "130 mm", "end_diameter": "50 mm", "length": "1.5 mm", "roughness": "3.2 µm"},
            {"cutting_speed": "90 m/min", "feed_per_rev": "0.18 mm/rev", "depth_of_cut": "1.5 mm", "coolant": "jet"},
        ),
        narrow(
            20,
            "Seal groove in the face",
            "face groove",
            ("edge 4 turn light positive M15 PVD", "face blade 4 dia 55 to 90"),
            {"outer_diameter": "80 H11", "width": "6 +0.1/0", "depth": "8 mm", "corner_radius": "0.5 mm"},
            {"cutting_speed": "45 m/min", "feed_per_rev": "0.075 mm/rev", "way": "from the outside in", "coolant": "jet"},
        ),
    ],
}
SCREEN_DISC = {
    "name": "Screen cover disc",
    "material": "EN AW-5083",
    "hardness": None,
    "machine": "machining centre",
    "goal": "cheapest",
    "batch": {"pieces": 40, "unattended_hours": 0, "yearly": 160},
    "money": {"blank": 6.4, "setup_minutes": 30, "good_share": 0.99, "target": 10.5},
    "stock": {"diameter": "150 mm", "free_length": "30 mm", "bore": "0 mm"},
    "holding": {},
    "operations": [
        narrow(
            10,
            "Trepan disc Ø100",
            "trepan",
            ("edge 6 single ground N10 plain", "trepanning head one 80 to 130"),
            {"keeps": "the disc", "diameter": "100 mm", "depth": "30 mm", "web": "0.5 mm", "core_price": 4},
            {"cutting_speed": "320 m/min", "feed_per_tooth": "0.145 mm/z", "cartridges": "one cartridge", "coolant": "through"},
        )
    ],
}
NARROW_JOBS = (BEARING_CARRIER, NOZZLE_RING, SCREEN_DISC)
