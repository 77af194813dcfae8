"""Statistics of trials against other libraries, textbook examples and worked cases."""

from __future__ import annotations

import numpy as np
import pytest
from scipy import stats
from statsmodels.duration.survfunc import SurvfuncRight, survdiff
from statsmodels.formula.api import ols
from statsmodels.stats.anova import anova_lm
from statsmodels.stats.diagnostic import normal_ad

from cutting.errors import CuttingError
from cutting.learning.gauge import gauge_study
from cutting.learning.lives import Lives, compare, fit_weibull, kaplan_meier, log_rank
from cutting.learning.pool import Seen, life_level, pooled
from cutting.learning.sizes import capability, drift_of, normality
from cutting.learning.taylor import fit_taylor
from cutting.learning.worth import worth_of_trial

FAILED, RUNNING = [31, 38, 42, 45, 47, 52, 58], [40, 50, 60, 60]
MIXED = Lives.of([*FAILED, *RUNNING], [True] * 7 + [False] * 4)


def drawn(seed: int) -> Lives:
    dice = np.random.default_rng(seed)
    t, stop = 60.0 * dice.weibull(2.0 + seed % 4, 24), dice.uniform(20, 110, 24)
    return Lives(np.minimum(t, stop), t <= stop)


@pytest.mark.parametrize("seed", range(5))
def test_weibull_with_censoring(seed: int) -> None:
    """scipy's own censored fit, by a general optimiser."""
    lives = drawn(seed)
    data = stats.CensoredData.right_censored(lives.lasted, ~lives.ended)
    shape, _, scale = stats.weibull_min.fit(data, floc=0)
    found = fit_weibull(lives)
    assert found.shape == pytest.approx(shape, rel=2e-3)
    assert found.scale == pytest.approx(scale, rel=1e-3)
    # the interval against the likelihood itself: half of χ²(0.90, 1) below its top, within what a normal curve may be off
    low, high = found.between()
    for end in (low, high):
        fallen = _profile(lives, found.median, found.shape) - _profile(lives, end, found.shape)
        assert fallen == pytest.approx(stats.chi2.ppf(0.9, 1) / 2, rel=0.35)


def _profile(lives: Lives, median: float, near: float) -> float:
    """Log-likelihood with the median held, at its best shape."""
    shapes = np.linspace(0.3 * near, 3.0 * near, 2000)
    z = lives.lasted[:, None] / (median / np.log(2.0) ** (1.0 / shapes))
    terms = np.where(lives.ended[:, None], np.log(shapes) + shapes * np.log(z) - np.log(lives.lasted[:, None]), 0.0) - z**shapes
    return float(terms.sum(axis=0).max())


def test_edges_stopped_early_are_neither_failures_nor_left_out() -> None:
    """A worked case, computed with a statistics library: counting the running ones as failed, or leaving them out, is wrong."""
    found = fit_weibull(MIXED)
    assert (found.shape, found.scale) == (pytest.approx(4.8946, abs=1e-4), pytest.approx(55.451, abs=1e-3))
    told = [found.median, found.reached(0.95), found.reached(0.99)]
    assert told == [pytest.approx(value, abs=1e-3) for value in (51.450, 30.225, 21.664)]
    all_failed = fit_weibull(Lives.of([*FAILED, *RUNNING], [True] * 11))
    assert (all_failed.shape, all_failed.scale) == (pytest.approx(6.068, abs=1e-3), pytest.approx(51.29, abs=1e-2))
    left_out = fit_weibull(Lives.of(FAILED, [True] * 7))
    assert (left_out.shape, left_out.scale) == (pytest.approx(6.139, abs=1e-3), pytest.approx(48.14, abs=1e-2))


@pytest.mark.parametrize("seed", range(4))
def test_the_staircase(seed: int) -> None:
    """statsmodels' SurvfuncRight, Greenwood's variance."""
    lives = drawn(seed)
    theirs = SurvfuncRight(lives.lasted, lives.ended.astype(int))
    ours = kaplan_meier(lives)
    assert list(ours.lasted) == pytest.approx(list(theirs.surv_times))
    assert list(ours.share) == pytest.approx(list(theirs.surv_prob))
    k = len(ours.share) // 2
    s, error = theirs.surv_prob[k], theirs.surv_prob_se[k]
    width = stats.norm.ppf(0.95) * error / (s * abs(np.log(s)))
    assert (ours.low[k], ours.high[k]) == (pytest.approx(s ** np.exp(width)), pytest.approx(s ** np.exp(-width)))


