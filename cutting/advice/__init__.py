"""Ranks what the crib stocks for a feature, with the one reason why each is not first."""

from cutting.advice.candidate import Advice, Candidate, Refused
from cutting.advice.contests import advise

__all__ = ["Advice", "Candidate", "Refused", "advise"]
