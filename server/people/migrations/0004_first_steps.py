from django.db import migrations, models


class Migration(migrations.Migration):

    dependencies = [
        ('people', '0003_backups_noted'),
    ]

    operations = [
        migrations.AddField(
            model_name='preferences',
            name='first_steps',
            field=models.BooleanField(default=True, help_text='the first steps are shown until they were gone or put aside'),
        ),
    ]
