"""Machinability groups (VDI 3323) and named materials, with the numbers that the rules read."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache
from types import MappingProxyType

from cutting.errors import require_between
from cutting.names import find, index
from cutting.tables import Row, read_table
from cutting.workpiece.names import every_spelling, spellings


@dataclass(frozen=True)
class Group:
    """One of the 41 groups; the numbers hold for a typical member and are shares 0 to 1 where they have no unit."""

    number: int
    letter: str  # ISO 513 main group
    description: str
    condition: str
    hardness: float | None  # HB
    strength: float | None  # MPa
    reference_rake: float | None  # degrees, of the Kienzle pairs; None: no rake correction without a source

    @property
    def called(self) -> str:
        """What a belief about all its metals names it by: `group 7`."""
        return f"group {self.number}"


@dataclass(frozen=True)
class Material:
    """A material as it lies on the shelf. Specific forces in N/mm², conductivity W/(m·K), density g/cm³,
    specific heat kJ/(kg·K), expansion 1e−6/K, modulus N/mm², hardness HB."""

    name: str
    number: str
    aliases: tuple[str, ...]
    group: Group
    hardness_low: float
    hardness_high: float
    strength: float
    specific_force_1: float
    force_exponent: float
    speed_row: str
    speed_factor: float
    ductility: float
    adhesion: float
    abrasion: float
    work_hardening: float
    conductivity: float
    density: float
    specific_heat: float
    expansion: float
    elastic_modulus: float
    source: str
    from_memory: bool

    @property
    def usual_hardness(self) -> float:
        return (self.hardness_low + self.hardness_high) / 2

    @property
    def heat_capacity(self) -> float:
        """Volumetric heat capacity ρc, J/(mm³·K)."""
        return self.density * self.specific_heat * 1e-3

    @property
    def diffusivity(self) -> float:
        """Thermal diffusivity K, mm²/s."""
        return self.conductivity * 1e-3 / self.heat_capacity


STRENGTH_OF_HARDNESS = 3.4  # N/mm² per HB, where a material's strength is not known (common practice, after ISO 18265)


@dataclass(frozen=True)
class Work:
    """A material at the hardness in which it was delivered."""

    material: Material
    hardness: float  # HB, above the ball's limit 0.95 × HV

    @property
    def specific_force_1(self) -> float:
        """kc1.1 at this hardness: grows with the 0.4th power of hardness inside one material (common practice)."""
        return self.material.specific_force_1 * (self.hardness / self.material.usual_hardness) ** 0.4

    @property
    def strength(self) -> float:
        """Tensile strength [N/mm²] at this hardness: the material's own, in proportion to hardness (common practice, after ISO 18265)."""
        usual = self.material.strength or STRENGTH_OF_HARDNESS * self.material.usual_hardness
        return usual * self.hardness / self.material.usual_hardness

    @property
    def hardness_speed_factor(self) -> float:
        """Correction of the starting speed to this hardness, about HB^−1 (common practice): from its group's, or of a row of its own
        from the hardness in which that is delivered."""
        own_row = self.material.speed_row != str(self.material.group.number)
        guide = (None if own_row else self.material.group.hardness) or self.material.usual_hardness
        return min(max(guide / self.hardness, 0.6), 1.4)


def deliver(material: Material, hardness: float | None = None) -> Work:
    """The material at a Brinell hardness [HB]; as usually delivered where none is given.

    Raises `OutOfRange` beyond half to twice the usual range: that would be another material.
    """
    if hardness is None:
        return Work(material, material.usual_hardness)
    require_between("hardness", hardness, 0.6 * material.hardness_low, 1.5 * material.hardness_high, "HB")
    return Work(material, hardness)


@cache
def groups() -> MappingProxyType[int, Group]:
    """The 41 groups of VDI 3323, by number."""
    return MappingProxyType(
        {
            int(row["number"]): Group(
                int(row["number"]),
                row["letter"],
                row["description"],
                row["condition"],
                row.number_or_none("hardness"),
                row.number_or_none("strength"),
                row.number_or_none("reference_rake"),
            )
            for row in read_table("workpiece/groups.csv")
        }
    )


@cache
def materials() -> tuple[Material, ...]:
    """All named materials of the shipped table."""
    of_group = {int(row["number"]): row for row in read_table("workpiece/groups.csv")}
    return tuple(material_from_row(row, of_group[int(row["group"])]) for row in read_table("workpiece/materials.csv"))


def material_from_row(row: Row, group_row: Row) -> Material:
    """A material from its row; what the row leaves blank comes from its group."""

    def number(name: str) -> float:
        return float(row[name] or group_row[name])

    return Material(
        name=row["name"],
        number=row["number"],
        aliases=row.words("aliases"),
        group=groups()[int(row["group"])],
        hardness_low=row.number("hardness_low"),
        hardness_high=row.number("hardness_high"),
        strength=row.number("strength"),
        specific_force_1=row.number("specific_force_1"),
        force_exponent=row.number("force_exponent"),
        speed_row=row["speed_row"],
        speed_factor=row.number("speed_factor"),
        ductility=number("ductility"),
        adhesion=number("adhesion"),
        abrasion=group_row.number("abrasion"),
        work_hardening=number("work_hardening"),
        conductivity=number("conductivity"),
        density=number("density"),
        specific_heat=number("specific_heat"),
        expansion=number("expansion"),
        elastic_modulus=number("elastic_modulus"),
        source=row["source"],
        from_memory=row.flag("from_memory"),
    )


@cache
def _by_name() -> dict[str, Material]:
    """Whole names of all come before any that was shortened: a material keeps what it is called itself."""
    names = [(tuple(filter(None, (m.name, m.number, *m.aliases))), m) for m in materials()]
    return {**index((every_spelling(some), m) for some, m in names), **index(names)}


def find_material(name: str, field: str = "material") -> Material:
    """A material by designation, number or any common name. Raises `UnknownName` with near ones."""
    known = _by_name()
    spelled = next((one for one in spellings(str(name)) if one in known), str(name))
    return find(spelled, known, field, "material", (m.name for m in materials()))
