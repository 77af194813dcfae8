"""Every word on the screen has its sentence: results, limits, terms; what was retired is found and not used."""

from __future__ import annotations

import re

import pytest

from cutting import read_setup
from cutting.glossary import RESULTS, TERMS, found, limits_of
from cutting.operations.registry import KINDS, evaluate_quickly
from tests.core.every_kind import EVERY_KIND


@pytest.mark.parametrize("kind", EVERY_KIND)
def test_every_result_and_every_limit_has_its_sentence(kind: str) -> None:
    outcome = evaluate_quickly(read_setup(EVERY_KIND[kind]))
    for name in outcome.results:
        assert re.fullmatch(r"[A-ZÄ].*[^.]\.", RESULTS[name]), name
    for one in limits_of(kind):
        assert one.means.endswith((".", "!")), one.name
        assert len(one.means.split()) >= 3, one.name


def test_a_term_is_one_idea_and_its_sentence_is_short() -> None:
    names = [one.name for one in TERMS]
    assert len(names) == len(set(names)) > 50
    for one in TERMS:
        assert len(one.means.split()) <= 36, one.name
        assert one.name.lower() not in [word.lower() for word in one.also], one.name


@pytest.mark.parametrize(
    ("typed", "first"),
    [("binding", "governing limit"), ("band", "uncertainty"), ("security", "reliability"), ("kerf", "kerf"), ("ra", "Ra")],
)
def test_people_find_a_term_by_the_word_they_know(typed: str, first: str) -> None:
    assert found(typed)[0].name == first
    assert found(f"  {typed.upper()} ") == found(typed)
    assert not found("no such word anywhere")


def test_the_limits_of_a_kind_are_those_that_it_has() -> None:
    for kind, own in KINDS.items():
        assert len(limits_of(kind)) == len(own.model.rules)