@pytest.mark.parametrize("seeds", [(0, 1), (2, 3), (1, 1)])
def test_log_rank(seeds: tuple[int, int]) -> None:
    """statsmodels' survdiff."""
    one, other = map(drawn, seeds)
    time, status = np.concatenate([one.lasted, other.lasted]), np.concatenate([one.ended, other.ended]).astype(int)
    statistic, luck = survdiff(time, status, np.repeat([0, 1], [24, 24]))
    assert log_rank(one, other) == (pytest.approx(statistic, abs=1e-9), pytest.approx(luck, abs=1e-9))


def test_lives_of_ball_bearings() -> None:
    """Lieblein and Zelen 1956, 23 bearings, million turns: shape 2.102, scale 81.88 (Lawless 1982, table 1.1; from memory)."""
    turns = [17.88, 28.92, 33.00, 41.52, 42.12, 45.60, 48.48, 51.84, 51.96, 54.12, 55.56, 67.80, 68.64, 68.64, 68.88, 84.12, 93.12]
    found = fit_weibull(Lives.of([*turns, 98.64, 105.12, 105.84, 127.92, 128.04, 173.40], [True] * 23))
    assert (found.shape, found.scale) == (pytest.approx(2.102, abs=2e-3), pytest.approx(81.88, abs=0.02))


def test_taylor_with_an_edge_changed_early() -> None:
    """A worked case: log-normal scatter, one of eight stopped at 60 min."""
    speeds, life = [120, 120, 140, 140, 160, 160, 180, 180], [44, 60, 30, 27, 17, 20, 11.5, 13]
    found = fit_taylor(speeds, Lives.of(life, [True, False, *[True] * 6]), 150)
    assert np.log(found.life) == pytest.approx(3.1423, abs=2e-4)
    assert (found.exponent, found.scatter) == (pytest.approx(0.2797, abs=1e-4), pytest.approx(0.1107, abs=1e-4))
    assert found.at(150) == pytest.approx(23.16, abs=0.01)
    as_failed = fit_taylor(speeds, Lives.of(life, [True] * 8), 150)
    assert (as_failed.exponent, as_failed.at(150)) == (pytest.approx(0.2843, abs=1e-4), pytest.approx(23.03, abs=0.01))
    # without censoring the likelihood is ordinary least squares, its spread that of n and not of n − 2
    line = stats.linregress(np.log(np.array(speeds) / 150), np.log(life))
    slope, level, error = line.slope, line.intercept, line.stderr * np.sqrt(6 / 8)
    assert as_failed.covariance[1, 1] == pytest.approx(error**2, rel=1e-3)
    ends = [1 / (-slope + side * stats.norm.ppf(0.95) * error) for side in (1, -1)]
    assert (as_failed.exponent_low, as_failed.exponent_high) == (pytest.approx(ends[0], rel=1e-3), pytest.approx(ends[1], rel=1e-3))
    low, high = as_failed.between(220)
    near = as_failed.between(150)
    assert low < as_failed.at(220) < high
    assert high / low > near[1] / near[0], "further from the speeds that were tried it is known worse"
    assert (1 / as_failed.exponent, as_failed.life) == (pytest.approx(-slope, rel=1e-4), pytest.approx(np.exp(level), rel=1e-4))


def test_an_exponent_wants_two_speeds() -> None:
    with pytest.raises(CuttingError, match="second speed, 15 % apart"):
        fit_taylor([150, 150, 152], Lives.of([20, 22, 25], [True] * 3))


SIZES = [49.981, 49.984, 49.979, 49.983, 49.986, 49.982, 49.980, 49.985, 49.983, 49.981,
         49.984, 49.982, 49.987, 49.980, 49.983, 49.985, 49.981, 49.984, 49.982, 49.986]  # fmt: skip


def test_capability_and_when_there_is_none() -> None:
    """A worked case; Cp by χ², Cpk by Bissell."""
    found = capability(SIZES, 49.975, 49.991)
    assert (found.mean, found.spread) == (pytest.approx(49.98290), pytest.approx(0.0022219, abs=1e-7))
    assert found.cp == pytest.approx((1.2002, 0.822, 1.578), abs=5e-4)
    assert found.cpk == pytest.approx((1.1852, 0.781, 1.589), abs=5e-4)
    assert found.neighbours == pytest.approx(0.00303, abs=5e-6)
    assert "alternate" in found.said
    assert capability(SIZES[:12], 49.975, 49.991).cpk is None
    drifting = capability([size + 0.0008 * k for k, size in enumerate(SIZES)], 49.975, 50.011)
    assert drifting.cpk is None
    assert "drifts" in drifting.why_not[0]
    skewed = capability([49.98 + 0.001 * value for value in np.random.default_rng(4).permutation(np.geomspace(0.01, 30, 40))], 49.9, 50.1)
    assert skewed.cpk is None
    assert "normally" in skewed.why_not[-1]


