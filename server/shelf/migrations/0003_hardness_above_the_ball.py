"""Above the ball's limit hardness was kept on the Vickers scale, and rows named by HRC stood three points below their name."""

from typing import Any

from django.db import migrations

BALL, ENDS = 0.95, 618.0  # Brinell over Vickers, and where the Brinell column of ISO 18265 ends
SHIPPED = {  # of the first tables: what stood, and what the name says
    "100Cr6 hardened 60 HRC": ((600, 650), (641, 684)),
    "42CrMo4 hardened 54 HRC": ((520, 560), (532, 566)),
    "X20Cr13 hardened 50 HRC": ((470, 500), (473, 502)),
    "16MnCr5 case-hardened 60 HRC": ((600, 650), (641, 684)),
    "X155CrVMo12-1 hardened 60 HRC": ((600, 660), (641, 684)),
    "X38CrMoV5-1 hardened 52 HRC": ((500, 550), (502, 534)),
}


def go_on_by_the_ball(apps: Any, schema_editor: Any) -> None:
    for row in apps.get_model("shelf", "Material").objects.filter(group__in=(38, 39, 41)):
        before, after = SHIPPED.get(row.name, ((None, None), (None, None)))
        stands = (row.hardness_low, row.hardness_high)
        if stands == before:
            row.hardness_low, row.hardness_high = after
        else:
            row.hardness_low, row.hardness_high = (round(BALL * one, 1) if one > ENDS else one for one in stands)
        if (row.hardness_low, row.hardness_high) != stands:
            row.save(update_fields=["hardness_low", "hardness_high"])


class Migration(migrations.Migration):
    dependencies = [("shelf", "0002_kept")]
    operations = [migrations.RunPython(go_on_by_the_ball, migrations.RunPython.noop)]
