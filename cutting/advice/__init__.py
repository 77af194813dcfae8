"""Ranks what the crib stocks for a feature, with the one reason why each is not first."""

from cutting.advice.rank import Advice, Candidate, Refused, advise

__all__ = ["Advice", "Candidate", "Refused", "advise"]
