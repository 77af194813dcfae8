"""An assembly's parts go by role; what was an insert in a holder keeps both."""

from __future__ import annotations

from typing import Any

import django.db.models.deletion
from django.db import migrations, models
from django.db.models.deletion import PROTECT


def carry_over(apps: Any, schema_editor: Any) -> None:
    part = apps.get_model("crib", "AssemblyPart")
    for row in apps.get_model("crib", "Assembly").objects.all():
        part.objects.create(assembly=row, role="insert", tool=row.insert)
        part.objects.create(assembly=row, role="holder", tool=row.holder)


def carry_back(apps: Any, schema_editor: Any) -> None:
    rows, part = apps.get_model("crib", "Assembly").objects, apps.get_model("crib", "AssemblyPart").objects
    for row in rows.all():
        tool = {one.role: one.tool for one in part.filter(assembly=row)}
        if set(tool) == {"insert", "holder"}:
            row.insert, row.holder = tool["insert"], tool["holder"]
            row.save(update_fields=["insert", "holder"])
        else:  # what earlier versions cannot hold
            row.delete()


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
        # nullable first, so that the way back can fill them again
        migrations.AlterField('assembly', 'insert', models.ForeignKey(null=True, on_delete=PROTECT, related_name='+', to='crib.tool')),
        migrations.AlterField('assembly', 'holder', models.ForeignKey(null=True, on_delete=PROTECT, related_name='+', to='crib.tool')),
        migrations.RunPython(carry_over, carry_back),
        migrations.RemoveField(
            model_name='assembly',
            name='holder',
        ),
        migrations.RemoveField(
            model_name='assembly',
            name='insert',
        ),
    ]
