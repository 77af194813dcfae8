"""The derivation behind a number: formulae that know their own text, and a recorder around them."""

from cutting.working.formula import Honesty, formula
from cutting.working.line import Line, in_words, line
from cutting.working.recorder import SILENT, Noting, Recorder, Silent, WorkingStep, last_step

__all__ = ["SILENT", "Honesty", "Line", "Noting", "Recorder", "Silent", "WorkingStep", "formula", "in_words", "last_step", "line"]
