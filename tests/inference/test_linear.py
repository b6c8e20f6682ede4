"""The robust linear update, held to sums that are done another way."""

import numpy as np
import pytest
from scipy.integrate import quad
from scipy.stats import norm

from substrata.inference.calibration.robust_update import Residual, update


def seen(off, noise, end=0, run="1"):
    return Residual(
        run=run, off=np.array([off]), slope=np.ones((1, 1)), noise=np.array([noise]), end=np.array([float(end)])
    )


@pytest.mark.parametrize(
    ("at", "noise", "end"), [(1.0, 0.5, 1), (-0.4, 1.0, 1), (-1.5, 0.3, -1), (0.8, 2.0, -1), (2.5, 0.5, 1)]
)
def test_the_end_of_a_scale_says_so_far_or_further(at, noise, end):
    """Against the integral of prior times the chance to lie beyond the end."""

    def weight(x, power):
        return x**power * norm.pdf(x) * norm.cdf(end * (x - at) / noise)

    whole, first, second = (quad(weight, -12, 12, args=(power,), limit=200)[0] for power in (0, 1, 2))
    mean = first / whole
    found = update(np.array([1.0]), [seen(at, noise, end)])
    assert found.mean[0] == pytest.approx(mean, abs=0.02 + 0.02 * abs(mean))
    assert found.sd[0] == pytest.approx(np.sqrt(second / whole - mean**2), rel=0.05)


@pytest.mark.parametrize("at", [-60.0, -8.0, 8.0, 60.0])
def test_an_end_far_out_is_believed_to_its_side_and_never_turned_round(at):
    mean = update(np.array([1.0]), [seen(at, 0.5, 1)]).mean[0]
    assert -0.01 <= mean <= max(at, 0.01)


def test_an_end_pulls_to_its_side_only_and_what_lies_beyond_it_is_not_odd():
    far = [seen(8.0, 1.0, run=str(n)) for n in range(4)]
    plain, ended = (update(np.array([10.0]), [*far, seen(2.0, 1.0, end, run="end")]) for end in (0, 1))
    assert plain.trust["end"] < 0.4 < ended.trust["end"] == 1.0
    assert ended.mean[0] == pytest.approx(update(np.array([10.0]), far).mean[0], abs=0.05)


def test_a_plain_reading_is_weighed_by_its_noise():
    """Normal prior and normal reading: the textbook's posterior (Gelman et al., Bayesian Data Analysis, 2.5)."""
    found = update(np.array([2.0]), [seen(1.0, 1.0)])
    assert found.mean[0] == pytest.approx(0.8)
    assert found.sd[0] == pytest.approx(np.sqrt(0.8))