def test_normality() -> None:
    """statsmodels' Anderson–Darling with mean and spread estimated; 0.233 before it is adjusted for the number of sizes."""
    plain, _ = normal_ad(np.array(SIZES))
    assert plain == pytest.approx(0.233, abs=5e-4)
    assert normality(SIZES) == pytest.approx(plain * (1 + 0.75 / 20 + 2.25 / 400))


def test_drift_and_where_the_zone_is_used_up() -> None:
    """statsmodels' prediction interval of a straight line."""
    pieces = np.arange(1, 31)
    sizes = 49.98 + 0.0002 * pieces + 0.0006 * np.sin(7.0 * pieces)
    found = drift_of(pieces, sizes, 49.975, 49.991)
    line = ols("size ~ piece", {"size": sizes, "piece": pieces}).fit()
    assert found.per_piece == pytest.approx(line.params["piece"])
    assert (found.low, found.high) == pytest.approx(tuple(line.conf_int().loc["piece"]))
    ahead = line.get_prediction({"piece": np.arange(31, 80)}).summary_frame(alpha=0.05)
    first = 31 + int(np.flatnonzero(ahead["obs_ci_upper"] > 49.991)[0])
    assert found.used_up == first
    assert drift_of(pieces, 49.98 + 0.0006 * np.sin(7.0 * pieces), 49.975, 49.991).used_up is None


def study(seed: int, person: float) -> np.ndarray:
    """From seed 4 on one person reads half of the parts otherwise: an interaction."""
    dice = np.random.default_rng(seed)
    odd = np.zeros((3, 10, 1))
    if seed > 3:
        odd[0, ::2] = 0.012
    parts = dice.normal(20, 0.02, 10)[None, :, None]
    return odd + parts + dice.normal(0, person, 3)[:, None, None] + dice.normal(0, 0.002, (3, 10, 3))


@pytest.mark.parametrize("seed", [1, 2, 3, 4])
def test_gauge_study(seed: int) -> None:
    """Mean squares of statsmodels' two-way analysis of variance, interaction pooled where F is below that of 25 %."""
    readings = study(seed, 0.003)
    person, part, _ = np.indices(readings.shape)
    rows = {"y": readings.ravel(), "person": person.ravel(), "part": part.ravel()}
    table = anova_lm(ols("y ~ C(person) * C(part)", rows).fit())
    both, left = table.loc["C(person):C(part)"], table.loc["Residual"]
    mean = table["mean_sq"]
    if both["F"] < stats.f.isf(0.25, both["df"], left["df"]):
        error = inner = (both["sum_sq"] + left["sum_sq"]) / (both["df"] + left["df"])
        crossed = 0.0
    else:
        error, inner = left["mean_sq"], both["mean_sq"]
        crossed = max((inner - error) / 3, 0.0)
    found = gauge_study(readings, 0.05)
    assert found.repeatability**2 == pytest.approx(error)
    assert found.reproducibility**2 == pytest.approx(max((mean["C(person)"] - inner) / 30, 0.0) + crossed)
    assert found.parts**2 == pytest.approx((mean["C(part)"] - inner) / 9)


def test_a_gauge_that_cannot_see_the_fit_is_told() -> None:
    """Share of the zone over 30 %: take another instrument; below 10 % it is good (common practice)."""
    readings = study(1, 0.003)
    assert [gauge_study(readings, zone).verdict.split(" ")[0].rstrip(":") for zone in (1.0, 0.1, 0.02)] == ["good", "usable", "cannot"]
    with pytest.raises(CuttingError, match="equally often"):
        gauge_study([[[1.0, 2.0], [1.0]], [[1.0, 2.0], [1.0, 2.0]]])


SAW = Seen(0.18, 0.08, "tool", "metal", "machine", "grade", "group 7")


def test_one_trial_and_four_against_the_prior() -> None:
    """A worked case: prior 0.15, each observation 0.08, ln 0.18 seen."""
    one, four = pooled([SAW], 0.15)[-1], pooled([SAW] * 4, 0.15)[-1]
    assert (one.mean, one.spread, one.weight) == pytest.approx((0.1401, 0.0706, 0.779), abs=5e-4)
    assert (four.mean, four.spread, four.weight) == pytest.approx((0.1680, 0.0386, 0.934), abs=5e-4)


