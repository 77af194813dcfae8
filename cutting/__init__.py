"""The heart of Arrow Bench: rules and computation of turning and holemaking, usable from a notebook.

One way in, one way out: a frozen `Setup` goes in, an `Outcome` comes out.

>>> import cutting
>>> setup = cutting.read_setup({"operation": "turn", "material": "C45", "machine": "two-axis lathe",
...     "tool": {"insert": "CNMG 120408 middle P20", "holder": "PCLNR 2525 M12"},
...     "feature": {"start_diameter": "60", "end_diameter": "56", "length": "100"},
...     "settings": {"cutting_speed": "200", "feed_per_rev": "0.25", "depth_of_cut": "2"}})
>>> cutting.evaluate(setup).results["spindle_speed"].display.metric
'1061 rpm'
"""

from cutting.advice import advise
from cutting.doors.json_form import read_request, read_setup
from cutting.errors import CuttingError
from cutting.operations.registry import evaluate, explore
from cutting.operations.turned.setup import Setup

__all__ = ["CuttingError", "Setup", "advise", "evaluate", "explore", "read_request", "read_setup"]
