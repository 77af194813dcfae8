"""The way in of the web server's processes: the application, with what it needs read ahead (`--preload`)."""

# isort: off
from server.wsgi import application  # first: it sets up what the rooms of the next one are built on
from server.warm import warm
# isort: on

warm()
__all__ = ["application"]
