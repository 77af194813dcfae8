"""Demo jobs with bores and milled holes, of the same invented workshop."""

from __future__ import annotations

from server.jobs.demo.narrow import narrow

BAR = ("CCMT 09T304 middle positive P20 CVD", "A25T-SCLCR 09")
CARRIER_BORED = {
    "name": "Carrier, bored seats",
    "material": "EN-GJS-500-7",
    "hardness": None,
    "machine": "two-axis lathe",
    "goal": "most secure",
    "batch": {"pieces": 120, "unattended_hours": 0, "yearly": 480},
    "money": {"blank": 0, "setup_minutes": 25, "good_share": 0.98, "target": 9},
    "stock": {"diameter": "110 mm", "free_length": "80 mm", "bore": "58 mm"},
    "holding": {"style": "chuck", "grip_diameter": "110 mm", "grip_share": 0.6},
    "operations": [
        narrow(
            10,
            "Deep seat Ø60 H8",
            "bore",
            BAR,
            {"start_diameter": "58 mm", "end_diameter": "60 H8", "length": "72 mm", "roughness": "3.2 µm"},
            {"cutting_speed": "170 m/min", "feed_per_rev": "0.135 mm/rev", "depth_of_cut": "1.02 mm", "coolant": "jet"},
        ),
        narrow(
            20,
            "Bearing seat Ø62 H7",
            "bore",
            BAR,
            {"start_diameter": "60.023 mm", "end_diameter": "62 H7", "length": "20 mm", "shoulder": True, "roughness": "1.6 µm"},
            {"cutting_speed": "180 m/min", "feed_per_rev": "0.067 mm/rev", "depth_of_cut": "0.5 mm", "coolant": "jet", "overhang": "77 mm"},
        ),
    ],
}

CUP = {
    "name": "Bearing cup, three bores in one pass",
    "material": "EN AW-6082",
    "hardness": None,
    "machine": "horizontal centre",
    "goal": "cheapest",
    "batch": {"pieces": 300, "unattended_hours": 0, "yearly": 3600},
    "money": {"blank": 18, "setup_minutes": 40, "good_share": 0.99, "target": 21},
    "stock": {"diameter": "240 mm", "free_length": "100 mm", "bore": "61.5 mm"},
    "holding": {},
    "operations": [
        narrow(
            10,
            "Seat, bore and bearing",
            "heavy bore",
            ("Cup tool, hollow arms",),
            {
                "bores": "200 H6 x 14 mm / 120 H7 x 25 mm / 62 H6 x 24 mm at 69 mm",
                "through": True,
                "coaxiality": "0.02 mm",
                "cylindricity": "0.015 mm",
                "roughness": "3.2 µm",
            },
            {
                "cutting_speed": "450 m/min",
                "feed_per_rev": "0.2 mm/rev",
                "coolant": "through",
                "temperature": "24",
                "temperature_known": "1",
            },
        )
    ],
}

MILL = ("mill 12 gashed K30 fine PVD", "collet ER32 in the spindle")
VALVE_CAP = {
    "name": "Valve cap, flat floors",
    "material": "C45",
    "hardness": None,
    "machine": "mill-turn",
    "goal": "cheapest",
    "batch": {"pieces": 40, "unattended_hours": 0, "yearly": 160},
    "money": {"blank": 6, "setup_minutes": 30, "good_share": 0.99, "target": 16},
    "stock": {"diameter": "100 mm", "free_length": "45 mm", "bore": "0"},
    "holding": {"style": "chuck", "grip_diameter": "100 mm"},
    "operations": [
        narrow(
            10,
            "Four counterbores Ø18",
            "mill hole",
            MILL,
            {"diameter": "18 mm", "depth": "11 mm", "through": False, "flat": True, "circle": "72 mm", "count": 4},
            {"cutting_speed": "150 m/min", "feed_per_tooth": "0.09 mm/z", "coolant": "flood", "pitch": "1.8 mm"},
            spindle="driven",
        ),
        narrow(
            20,
            "Plunger seat Ø20 H8, flat floor",
            "mill hole",
            MILL,
            {"diameter": "20 H8", "depth": "16 mm", "through": False, "flat": True, "roughness": "3.2 µm"},
            {
                "cutting_speed": "150 m/min",
                "feed_per_tooth": "0.08 mm/z",
                "coolant": "flood",
                "pitch": "1.8 mm",
                "finish": "0.1 mm",
                "offset": "0.004 mm",
            },
            spindle="driven",
        ),
        narrow(
            30,
            "Vent hole Ø14",
            "drill",
            ("carbide 5xD 14 K30 fine PVD", "collet ER32 in the spindle"),
            {"diameter": "14 mm", "depth": "10 mm", "through": False, "circle": "44 mm"},
            {"cutting_speed": "90 m/min", "feed_per_rev": "0.15 mm/rev", "coolant": "flood"},
            spindle="driven",
        ),
    ],
}

BUSH_REAMED = {
    "name": "Wear bush, bored and reamed",
    "material": "CuSn12-C",
    "hardness": None,
    "machine": "two-axis lathe",
    "goal": "cheapest",
    "batch": {"pieces": 60, "unattended_hours": 0, "yearly": 240},
    "money": {"blank": 7, "setup_minutes": 25, "good_share": 0.98, "target": 12},
    "stock": {"diameter": "36 mm", "free_length": "52 mm", "bore": "18.2 mm"},
    "holding": {"style": "chuck", "grip_diameter": "36 mm", "grip_share": 0.6},
    "operations": [
        narrow(
            10,
            "Bore Ø19.75 true to the outside",
            "bore",
            ("CCGT 060204 ground N10 plain", "E12Q-SCLCR 06"),
            {"start_diameter": "18.2 mm", "end_diameter": "19.75 mm", "length": "46 mm"},
            {"cutting_speed": "150 m/min", "feed_per_rev": "0.1 mm/rev", "depth_of_cut": "0.78 mm", "coolant": "jet"},
        ),
        narrow(
            20,
            "Ream Ø20 H7",
            "drill",
            ("reamer 20 H7 HSS bright", "sleeve 25 for 6 to 20"),
            {"diameter": "20 H7", "depth": "44 mm", "through": False, "pilot": "19.75 mm", "roughness": "1.6 µm"},
            {"cutting_speed": "10 m/min", "feed_per_rev": "0.5 mm/rev", "coolant": "flood"},
        ),
    ],
}
