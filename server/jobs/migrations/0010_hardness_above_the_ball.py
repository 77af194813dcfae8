"""A job's hardness above the ball's limit was kept on the Vickers scale; it goes on as 0.95 of it now."""

from typing import Any

from django.db import migrations

BALL, ENDS = 0.95, 618.0  # Brinell over Vickers, and where the Brinell column of ISO 18265 ends


def go_on_by_the_ball(apps: Any, schema_editor: Any) -> None:
    for revision in apps.get_model("jobs", "Revision").objects.iterator(chunk_size=200):
        if (revision.document.get("hardness") or 0.0) > ENDS:
            revision.document["hardness"] = round(BALL * revision.document["hardness"], 1)
            revision.save(update_fields=["document"])


class Migration(migrations.Migration):
    dependencies = [("jobs", "0009_reckonings")]
    operations = [migrations.RunPython(go_on_by_the_ball, migrations.RunPython.noop)]
