"""The cut as it is made now against another way, by what drives its cost."""

from __future__ import annotations

from cutting.operations.registry import KINDS
from cutting.studies.study import Study

STUDY = Study("process", "current process", "q", tuple(KINDS))
