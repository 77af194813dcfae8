"""The web processes' way in."""

from django.core.wsgi import get_wsgi_application

application = get_wsgi_application()
