"""Programs for controls: a path written as word-address code (ISO 6983-1), read back, and checked against what was planned."""

from cutting.program.check import Finding, check
from cutting.program.dialect import Dialect, dialects
from cutting.program.read import Executed, execute
from cutting.program.write import write

__all__ = ["Dialect", "Executed", "Finding", "check", "dialects", "execute", "write"]
