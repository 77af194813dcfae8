#!/usr/bin/env python3
"""Django's management commands against the database named in the environment; `./bench manage …` finds the private one."""

import os
import sys

from django.core.management import execute_from_command_line

if __name__ == "__main__":
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "server.settings.loopback")
    execute_from_command_line(sys.argv)
