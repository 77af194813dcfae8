"""Demo jobs with drilled holes, of the same invented workshop."""

from __future__ import annotations

from server.jobs.demo.narrow import narrow

SCREEN_PANEL = {
    "name": "Screen-frame panel",
    "material": "EN AW-5083",
    "hardness": None,
    "machine": "feed-drilling unit",
    "goal": "cheapest",
    "batch": {"pieces": 8, "unattended_hours": 0, "yearly": 32},
    "money": {"blank": 84, "setup_minutes": 45, "good_share": 0.98, "target": 120},
    "stock": {"diameter": "1200 mm", "free_length": "13 mm", "bore": "0 mm"},
    "holding": {},
    "operations": [
        narrow(
            10,
            "Drill 112 × Ø6.35",
            "drill",
            ("stub 6.35 split HSS cobalt PVD", "keyless 13 of the unit"),
            {
                "diameter": "6.35 H12",
                "stack": "GFRP laminate 4 mm / X5CrNi18-10 1.5 mm x2 / EN AW-5083 6 mm",
                "circle": "1100 mm",
                "count": 112,
                "burr": "0.15 mm",
                "asked_holes": 112,
            },
            {"cutting_speed": "15 m/min", "feed_per_rev": "0.06 mm/rev", "coolant": "dry"},
        )
    ],
}
VALVE_BODY = {
    "name": "Gate-valve body",
    "material": "C45",
    "hardness": None,
    "machine": "geared lathe",
    "goal": "cheapest",
    "batch": {"pieces": 60, "unattended_hours": 0, "yearly": 240},
    "money": {"blank": 14, "setup_minutes": 30, "good_share": 0.98, "target": 24},
    "stock": {"diameter": "60 mm", "free_length": "110 mm", "bore": "0 mm"},
    "holding": {"style": "chuck", "grip_diameter": "60 mm"},
    "operations": [
        narrow(
            10,
            "Face",
            "face",
            ("CNMG 120412 middle P20 CVD", "PCLNR 2525 M12"),
            {"start_diameter": "60 mm", "end_diameter": "0 mm", "length": "1 mm", "roughness": "6.3 µm"},
            {"cutting_speed": "180 m/min", "feed_per_rev": "0.2 mm/rev", "depth_of_cut": "1 mm", "coolant": "flood"},
            skin="bar",
        ),
        narrow(
            20,
            "Drill Ø10 × 90",
            "drill",
            ("extra long 10 split HSS cobalt", "sleeve 25 for 6 to 20"),
            {"diameter": "10 mm", "depth": "90 mm", "through": False, "straightness": "0.3 mm"},
            {"cutting_speed": "16 m/min", "feed_per_rev": "0.18 mm/rev", "coolant": "flood"},
        ),
    ],
}
BOLT_CIRCLE = {
    "name": "Nozzle-ring bolt circle",
    "material": "X2CrNiMoN22-5-3",
    "hardness": None,
    "machine": "mill-turn",
    "goal": "most secure",
    "batch": {"pieces": 40, "unattended_hours": 0, "yearly": 160},
    "money": {"blank": 28, "setup_minutes": 40, "good_share": 0.98, "target": 44},
    "stock": {"diameter": "140 mm", "free_length": "30 mm", "bore": "60 mm"},
    "holding": {"style": "chuck", "grip_diameter": "140 mm"},
    "operations": [
        narrow(
            10,
            "Drill 12 × Ø8.5",
            "drill",
            ("carbide 5xD 8.5 K30 fine PVD", "collet ER32 in the spindle"),
            {"diameter": "8.5 H10", "depth": "22 mm", "circle": "110 mm", "count": 12, "position": "0.15 mm", "burr": "0.2 mm"},
            {"cutting_speed": "28 m/min", "feed_per_rev": "0.11 mm/rev", "pecks": "to break chips", "coolant": "high"},
            spindle="driven",
        )
    ],
}
COUPLING_CUP = {
    "name": "Coupling cup",
    "material": "EN AC-48000",
    "hardness": None,
    "machine": "machining centre",
    "goal": "fastest",
    "batch": {"pieces": 400, "unattended_hours": 0, "yearly": 1600},
    "money": {"blank": 7.2, "setup_minutes": 25, "good_share": 0.99, "target": 11},
    "stock": {"diameter": "120 mm", "free_length": "40 mm", "bore": "0 mm"},
    "holding": {},
    "operations": [
        narrow(
            10,
            "Drill 8 × Ø10",
            "drill",
            ("diamond tipped 10 N05 PCD", "shrink BT40 for 10"),
            {"diameter": "10 H9", "depth": "25 mm", "circle": "90 mm", "count": 8, "roughness": "1.6 µm"},
            {"cutting_speed": "280 m/min", "feed_per_rev": "0.35 mm/rev", "coolant": "through"},
        )
    ],
}
HOLE_JOBS = (SCREEN_PANEL, VALVE_BODY, BOLT_CIRCLE, COUPLING_CUP)
