"""Size control, warmth, heights, chips and jets against closed forms and books. Keys as in docs/sources.md."""

from __future__ import annotations

import numpy as np
import pytest
from scipy.stats import norm, weibull_min

from cutting.chips.curl import compression_ratio, shear_angle
from cutting.mechanics import heat, jet, tool_setting
from cutting.sizing.drift import drift_per_piece, nose_recession
from cutting.sizing.offsets import PROCESS_SPREAD, Observation, learn, prior
from cutting.sizing.warmth import at_reference, growth
from cutting.wear.spread import life_quantile


def test_offset_ledger_is_weighted_least_squares_with_the_prior_as_rows() -> None:
    # bayes: a Gaussian prior is two more observations; numpy's least squares on whitened rows is the oracle
    seen = [Observation(50.0, 50.061, 210.0, 0.005), Observation(48.0, 48.055, 190.0, 0.005), Observation(47.0, 47.03, 60.0, 0.003)]
    start = prior(1.2e-4)
    belief = learn(start, seen)
    spread = np.sqrt(np.diag(start.covariance))
    rows = [[1 / spread[0], 0.0], [0.0, 1 / spread[1]]]
    right = [start.mean[0] / spread[0], start.mean[1] / spread[1]]
    for one in seen:
        sigma = np.hypot(one.uncertainty, PROCESS_SPREAD)
        rows.append([1 / sigma, one.force / sigma])
        right.append(one.offset / sigma)
    solved, *_ = np.linalg.lstsq(np.array(rows), np.array(right), rcond=None)
    assert belief.mean == pytest.approx(solved, rel=1e-8)
    assert belief.covariance == pytest.approx(np.linalg.inv(np.array(rows).T @ np.array(rows)), rel=1e-8)


def test_the_interval_of_the_next_cut_holds_as_often_as_it_says() -> None:
    """Many invented machines whose truth is drawn from the prior: 95 % intervals must hold in about 95 % of them."""
    rng = np.random.default_rng(7)
    held = 0
    for _ in range(600):
        start = prior(1e-4)
        setting, spring = rng.normal(start.mean, np.sqrt(np.diag(start.covariance)))

        def cut(force: float, setting: float = setting, spring: float = spring) -> float:
            return float(setting + spring * force + rng.normal(0, np.hypot(0.004, PROCESS_SPREAD)))

        belief = learn(start, [Observation(50.0, 50.0 + cut(force), force, 0.004) for force in (200.0, 205.0)])
        expected, spread = belief.predict(80.0)
        truth = setting + spring * 80.0 + rng.normal(0, PROCESS_SPREAD)
        held += abs(truth - expected) <= norm.ppf(0.975) * spread
    assert 0.92 <= held / 600 <= 0.98


def test_warm_aluminium() -> None:
    # iso-1: aluminium Ø200, 10 K over 20 °C: 48 µm with α 24e−6
    assert float(growth(200.0, 24.0, 30.0)) * 1000 == pytest.approx(48.0, abs=0.1)
    assert float(at_reference(200.048, 24.0, 30.0)) == pytest.approx(200.0, abs=2e-5)


def test_nose_recession_is_the_ground_off_wedge() -> None:
    """A flank land of 0.3 mm under 6° of clearance: the tip stands back 0.3·tan 6° = 31.5 µm (plane geometry)."""
    assert float(nose_recession(0.3, 6.0)) * 1000 == pytest.approx(31.53, abs=0.01)
    assert float(drift_per_piece(nose_recession(0.3, 6.0), 63.0)) * 1000 == pytest.approx(1.0, abs=0.01)


def test_tip_above_centre_by_plane_geometry() -> None:
    """Tip 0.5 mm over the axis of Ø20: θ = asin(0.05) = 2.87°, rake gains it outside and loses it inside (ISO 3002-1)."""
    theta = float(tool_setting.height_angle(0.5, 20.0))
    assert theta == pytest.approx(2.866, abs=1e-3)
    assert float(tool_setting.effective_rake(-6.0, theta)) == pytest.approx(-3.134, abs=1e-3)
    assert float(tool_setting.effective_rake(-6.0, theta, inside=True)) == pytest.approx(-8.866, abs=1e-3)
    assert float(tool_setting.effective_clearance(6.0, theta)) == pytest.approx(3.134, abs=1e-3)
    assert float(tool_setting.pip_diameter(-0.1)) == pytest.approx(0.2)
    # the tip at (x, h): its distance from the axis is √(x² + h²)
    assert float(tool_setting.height_size_error(0.5, 20.0)) == pytest.approx(2 * np.hypot(10, 0.5) - 20)


def test_chip_compression_as_in_the_textbook() -> None:
    # groover, ch. 20: rake 10°, chip ratio 0.444 (so 2.25 times thicker) belongs to a shear angle of 25.4°
    assert float(compression_ratio(25.4, 10.0)) == pytest.approx(1.125 / 0.5, rel=3e-3)
    # groover, ch. 20, Merchant: Fc 1559, Ft 1271 give a friction angle of 10° + atan(1271/1559) = 49.2°, so φ = 45 + 5 − 24.6
    assert float(shear_angle(10.0, 10.0 + np.degrees(np.arctan(1271 / 1559)))) == pytest.approx(25.4, abs=0.1)


def test_jet_and_nozzle() -> None:
    # bernoulli: 70 bar without loss 118 m/s; 1000 psi is 69 bar
    assert float(jet.jet_speed(70.0, 1.0)) == pytest.approx(118.3, abs=0.1)
    assert float(jet.jet_speed(1000 * 0.0689476, 1.0)) == pytest.approx(117.4, abs=0.1)
    # CoolProp and fluids (run once elsewhere): 1 mm orifice, Cd 0.62, 70 bar, water: 3.460 l/min; density 0.1 % off here
    assert float(jet.nozzle_flow(1, 1.0, 70.0, 0.62)) == pytest.approx(3.460, rel=3e-3)
    # handbook: kW = l/min · bar / 600 at full efficiency
    assert float(jet.pump_power(18.0, 70.0, 1.0)) == pytest.approx(2.1)


def test_change_intervals_against_scipy() -> None:
    # scipy.stats.weibull_min: the 95, 99 and 99.9 % intervals of an edge with median 46 pieces, shape 4.3
    scale = 46.0 / np.log(2) ** (1 / 4.3)
    for surely in (0.95, 0.99, 0.999):
        assert 46.0 * float(life_quantile(surely, 4.3)) == pytest.approx(weibull_min.ppf(1 - surely, 4.3, scale=scale), rel=1e-9)


def test_zone_temperature_compares_by_the_cube_root() -> None:
    """Cook's exponent: eight times the speed doubles the rise; at the starting speed the zone is at the softening point."""
    base, fast = (float(heat.cook_temperature_rise(4000, 3.7e-3, v, 0.05, 8.0)) for v in (125.0, 1000.0))
    assert fast / base == pytest.approx(2.0, rel=1e-9)
    assert float(heat.zone_temperature(650.0, base, base)) == pytest.approx(650.0)
    assert float(heat.zone_temperature(650.0, fast, base)) == pytest.approx(20 + 2 * 630.0)
