"""Programs for controls: a path written as word-address code (ISO 6983-1), read back, and checked against what was planned."""

from cutting.program.body import Chucked
from cutting.program.check import check
from cutting.program.dialect import Dialect, dialects
from cutting.program.finding import Finding
from cutting.program.read import Executed, execute
from cutting.program.write import JobStep, write, write_job

__all__ = ["Chucked", "Dialect", "Executed", "Finding", "JobStep", "check", "dialects", "execute", "write", "write_job"]
