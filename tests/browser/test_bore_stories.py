"""Two whole stories of bores on the demo job: the bar that sang until it was shorter, and the fit that was reached by measuring."""

from __future__ import annotations

import pytest
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from tests.browser.person import Person
from tests.browser.test_slot_stories import take_remedy
from tests.browser.test_turning_stories import broken, leave, number, open_operation, study

pytestmark = pytest.mark.browser
OFF = 0.038  # mm that every bore comes out smaller: the tool's setting and the bar together


def test_the_bar_that_sings_until_it_is_shorter(person: Person) -> None:
    open_operation(person, "Carrier, bored seats", "Deep seat Ø60 H8")
    assert broken(person) == ""
    quiet = number(person.see_text("section[aria-label^=Scene] dl", "springs").text.split("springs, on Ø")[1])

    # pulled far out of its sleeve the bar bends and sings, and the scene says by how much
    person.type_over("#overhang", "230 mm", Keys.ENTER)
    person.saved(2)
    person.settled()
    assert "chatter" in broken(person)
    assert "bar overhang" in broken(person)
    assert number(person.see_text("section[aria-label^=Scene] dl", "springs").text.split("springs, on Ø")[1]) > 3 * quiet
    study(person, "r", "Rigidity")
    assert "bar" in person.see_text("[role=dialog]", "Chatter").text
    leave(person)

    # back into its sleeve it is quiet
    take_remedy(person, "bar out of its sleeve")
    person.saved(3)
    person.settled()
    assert broken(person) == ""


def test_the_fit_that_is_reached_by_three_measurements(person: Person) -> None:
    open_operation(person, "Carrier, bored seats", "Bearing seat Ø62 H7")
    person.type_over("#depth_of_cut", "0.34 mm", Keys.ENTER)
    person.saved(2)
    person.settled()
    study(person, "z", "Passes and size")
    sizes = []
    for count in (1, 2, 3):
        commanded = number(person.read("[data-testid=command]"))
        sizes.append(commanded - OFF)
        label = person.see_text("[role=dialog] label", "measured Ø")
        label.find_element(By.CSS_SELECTOR, "input").send_keys(f"{sizes[-1]:.3f}", Keys.ENTER)
        person.until(lambda rows=count: len(person.all("[data-testid=ledger-row]")) == rows, f"{count} measured")
    assert sizes == sorted(sizes)  # a bore grows
    assert 62.0 <= sizes[-1] <= 62.03  # in H7, for all that tool and bar were off
