"""The heavy tools to choose from."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from cutting.tooling.heavy.tool import HeavyTool
from cutting.tooling.roles import Index, Parts


@dataclass(frozen=True)
class HeavyStock:
    """Heavy tools; each is whole, so that each is a choice of its own."""

    tools: tuple[HeavyTool, ...]
    note: str = ""

    @property
    def parts(self) -> Parts:
        return {"heavy_tool": self.tools}

    @property
    def places(self) -> tuple[Index]:
        return (np.arange(len(self.tools)),)
