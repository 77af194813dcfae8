"""An assembly's parts go by role; what was an insert in a holder keeps both."""

from __future__ import annotations

from typing import Any

import django.db.models.deletion
from django.db import migrations, models


def carry_over(apps: Any, schema_editor: Any) -> None:
    part = apps.get_model("crib", "AssemblyPart")
    for row in apps.get_model("crib", "Assembly").objects.all():
        part.objects.create(assembly=row, role="insert", tool=row.insert)
        part.objects.create(assembly=row, role="holder", tool=row.holder)


class Migration(migrations.Migration):

    dependencies = [
        ('crib', '0002_tools'),
    ]

    operations = [
        migrations.CreateModel(
            name='AssemblyPart',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('role', models.CharField(max_length=20)),
                ('assembly', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='parts', to='crib.assembly')),
                ('tool', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to='crib.tool')),
            ],
            options={
                'ordering': ['pk'],
                'constraints': [models.UniqueConstraint(fields=('assembly', 'role'), name='one_part_per_role')],
            },
        ),
        migrations.RunPython(carry_over, migrations.RunPython.noop),
        migrations.RemoveField(
            model_name='assembly',
            name='holder',
        ),
        migrations.RemoveField(
            model_name='assembly',
            name='insert',
        ),
    ]
