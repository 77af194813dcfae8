"""Turns the core's studies of an operation into what the API gives."""

from server.jobs.studies.choices import coolant_out, hard_out, way_out
from server.jobs.studies.edges import edge_angles_out, edge_life_out
from server.jobs.studies.passes import fit_out, ledger_out, plan_out
from server.jobs.studies.rigidity import rigidity_out

__all__ = ["coolant_out", "edge_angles_out", "edge_life_out", "fit_out", "hard_out", "ledger_out", "plan_out", "rigidity_out", "way_out"]
