"""Spindles stand in a table of their own: what was a flag becomes a row, with figures that say where they come from."""

from __future__ import annotations

from typing import Any

import django.db.models.deletion
from django.db import migrations, models


CHUCK = ("chuck_speed_max", "jaw_force", "jaw_mass", "jaw_radius", "start_time", "chuck_stiffness", "chuck_tilt_stiffness")
DRIVEN_SHARE, DRIVEN_TOP = 0.25, 6000.0  # of the main spindle's power, and a usual top speed 1/min (common practice)


def carry_over(apps: Any, schema_editor: Any) -> None:
    kept = apps.get_model("floor", "Spindle")
    for row in apps.get_model("floor", "Machine").objects.all():
        driven = row.numbers.pop("driven_tools", False)
        row.save(update_fields=["numbers"])
        usual = {"chuck_stiffness": 150.0, "chuck_tilt_stiffness": 1500.0, **row.numbers}
        numbers = {name: usual[name] for name in ("efficiency", "speed_min", "speed_max", *CHUCK)}
        same = {"curve_at": row.curve_at, "coolant": row.coolant, "machine": row, "stamp": row.stamp, "from_memory": True}
        if row.sub_spindle:
            kept.objects.create(
                key=f"{row.key}|sub", spindle="sub", power_curve=row.power_curve, speeds=row.speeds, numbers=numbers,
                source="taken to be as the main spindle, until its own figures are entered", **same,
            )
        if driven:
            top = min(numbers["speed_max"], DRIVEN_TOP)
            curve = [[n, DRIVEN_SHARE * p] for n, p in row.power_curve if n < top] + [[top, DRIVEN_SHARE * row.power_curve[-1][1]]]
            own = {**numbers, "speed_max": top, **dict.fromkeys(CHUCK, 0.0), "chuck_speed_max": top, "start_time": 1.0}
            kept.objects.create(
                key=f"{row.key}|driven", spindle="driven", power_curve=curve, numbers=own,
                source="a quarter of the main spindle's power is taken, until its own figures are entered", **same,
            )


class Migration(migrations.Migration):

    dependencies = [
        ('floor', '0002_kept'),
    ]

    operations = [
        migrations.AddField(
            model_name='machine',
            name='interface',
            field=models.CharField(blank=True, default='', max_length=40),
        ),
        migrations.AddField(
            model_name='machine',
            name='seats',
            field=models.JSONField(default=list),
        ),
        migrations.CreateModel(
            name='Spindle',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('key', models.CharField(db_collation='utf8mb4_bin', help_text='which thing it is, in any spelling', max_length=200, unique=True)),
                ('version', models.PositiveIntegerField(default=1)),
                ('stamp', models.PositiveBigIntegerField(db_index=True, default=0)),
                ('archived_at', models.DateTimeField(blank=True, null=True)),
                ('entered', models.CharField(blank=True, help_text='by whom and how it came here', max_length=200)),
                ('source', models.CharField(max_length=200)),
                ('from_memory', models.BooleanField(default=False)),
                ('changed', models.DateTimeField(auto_now=True)),
                ('spindle', models.CharField(max_length=10)),
                ('power_curve', models.JSONField()),
                ('curve_at', models.CharField(max_length=8)),
                ('interface', models.CharField(blank=True, default='', max_length=40)),
                ('speeds', models.JSONField(default=list)),
                ('coolant', models.JSONField()),
                ('numbers', models.JSONField()),
                ('machine', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='spindles', to='floor.machine')),
            ],
            options={
                'ordering': ['machine_id', 'pk'],
                'constraints': [models.UniqueConstraint(fields=('machine', 'spindle'), name='one_spindle_of_a_kind')],
            },
        ),
        migrations.RunPython(carry_over, migrations.RunPython.noop),
        migrations.RemoveField(
            model_name='machine',
            name='sub_spindle',
        ),
    ]
