"""Documents of version 1 become version 2."""

from __future__ import annotations

from typing import Any

from django.db import migrations

from server.jobs.document.upgrade import to_version_2


def upgrade(apps: Any, schema_editor: Any) -> None:
    for revision in apps.get_model("jobs", "Revision").objects.iterator(chunk_size=200):
        if revision.document.get("version", 1) == 1:
            revision.document = to_version_2(revision.document)
            revision.save(update_fields=["document"])


class Migration(migrations.Migration):
    dependencies = [("jobs", "0004_archived")]
    operations = [migrations.RunPython(upgrade, migrations.RunPython.noop)]
