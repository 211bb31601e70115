"""pandapower 3.5, a general-purpose network library from the package registry.

A single-phase circuit is one phase of a balanced three-phase network whose line has the loop's resistance: the
phase-to-neutral voltages of both are the same. Load flow gives the volt drop, the IEC 60909 calculation gives the
fault current. Tolerance 1 %: our volt drop takes the full load current as constant, as the trade does, and so does
the library's constant-current load.

numpy solves the node equations of a broken PEN, against the closed form, within 0.1 %.
"""

import unittest
import warnings
from math import sqrt

import numpy as np

from fulmen.core.circuit.circuit_load import CircuitLoad
from fulmen.core.circuit.laid_cable import cable_per_metre, section_figures
from fulmen.core.electrical.fault_loop import conductor_ohm, prospective_fault_ka, temperature_factor
from fulmen.core.electrical.open_pen import met_voltage_v
from fulmen.core.electrical.volt_drop import millivolts_per_a_m
from fulmen.core.model.cables import Cable
from fulmen.core.model.route import Section
from fulmen.core.reference.cable_catalogue import cable_record, cable_records

U0_V = 230.0
CASES = [
    ("swa-3-core", 6.0, 17.0, 32.0),
    ("nyy-j", 4.0, 40.0, 20.0),
    ("ev-power-data", 10.0, 60.0, 32.0),
    ("twin-and-earth", 2.5, 12.0, 16.0),
]


def network(loop_ohm: float, ze_ohm: float = 1e-6):  # type: ignore[no-untyped-def]
    """A stiff source, an optional source impedance, and one line to a far node."""
    import pandapower as pp

    net = pp.create_empty_network()
    kv = U0_V * sqrt(3) / 1000
    start, middle, end = (pp.create_bus(net, vn_kv=kv) for _ in range(3))
    pp.create_ext_grid(net, start, s_sc_max_mva=1e6, rx_max=0.1)
    for a, b, ohm in ((start, middle, ze_ohm), (middle, end, loop_ohm)):
        pp.create_line_from_parameters(net, a, b, 1, r_ohm_per_km=ohm, x_ohm_per_km=1e-9, c_nf_per_km=0, max_i_ka=1)
    return net, end


class VoltDrop(unittest.TestCase):
    def test_load_flow(self) -> None:
        import pandapower as pp

        for record_id, csa_mm2, length_m, ib_a in CASES:
            with self.subTest(record_id), warnings.catch_warnings():
                warnings.simplefilter("ignore")
                record = cable_record(cable_records(), record_id)
                load = CircuitLoad(ib_a=ib_a, car_a=ib_a, balanced_a=0.0, other_a=0.0)
                cable = Cable(record=record_id, csa_mm2=csa_mm2)
                metre = cable_per_metre(record, cable)
                laid = section_figures(Section(length_m=length_m), cable, metre, 1, load, rate_at_70=False)
                millivolts = millivolts_per_a_m(record.insulation, csa_mm2, fine_strands=record.fine_strands)
                drop_v = laid.drop_v
                net, end = network(millivolts * length_m * laid.ct / 1000)
                power_mw = 3 * U0_V * ib_a / 1e6
                pp.create_load(net, end, p_mw=power_mw, const_i_p_percent=100)
                pp.runpp(net, numba=False)
                self.assertAlmostEqual((1 - net.res_bus.vm_pu[end]) * U0_V, drop_v, delta=0.01 * drop_v)


class FaultCurrent(unittest.TestCase):
    def test_short_circuit_at_the_far_end(self) -> None:
        import pandapower.shortcircuit as sc

        for record_id, csa_mm2, length_m, _ in CASES:
            with self.subTest(record_id), warnings.catch_warnings():
                warnings.simplefilter("ignore")
                record = cable_record(cable_records(), record_id)
                sizes, fine = (csa_mm2, record.cpc_mm2(csa_mm2)), record.fine_strands
                one_way = sum(conductor_ohm(length_m, size, fine_strands=fine) for size in sizes)
                net, end = network(one_way, ze_ohm=0.21)
                net.ext_grid["x0x_max"] = 1.0
                sc.calc_sc(net, case="max", bus=end, lv_tol_percent=10)
                ours_ka = prospective_fault_ka(0.21 + one_way, U0_V, 1.1)
                self.assertAlmostEqual(float(net.res_bus_sc.ikss_ka[end]), ours_ka, delta=0.01 * ours_ka)

    def test_hot_conductors_carry_less(self) -> None:
        cold = prospective_fault_ka(0.3, U0_V, 1.0)
        self.assertLess(prospective_fault_ka(0.3 * temperature_factor(70), U0_V, 1.0), cold)


class BrokenPen(unittest.TestCase):
    def test_node_equations(self) -> None:
        """One unknown node, the earth terminal: the load pulls it to the line, the electrode to true earth."""
        for load_a in (2.0, 10.0, 40.0, 80.0):
            for electrode_ohm in (1.0, 2.2, 32.0, 200.0):
                line_v, load_ohm = 1.1 * U0_V, U0_V / load_a
                conductances = np.array([[1 / load_ohm + 1 / electrode_ohm]])
                solved = float(np.linalg.solve(conductances, np.array([line_v / load_ohm]))[0])
                with self.subTest(load_a=load_a, electrode_ohm=electrode_ohm):
                    self.assertAlmostEqual(
                        met_voltage_v(electrode_ohm, load_a, U0_V, 1.1), solved, delta=0.001 * solved
                    )