def test_pooling_is_the_mixed_model_of_its_covariances() -> None:
    """The same posterior from the joint normal of all observations: covariance by what two cells share (textbook, conditional normal)."""
    dice = np.random.default_rng(5)
    seen = [
        Seen(
            float(dice.normal(0.1, 0.2)),
            float(dice.uniform(0.05, 0.2)),
            f"tool {k % 4}",
            f"metal {k % 2}",
            "machine",
            f"grade {k % 4 // 2}",
            "g",
        )
        for k in range(12)
    ]
    prior = 0.35
    shares = np.cumsum([0.35, 0.35, 0.30]) * prior**2
    cells = list(dict.fromkeys((one.family, one.cell) for one in seen))

    def shared(a: tuple, b: tuple) -> float:
        return shares[2] if a == b else shares[1] if a[0] == b[0] else shares[0]

    at = [(one.family, one.cell) for one in seen]
    joint = np.array([[shared(a, b) for b in at] for a in at]) + np.diag([one.spread**2 for one in seen])
    values = np.array([one.value for one in seen])
    told = {(one.tool, one.metal): one for one in pooled(seen, prior) if one.level.startswith("tool")}
    for cell in cells:
        across = np.array([shared(cell, b) for b in at])
        mean = across @ np.linalg.solve(joint, values)
        left = np.sqrt(shares[2] - across @ np.linalg.solve(joint, across))
        found = told[cell[1][0], cell[1][1]]
        assert (found.mean, found.spread) == (pytest.approx(mean), pytest.approx(left))


def test_the_level_of_a_life_leans_on_what_lasted() -> None:
    """Against the posterior on a grid, Weibull likelihood with censoring: its mean and spread, as near as a normal curve comes."""
    lasted, ended, predicted, shape, prior = [40.0, 52.0, 35.0], [True, False, True], [30.0, 30.0, 28.0], 3.0, 0.35
    found = life_level(lasted, ended, predicted, shape, prior, SAW).seen
    grid = np.linspace(-2, 2, 8001)
    z = np.log(2) * (np.array(lasted) / np.array(predicted))[:, None] ** shape * np.exp(-shape * grid)
    weight = np.exp((np.where(np.array(ended)[:, None], -shape * grid, 0) - z).sum(axis=0) - 0.5 * (grid / prior) ** 2)
    mean = (grid * weight).sum() / weight.sum()
    spread = np.sqrt(((grid - mean) ** 2 * weight).sum() / weight.sum())
    left = (found.spread**-2 + prior**-2) ** -0.5
    assert left == pytest.approx(spread, rel=0.08)
    assert found.value * left**2 / found.spread**2 == pytest.approx(mean, abs=0.25 * spread)


def test_the_worth_of_a_trial() -> None:
    """By a million draws of what the trial may say: the better choice then, against the first choice for good."""
    difference, before, after, pieces, costs = 0.04, 0.10, 0.05, 12_000, 34.0
    found = worth_of_trial(difference, before, after, pieces, costs)
    means = np.random.default_rng(1).normal(difference, np.sqrt(before**2 - after**2), 1_000_000)
    assert found.saves == pytest.approx(pieces * np.maximum(-means, 0).mean(), rel=0.01)
    assert found.changes == pytest.approx((means < 0).mean(), abs=0.002)
    assert found.net == pytest.approx(found.saves - costs)


def test_two_kinds_of_edge() -> None:
    """The ratio covers the truth as often as it says, and tells how many edges more would show a fifth."""
    dice, held, seen = np.random.default_rng(3), 0, 300
    for _ in range(seen):
        a, b = (scale * dice.weibull(3.0, 12) for scale in (60.0, 50.0))
        ratio = compare(*(Lives(np.minimum(t, 80), t <= 80) for t in (a, b)))
        held += ratio.low <= 1.2 <= ratio.high
    assert 0.84 <= held / seen <= 0.95
    few = compare(Lives.of([30, 45, 60], [True] * 3), Lives.of([28, 44, 70], [True] * 3))
    assert not few.differs
    assert few.more > 0
    # a fifth more is ruled out, a fifth less is not yet; then neither is left, and nothing more is asked for
    less = compare(Lives.of([30, 44, 50], [True] * 3), Lives.of([36, 48, 56], [True] * 3))
    assert less.high < 1.2
    assert less.low < 0.8
    assert not less.differs
    assert less.more > 0
    same = compare(Lives.of([40, 42, 44, 46] * 6, [True] * 24), Lives.of([41, 42, 44, 45] * 6, [True] * 24))
    assert 0.8 < same.low < 1.0 < same.high < 1.2
    assert same.more == 0
    assert compare(Lives.of([80, 85, 90], [True] * 3), Lives.of([42, 44, 45], [True] * 3)).differs
