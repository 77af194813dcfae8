"""Tool life, its spread and its money against textbooks and SciPy. Keys as in docs/sources.md."""

from __future__ import annotations

import numpy as np
import pytest
from scipy.integrate import quad
from scipy.stats import weibull_min

from cutting.money.cost import operation_cost, operation_time, optimum_life_for_cost, optimum_life_for_time, solid_tool_cost
from cutting.money.kerf import usual_price
from cutting.wear.life import factor_along_edge, speed_for_life, taylor_from_two_points, taylor_life
from cutting.wear.reference import life_law
from cutting.wear.spread import completion_probability, life_quantile, mean_used, weibull_shape


def test_taylor_from_two_points() -> None:
    # groover, ch. 22: (160 m/min, 5 min) and (100, 41): n 0.223, C 229
    n, c = taylor_from_two_points((160, 5), (100, 41))
    assert n == pytest.approx(0.223, abs=5e-4)
    assert c == pytest.approx(229, abs=0.5)


def test_gilbert_optimum_of_the_textbook_case() -> None:
    # groover, ch. 24: HSS, n 0.125, C 70, change 2 min, 30 an hour, 3 an edge: 50 m/min fastest, 42 cheapest
    fastest = 70 / optimum_life_for_time(0.125, 2.0) ** 0.125
    cheapest = 70 / optimum_life_for_cost(0.125, 2.0, 3.0, 30.0) ** 0.125
    assert float(fastest) == pytest.approx(50.3, abs=0.1)
    assert float(cheapest) == pytest.approx(42.3, abs=0.1)


@pytest.mark.parametrize(("speed", "minutes", "cost"), [(50, 19.57, 12.79), (42, 20.63, 11.32)])
def test_cost_of_a_piece_in_the_textbook_case(speed: float, minutes: float, cost: float) -> None:
    # groover, ch. 24: Ø100 × 500, f 0.25, handling 5 min; pieces per edge are whole there
    cutting = np.pi * 100 * 500 / (1000 * speed * 0.25)
    life = (70 / speed) ** 8
    pieces = np.floor(life / cutting)
    arguments = {"engaged_time": 60 * cutting, "idle_time": 300, "change_time": 2, "parts_per_edge": pieces}
    assert float(operation_time(**arguments)) / 60 == pytest.approx(minutes, abs=0.02)
    assert float(operation_cost(rate=30, edge_cost=3, **arguments)) == pytest.approx(cost, abs=0.02)


def test_cheapest_life_is_the_minimum_of_the_cost_curve() -> None:
    """Gilbert's closed form against a search over the cost per piece itself (continuous pieces per edge)."""
    n, c, rate, change, edge = 0.25, 300.0, 58.0, 1.2, 2.6
    lives = np.linspace(2, 60, 20001)
    cutting = 1.0e5 / (c / lives**n)  # seconds, any work content
    cost = operation_cost(rate, cutting, 20.0, change, edge, 60 * lives / cutting)
    assert lives[np.argmin(cost)] == pytest.approx(float(optimum_life_for_cost(n, change, edge, rate)), rel=2e-3)


def test_reground_tool() -> None:
    # groover, ch. 24: (price + regrinds × regrind price)/(regrinds + 1)
    assert float(solid_tool_cost(30.0, 9, 2.0)) == pytest.approx(4.8)


def test_life_law_gives_fifteen_minutes_at_its_anchor() -> None:
    # common-practice, starting values: the row's speed is for 15 min at the row's feed and depth
    law = life_law("2", "carbide")
    assert law is not None
    shared = (
        law.taylor_exponent,
        law.reference_feed,
        law.reference_feed,
        law.feed_exponent,
        law.reference_depth,
        law.reference_depth,
        law.depth_exponent,
    )
    assert float(taylor_life(law.reference_speed, 1.0, law.reference_speed, *shared)) == pytest.approx(15)
    assert float(speed_for_life(60.0, law.reference_speed, 1.0, *shared)) / law.reference_speed == pytest.approx(0.71, abs=0.005)
    assert float(speed_for_life(30.0, law.reference_speed, 1.0, *shared)) / law.reference_speed == pytest.approx(0.84, abs=0.005)


@pytest.mark.parametrize("shape", [1.5, 2.5, 4.0, 8.0])
def test_weibull_against_scipy(shape: float) -> None:
    median = 20.0
    law = weibull_min(shape, scale=median / np.log(2) ** (1 / shape))
    for minutes in (5.0, 12.0, 20.0, 31.0):
        assert float(completion_probability(minutes, median, shape)) == pytest.approx(law.sf(minutes), rel=1e-9)
    assert float(life_quantile(0.95, shape)) * median == pytest.approx(law.isf(0.95), rel=1e-9)
    # the table between scatter and shape is interpolated: half a per cent
    assert float(weibull_shape(law.std() / law.mean())) == pytest.approx(shape, rel=5e-3)


