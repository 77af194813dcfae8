"""The numbers of the layers that a drill goes through, one entry each."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from cutting.mechanics.drilling import margin_share
from cutting.mechanics.laminate import critical_thrust
from cutting.workpiece.stack import StackLayer

Array = NDArray[np.float64]
UNCUT_PLIES = 2.0  # under the chisel edge when the last of them give way (common practice)
COMMA, SNARL = 4.0, 11.0  # loose chips over solid metal of brittle metals, and what full ductility adds (common practice)
LAMINATE_RUBS = 0.01  # of the lips' torque a diameter: fibres wear the margins and do not close on them
SNARLS = 1.5  # a metal of half the ductility snarls a third as much (common practice)


@dataclass(frozen=True)
class Layers:
    """Every array has shape (layers,): places from the entry and lengths mm, forces N, heat in J, mm, s."""

    near: Array
    far: Array
    thickness: Array
    gap: Array
    specific_force_1: Array
    force_exponent: Array
    heat_capacity: Array
    diffusivity: Array
    margin_share: Array
    ductility: Array
    adhesion: Array
    abrasion: Array
    work_hardening: Array
    hardness: Array
    modulus: Array
    bulk: Array  # loose chips over solid metal
    laminate: NDArray[np.bool_]
    free: NDArray[np.bool_]  # nothing holds it from behind
    push_out: Array  # N that part its last plies; inf for metals and for laminates that are held
    steel: NDArray[np.bool_]

    @property
    def count(self) -> int:
        return len(self.near)

    @property
    def mean_bulk(self) -> float:
        """Loose chips over solid metal of all that the hole makes."""
        return float((self.bulk * self.thickness).sum() / max(float(self.thickness.sum()), 1e-9))


@lru_cache(maxsize=512)
def layer_numbers(layers: tuple[StackLayer, ...], through: bool) -> Layers:
    """The numbers of layers from the entry on; the last one is held where the hole is blind or something backs it."""
    thickness = np.array([one.thickness for one in layers], float)
    gap = np.array([one.gap for one in layers], float)
    far = np.cumsum(thickness + gap) - gap
    materials = [one.material for one in layers]
    last = len(layers) - 1
    free = np.array([one.gap > 0 or (k == last and through and not one.backed) for k, one in enumerate(layers)], bool)
    laminates = [one.laminate for one in layers]

    def of(name: str) -> Array:
        return np.array([getattr(one, name) for one in materials], float)

    strength = np.array([one.work.strength if one.work else one.material.strength for one in layers], float)
    push_out = [
        float(critical_thrust(one.opening_energy, one.modulus, UNCUT_PLIES * one.ply, one.poisson_ratio)) if one and open_ else np.inf
        for one, open_ in zip(laminates, free, strict=True)
    ]
    ductility, is_laminate = of("ductility"), np.array([one is not None for one in laminates], bool)
    return Layers(
        near=far - thickness,
        far=far,
        thickness=thickness,
        gap=gap,
        specific_force_1=np.array([one.work.specific_force_1 if one.work else np.nan for one in layers], float),
        force_exponent=of("force_exponent"),
        heat_capacity=of("heat_capacity"),
        diffusivity=of("diffusivity"),
        margin_share=np.where(
            is_laminate, LAMINATE_RUBS, margin_share(strength / of("elastic_modulus"), of("work_hardening"), of("adhesion"))
        ),
        ductility=ductility,
        adhesion=of("adhesion"),
        abrasion=of("abrasion"),
        work_hardening=of("work_hardening"),
        hardness=np.array([one.work.hardness if one.work else np.nan for one in layers], float),
        modulus=of("elastic_modulus"),
        bulk=COMMA + SNARL * ductility**SNARLS,
        laminate=is_laminate,
        free=free,
        push_out=np.array(push_out, float),
        steel=np.array([one.group.letter == "P" for one in materials], bool),
    )
