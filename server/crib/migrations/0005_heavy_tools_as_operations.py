"""Heavy tools in the form of an operation: what the drawing asks stands in its feature, the links beside the tool in its holding."""

from typing import Any

from django.db import migrations
from django.db.backends.base.schema import BaseDatabaseSchemaEditor
from django.db.migrations.state import StateApps


def _length(text: Any) -> float:
    """Millimetres of a length that was kept with its unit."""
    said = str(text).strip().lower()
    number = said.removesuffix("mm").removesuffix("in").removesuffix('"').strip().replace(",", ".")
    return float(number or 0) * (25.4 if said.endswith(("in", '"')) else 1.0)


def carried_over(form: dict[str, Any]) -> dict[str, Any]:
    """The form as it is now; one that has a feature already stays as it is."""
    if "feature" in form or not isinstance(form.get("steps"), list):
        return form
    rows = sorted(form["steps"], key=lambda row: _length(row.get("at", 0)))
    end, first, bores = 0.0, None, []
    for row in rows:  # what is nearest to the gripper is widest, and ends nearest to the face
        long, at = _length(row.get("length", 0)), _length(row.get("at", 0))
        first = (long - at) if first is None else first
        near = round(max(at + first - long, end), 4)
        long = round(at + first - near, 4)
        place = f" at {near:g} mm" if abs(near - end) > 1e-9 else ""
        bores.append(f"{row.get('diameter', '')} x {long:g} mm{place}")
        end = near + long
    steps = [
        {**{k: v for k, v in row.items() if k not in ("length", "enters")}, "diameter": str(row.get("diameter", "")).split()[0] + " mm"}
        for row in form["steps"]
    ]
    chain = form.get("chain") or {}
    tool = {"grade": "P20 CVD", **(form.get("tool") or {})}
    if "steps" in chain:
        tool["between_steps"] = chain["steps"]
    kept = {name: value for name, value in form.items() if name not in ("asked", "chain", "operation", "version")}
    feature = {"bores": " / ".join(bores), "through": True, **(form.get("asked") or {})}
    return {**kept, "tool": tool, "steps": steps, "feature": feature, "holding": {k: v for k, v in chain.items() if k != "steps"}}


def forward(apps: StateApps, schema_editor: BaseDatabaseSchemaEditor) -> None:
    """Carry every kept tool over; one that cannot be read is left, and stands in the list as one that the shop no longer understands."""
    model = apps.get_model("crib", "HeavyTool")
    for row in model.objects.all():
        try:
            row.form = carried_over(row.form)
        except (ValueError, AttributeError, IndexError):
            continue
        row.save(update_fields=["form"])


class Migration(migrations.Migration):
    dependencies = [("crib", "0004_heavy_tools")]
    operations = [migrations.RunPython(forward, migrations.RunPython.noop)]