def test_secure_intervals_at_shape_four() -> None:
    # common practice: 99 % is about a third of the median life, 95 % about half
    assert float(life_quantile(0.99, 4.0)) == pytest.approx(1 / 3, abs=0.03)
    assert float(life_quantile(0.95, 4.0)) == pytest.approx(1 / 2, abs=0.03)


@pytest.mark.parametrize(("share", "shape"), [(0.35, 4.0), (0.75, 4.0), (0.9, 2.0), (1.0, 1.2), (0.6, 10.0)])
def test_edges_that_fail_early_against_the_integral(share: float, shape: float) -> None:
    """Expected value of the shorter of life and interval, by numerical integration of the survival curve (weibull-1951)."""
    mean, _ = quad(lambda u: 2.0 ** -((share * u) ** shape), 0.0, 1.0)
    assert float(mean_used(share, shape)) == pytest.approx(mean, rel=1e-9)


def test_bar_costs_what_its_metal_costs() -> None:
    """Where a shop says no price: steel by the kilogram is cheapest, then alloy, stainless, copper alloys, nickel and titanium.

    Common practice, no source: 1.5 to 2 for carbon steel, 3 to 5 for tool steel, 4 to 6 for stainless and aluminium, 8 to 12 for copper.
    """
    steel, tool, stainless, aluminium, copper, exotic = (
        usual_price(1, "P"), usual_price(11, "P"), usual_price(14, "M"), usual_price(22, "N"), usual_price(28, "N"), usual_price(34, "S"),
    )  # fmt: skip
    assert 1.2 <= steel <= 2.0 < 3.0 <= tool <= 5.0
    assert tool <= stainless <= aluminium <= 6.5
    assert 8.0 <= usual_price(29, "N") <= usual_price(26, "N") <= copper <= 13.0
    assert usual_price(27, "N") == usual_price(26, "N")
    assert 3.0 <= usual_price(12, "P") < usual_price(13, "P") < usual_price(11, "P")
    assert exotic > 3 * copper


def test_speed_gains_along_a_slanted_edge_as_speed_tables_have_it() -> None:
    """Handbook tables (from memory): 1.2, 1.0, 0.9, 0.8, 0.7 at κr 30°, 45°, 60°, 75°, 90° for the same feed; speed goes with f^−0.35."""
    table = {30.0: 1.2, 45.0: 1.0, 60.0: 0.9, 75.0: 0.8, 90.0: 0.7}
    at_one_chip = {angle: factor / 0.7 * np.sin(np.radians(angle)) ** 0.35 for angle, factor in table.items()}
    ours = {angle: float(factor_along_edge(1.0, angle, 3.0, 0.4)) for angle in table}
    assert list(ours.values()) == sorted(ours.values(), reverse=True), "the smaller the angle the more"
    for angle, wanted in at_one_chip.items():
        assert 0.84 * wanted < ours[angle] <= 1.01 * wanted, "never more than the tables give"
    deep, shallow, corner = (float(factor_along_edge(1.0, 30.0, depth, 0.8)) for depth in (4.0, 0.4, 0.1))
    assert deep > shallow > corner == 1.0, "what the corner cuts gains nothing"
    assert float(factor_along_edge(0.8, 107.0, 2.0, 0.8)) == float(factor_along_edge(0.8, 90.0, 2.0, 0.8)) == 0.8


@pytest.mark.parametrize("factor", [0.8, 1.25])
@pytest.mark.parametrize("thickness", [0.05, 0.2, 0.4, 3.0])
def test_speed_and_life_are_each_other_s_inverse(factor: float, thickness: float) -> None:
    """Whatever grade and skin take or give; however thick a chip, it costs a quarter to two fifths of the speed (common practice)."""
    chip = (0.25, 0.2, thickness, 0.3, 2.0, 2.0, 0.1)
    speed = float(speed_for_life(40.0, 200.0, factor, *chip))
    assert float(taylor_life(200.0, factor, speed, *chip)) == pytest.approx(40.0)
    at_reference = float(speed_for_life(40.0, 200.0, factor, 0.25, 0.2, 0.2, 0.3, 2.0, 2.0, 0.1))
    assert speed < at_reference if thickness > 0.2 else speed >= at_reference
    assert 0.6 < speed / at_reference < 1.4
    if thickness == 0.2:
        assert (speed > 200.0 * (15 / 40) ** 0.25) == (factor > 1.0), "a better grade runs faster"
    if thickness > 1.0:
        assert 0.6 < speed / at_reference < 0.75
