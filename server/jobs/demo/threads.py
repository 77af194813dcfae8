"""Demo jobs with threads, of the same invented workshop: turned, tapped and milled."""

from __future__ import annotations

from typing import Any

from server.jobs.demo.narrow import narrow


def _job(
    name: str, material: str, machine: str, stock: tuple[str, str, str], operations: list[dict[str, Any]], **more: Any
) -> dict[str, Any]:
    diameter, free, bore = stock
    base = {
        "goal": "cheapest",
        "batch": {"pieces": 20, "unattended_hours": 0, "yearly": 80},
        "money": {"blank": 6, "setup_minutes": 25, "good_share": 0.99, "target": None},
        "holding": {"style": "chuck", "grip_diameter": diameter},
    }
    made = {
        "name": name,
        "material": material,
        "hardness": None,
        "machine": machine,
        "stock": {"diameter": diameter, "free_length": free, "bore": bore},
    }
    return {**made, **base, **more, "operations": operations}


TURNER = ("CNMG 120408 middle P20 CVD", "PCLNR 2525 M12")
GATE_SPINDLE = _job(
    "Gate spindle Tr 20x4",
    "C45",
    "geared lathe",
    ("24 mm", "110 mm", "0"),
    [
        narrow(
            10,
            "Turn Ø20 for the thread",
            "turn",
            TURNER,
            {"start_diameter": "24 mm", "end_diameter": "20 h9", "length": "80 mm", "distance_from_chuck": "30 mm", "roughness": "6.3 µm"},
            {"cutting_speed": "100 m/min", "feed_per_rev": "0.2 mm/rev", "depth_of_cut": "1 mm", "coolant": "flood"},
        ),
        narrow(
            20,
            "Spindle thread Tr 20x4",
            "turn thread",
            ("22 ER 4.0 TR light positive P25 PVD", "thread holder 25 12.7 R"),
            {"thread": "Tr 20x4-7e", "side": "outside", "length": "60 mm", "relief": "8 mm", "distance": "50 mm"},
            {"cutting_speed": "8 m/min", "infeed": "modified flank", "passes": 18, "coolant": "flood"},
        ),
    ],
    batch={"pieces": 4, "unattended_hours": 0, "yearly": 12},
    money={"blank": 9, "setup_minutes": 20, "good_share": 1, "target": 45},
    holding={"style": "chuck and centre", "grip_diameter": "24 mm", "centre_diameter": "6 mm"},
)
NOZZLE_SCREW = _job(
    "Nozzle screw M10x1.5",
    "X2CrNiMoN22-5-3",
    "mill-turn",
    ("16 mm", "45 mm", "0"),
    [
        narrow(
            10,
            "Turn Ø9.9 for the thread",
            "turn",
            ("DNMG 150608 sticky M15 PVD", "PDJNR 2525 M15"),
            {"start_diameter": "16 mm", "end_diameter": "9.9 mm", "length": "28 mm", "distance_from_chuck": "17 mm"},
            {"cutting_speed": "95 m/min", "feed_per_rev": "0.2 mm/rev", "depth_of_cut": "1.53 mm", "coolant": "jet"},
        ),
        narrow(
            20,
            "Thread M10x1.5-6g",
            "turn thread",
            ("16 ER 1.5 ISO light positive M15 PVD", "thread holder 25 9.525 R"),
            {"thread": "M10-6g", "side": "outside", "length": "22 mm", "relief": "4 mm"},
            {"cutting_speed": "55 m/min", "infeed": "modified flank", "spring": "0", "coolant": "jet"},
        ),
    ],
    batch={"pieces": 300, "unattended_hours": 0, "yearly": 1200},
    money={"blank": 2.4, "setup_minutes": 45, "good_share": 0.99, "target": 7},
)
NEEDLE_SEAT = _job(
    "Needle seat M8x1, hardened",
    "16MnCr5 case-hardened 60 HRC",
    "machining centre",
    ("40 mm", "30 mm", "0"),
    [
        narrow(
            10,
            "Thread M8x1 from the solid",
            "mill thread",
            ("helical thread mill 5.1 P1 K30 fine PVD", "shrink BT40 for 6"),
            {"thread": "M8x1-6H", "side": "inside", "length": "10 mm", "hole": "14 mm"},
            {"cutting_speed": "40 m/min", "feed_per_tooth": "0.012 mm/z", "coolant": "dry"},
        )
    ],
    batch={"pieces": 12, "unattended_hours": 0, "yearly": 48},
    money={"blank": 180, "setup_minutes": 30, "good_share": 1, "target": 220},
)
INSPECTION_PLUG = _job(
    "Inspection plug G1/2",
    "11SMn30",
    "two-axis lathe",
    ("27 mm", "40 mm", "0"),
    [
        narrow(
            10,
            "Turn Ø20.9 for the thread",
            "turn",
            TURNER,
            {"start_diameter": "27 mm", "end_diameter": "20.9 mm", "length": "18 mm", "distance_from_chuck": "22 mm"},
            {"cutting_speed": "240 m/min", "feed_per_rev": "0.25 mm/rev", "depth_of_cut": "1.53 mm", "coolant": "flood"},
        ),
        narrow(
            20,
            "Thread G1/2A",
            "turn thread",
            ("16 ER 14 W light positive M15 PVD", "thread holder 25 9.525 R"),
            {"thread": "G1/2A", "side": "outside", "length": "13 mm", "relief": "5 mm"},
            {"cutting_speed": "120 m/min", "infeed": "modified flank", "coolant": "flood"},
        ),
    ],
    batch={"pieces": 150, "unattended_hours": 0, "yearly": 600},
    money={"blank": 1.4, "setup_minutes": 25, "good_share": 0.99, "target": 3},
)
REPAIR_NUT = _job(
    "Repair nut, Acme inside",
    "CuSn12-C",
    "two-axis lathe",
    ("60 mm", "50 mm", "31.9 mm"),
    [
        narrow(
            10,
            "Thread 1-1/2-4 Acme",
            "turn thread",
            ("22 IR 4 ACME light positive N10 plain", "S25 thread bar 12.7"),
            {"thread": "1-1/2-4 Acme-2G", "side": "inside", "length": "44 mm", "through": True},
            {"cutting_speed": "60 m/min", "infeed": "alternating flanks", "passes": 18, "coolant": "jet"},
        )
    ],
    batch={"pieces": 2, "unattended_hours": 0, "yearly": 4},
    money={"blank": 64, "setup_minutes": 25, "good_share": 1, "target": 120},
)
VALVE_BLOCK = _job(
    "Valve block, six M10",
    "42CrMo4",
    "machining centre",
    ("160 mm", "60 mm", "0"),
    [
        narrow(
            10,
            "Six core holes Ø8.5",
            "drill",
            ("carbide 5xD 8.5 K30 fine PVD", "collet BT40 to 20"),
            {"diameter": "8.5 mm", "depth": "26 mm", "through": False, "circle": "110 mm", "count": 6, "chamfer": "10.2 mm"},
            {"cutting_speed": "75 m/min", "feed_per_rev": "0.125 mm/rev", "pecks": "to break chips", "coolant": "through"},
        ),
        narrow(
            20,
            "Six threads M10-6H",
            "tap",
            ("tap M10 spiral flute HSS cobalt PVD", "collet BT40 to 20"),
            {"thread": "M10-6H", "side": "inside", "length": "18 mm", "hole": "26 mm", "there": "8.5 mm", "circle": "110 mm", "count": 6},
            {"cutting_speed": "8 m/min", "held": "synchronised", "coolant": "flood"},
        ),
    ],
    batch={"pieces": 60, "unattended_hours": 0, "yearly": 240},
    money={"blank": 260, "setup_minutes": 35, "good_share": 0.99, "target": 290},
)
THREAD_JOBS = (GATE_SPINDLE, NOZZLE_SCREW, NEEDLE_SEAT, INSPECTION_PLUG, REPAIR_NUT, VALVE_BLOCK)
