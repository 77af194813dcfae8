"""The derivation behind a number: formulae that know their own text, and a recorder around them."""

from cutting.working.formula import Honesty, formula
from cutting.working.recorder import SILENT, Noting, Recorder, Silent, WorkingStep

__all__ = ["SILENT", "Honesty", "Noting", "Recorder", "Silent", "WorkingStep", "formula"]
