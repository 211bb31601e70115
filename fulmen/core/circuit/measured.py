"""The few figures that a design takes from the readings: Ze, fault currents, electrodes and when they were read.

This is the only place where the design meets a reading. Whatever else is read is judged by the testing layer, and the
design stands as it stood.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass

from fulmen.core.installation.run import ORIGIN
from fulmen.core.model.readings import Outcome, Reading, StepKey

FAULT_CURRENTS = (StepKey.FAULT_CURRENT_NEUTRAL, StepKey.FAULT_CURRENT_EARTH, StepKey.FAULT_CURRENT)
# By loop tester the operator's electrode is in the figure: more than RA alone, which is the safe side.
ELECTRODES = (StepKey.ELECTRODE, StepKey.ELECTRODE_LOOP)
TAKEN = (StepKey.ZE, *FAULT_CURRENTS, *ELECTRODES)


@dataclass(frozen=True, slots=True)
class Measured:
    """What was measured of the supply and of electrodes, as far as the design goes by it.

    `fault_ka` is the larger of those read, `fault_neutral_ka` the one to neutral. Electrodes stand under the name of
    their step's subject: `electrode_ohm` by the spikes, `electrode_loop_ohm` by the loop tester, `electrode_months` the
    months in which any reading of one was taken.
    """

    ze_ohm: float | None
    fault_ka: float | None
    fault_neutral_ka: float | None
    electrode_ohm: Mapping[str, float]
    electrode_loop_ohm: Mapping[str, float]
    electrode_months: Mapping[str, frozenset[int]]


def measured_of(readings: Iterable[Reading]) -> Measured:
    """The figures that a design takes from some readings; of each step the latest counts, over range is no figure.

    A reading of 0.00 Ω or kA is no loop but a slip, or an electrode's few amperes: it is asked about by the testing
    layer, and nothing is reckoned with it.
    """
    latest: dict[tuple[StepKey, str], Reading] = {}
    months: dict[str, frozenset[int]] = {}
    for one in readings:
        if one.step in TAKEN:
            latest[one.step, one.subject] = one
        if one.step is StepKey.ELECTRODE:
            months[one.subject] = months.get(one.subject, frozenset()) | {one.taken_at.month}
    figures = {
        key: one.value for key, one in latest.items() if one.outcome is Outcome.MEASURED and one.value is not None
    }
    faults_ka = [figure for step in FAULT_CURRENTS if (figure := figures.get((step, ORIGIN)))]
    spikes, loops = (
        {subject: ohm for (step, subject), ohm in figures.items() if step is electrode} for electrode in ELECTRODES
    )
    return Measured(
        ze_ohm=figures.get((StepKey.ZE, ORIGIN)) or None,
        fault_ka=max(faults_ka, default=None),
        fault_neutral_ka=figures.get((StepKey.FAULT_CURRENT_NEUTRAL, ORIGIN)) or None,
        electrode_ohm=spikes,
        electrode_loop_ohm=loops,
        electrode_months=months,
    )


NOTHING_MEASURED = measured_of(())
