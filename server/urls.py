"""The API below /api/, and the one page that the interface is."""

from django.http import HttpRequest, HttpResponse, JsonResponse
from django.shortcuts import render
from django.urls import path, re_path
from django.views.decorators.csrf import ensure_csrf_cookie
from django.views.decorators.http import require_safe

from server.api import api
from server.errors import not_found

handler404 = "server.errors.not_found"
handler500 = "server.errors.server_error"


@require_safe
@ensure_csrf_cookie
def interface(request: HttpRequest) -> HttpResponse:
    return render(request, "interface.html")


@require_safe
def alive(request: HttpRequest) -> HttpResponse:
    return JsonResponse({"alive": True})


urlpatterns = [
    path("api/", api.urls),
    re_path(r"^api/.*$", not_found),
    path("alive", alive),
    path("", interface),
]
