"""Sign in and out, one's own password, sessions and preferences."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Any, Literal

from django.conf import settings
from django.contrib.auth import authenticate, login, logout, update_session_auth_hash
from django.contrib.auth.models import User
from django.contrib.auth.password_validation import validate_password
from django.core.exceptions import ValidationError
from django.http import HttpRequest, HttpResponse
from django.middleware.csrf import get_token
from ninja import Router, Status
from ninja.utils import check_csrf
from pydantic import Field

from cutting.quantities.kinds import currency
from server.errors import Refusal, problem
from server.people import factor, sessions
from server.people.guessing import knows, pause_of, remember, whole_seconds
from server.people.log import What, address_of, note
from server.people.models import Session
from server.people.roles import preferences_of
from server.schema import Schema

router = Router()
RoleName = Literal["reader", "operator", "engineer", "administrator"]


class SignIn(Schema):
    """A name and a password."""

    name: str
    password: str
    code: str = Field("", max_length=40)  # of the second factor, where one is asked


class FactorOut(Schema):
    """A new secret for a device: in letters, as an address, and as a picture."""

    secret: str
    address: str
    picture: str


class FactorState(Schema):
    """Whether there is a second factor, whether the shop asks for one, and how many recovery codes are left."""

    on: bool
    wanted: bool
    left: int


class CodeIn(Schema):
    """Six digits of the device, or a recovery code."""

    code: str = Field("", max_length=40)


class RecoveryOut(Schema):
    """Codes for the day when the device is lost; shown once."""

    codes: list[str]


class PasswordChange(Schema):
    """The present password and the new one."""

    old: str
    new: str


class SessionOut(Schema):
    """Where a person is signed in; `here`: this is the session that asks."""

    name: str
    address: str
    agent: str
    opened_at: datetime
    seen_at: datetime
    here: bool


MOST_PANES = 120
PaneName = Annotated[str, Field(min_length=1, max_length=60, pattern=r"^[^\x00-\x1f<>]+$")]
PaneSize = Annotated[int, Field(ge=0, le=4000)]  # px; 0: folded


class PreferencesPatch(Schema):
    """What of the preferences changes."""

    units: Literal["mm", "inch"] | None = None
    theme: Literal["light", "dark", "system"] | None = None
    letter_keys: bool | None = None
    first_steps: bool | None = None
    panes: dict[PaneName, PaneSize] | None = Field(None, max_length=MOST_PANES)


class Person(Schema):
    """Who is signed in; name is null for nobody. The token goes into the X-CSRFToken header of changes."""

    name: str | None
    role: RoleName | None
    must_change: bool
    must_have_factor: bool
    units: Literal["mm", "inch"]
    theme: Literal["light", "dark", "system"]
    letter_keys: bool
    first_steps: bool
    panes: dict[str, int]
    currency: str
    token: str


@router.get("", auth=None, response=Person)
def read_session(request: HttpRequest) -> Person:
    """Who is signed in, and with what rights."""
    return _person(request)


@router.post("", auth=None, response=Person)
def sign_in(request: HttpRequest, payload: SignIn, response: HttpResponse) -> Person:
    """Begin a session."""
    if check_csrf(request) is not None:  # else a page elsewhere could sign somebody in as somebody else
        raise Refusal(403, "The request carries no valid token; reload the page and try again.")
    name = User.normalize_username(payload.name.strip()[:150])
    if (pause := pause_of(name)) and not knows(request, name):
        note(request, What.THROTTLED, who=name)
        wait = whole_seconds(pause)
        raise Refusal(
            429,
            f"Too many wrong passwords for this name. Try again in {wait} s, or from a device that it has used before.",
            [{"field": "password", "message": "was wrong too often"}],
        )
    user = authenticate(request, username=name, password=payload.password[:4096])
    if user is None:
        if not getattr(request, "axes_locked_out", False):
            note(request, What.REFUSED, who=name)
        raise Refusal(401, "Wrong name or password.", [{"field": "password", "message": "Check name and password."}])
    if factor.asked_of(user) and not factor.passes(user, payload.code):
        if not payload.code:
            raise Refusal(401, "Enter the six digits that your device shows.", [{"field": "code", "message": "is asked of you"}])
        note(request, What.REFUSED, who=name, more="second factor")
        raise Refusal(401, "This code is not your device's, or was used already.", [{"field": "code", "message": "wait for the next one"}])
    store: sessions.SessionStore = request.session
    store.address, store.agent = address_of(request), request.headers.get("User-Agent", "")[:200]
    login(request, user)
    note(request, What.SIGNED_IN)
    remember(request, response, name)
    return _person(request)


def throttled(request: HttpRequest, original: HttpResponse | None = None, credentials: Any = None) -> HttpResponse:
    """The answer to whoever guessed too often; the password is not looked at any more."""
    note(request, What.THROTTLED, who=str((credentials or {}).get("username", "")))
    minutes = int(settings.AXES_COOLOFF_TIME.total_seconds() // 60)
    answer = problem(
        429,
        f"Too many wrong passwords from here. Try again in {minutes} minutes, or ask an administrator.",
        [{"field": "password", "message": "was wrong too often"}],
    )
    answer["Retry-After"] = str(60 * minutes)
    return answer


@router.delete("", response={204: None})
def sign_out(request: HttpRequest) -> Status:
    """End the session."""
    note(request, What.SIGNED_OUT)
    logout(request)
    return Status(204, None)


def _pass(request: HttpRequest, code: str) -> None:
    if not factor.passes(request.user, code):
        note(request, What.REFUSED, more="second factor")
        raise Refusal(422, "This code is not your device's, or was used already.", [{"field": "code", "message": "wait for the next one"}])


@router.get("/factor", response=FactorState)
def read_factor(request: HttpRequest) -> dict[str, Any]:
    """Whether one has a second factor."""
    return {"on": factor.asked_of(request.user), "wanted": factor.wanted_of(preferences_of(request)), "left": factor.left(request.user)}


@router.post("/factor", response=FactorOut)
def begin_factor(request: HttpRequest, payload: CodeIn) -> dict[str, str]:
    """A new secret for a device; the old one counts until the new one is confirmed, and is asked for first."""
    if factor.asked_of(request.user):
        _pass(request, payload.code)
    secret, address, picture = factor.begin(request.user)
    return {"secret": secret, "address": address, "picture": picture}


@router.post("/factor/confirm", response=RecoveryOut)
def confirm_factor(request: HttpRequest, payload: CodeIn) -> dict[str, list[str]]:
    """The first code of the new device: from now on one is asked at the sign-in."""
    codes = factor.confirm(request.user, payload.code.replace(" ", ""))
    if codes is None:
        raise Refusal(422, "This code is not the new device's.", [{"field": "code", "message": "is another; is its clock right?"}])
    note(request, What.FACTOR_SET)
    return {"codes": codes}


@router.post("/factor/drop", response=FactorState)
def drop_factor(request: HttpRequest, payload: CodeIn) -> dict[str, Any]:
    """Do without: with a code of the device, or a recovery code."""
    _pass(request, payload.code)
    factor.drop(request.user)
    note(request, What.FACTOR_DROPPED)
    return read_factor(request)


@router.post("/password", response=Person)
def change_password(request: HttpRequest, payload: PasswordChange) -> Person:
    """A password of one's own; everywhere else one is signed out."""
    user: User = request.user
    if authenticate(request, username=user.get_username(), password=payload.old[:4096]) is None:
        raise Refusal(422, "old: this is not your password.", [{"field": "old", "message": "This is not your password."}])
    if payload.new == payload.old:
        raise Refusal(422, "new: it is the old one.", [{"field": "new", "message": "It is the old one."}])
    check_password(payload.new, user)
    user.set_password(payload.new)
    user.save(update_fields=["password"])
    preferences = preferences_of(request)
    preferences.must_change = False
    preferences.save()
    update_session_auth_hash(request, user)
    sessions.end(Session.objects.filter(person=user).exclude(pk=request.session.session_key))
    note(request, What.PASSWORD_CHANGED)
    return _person(request)


def check_password(password: str, user: User) -> None:
    """Raise a 422 that says what is wrong with a password."""
    if len(password) > 4096:
        raise Refusal(422, "new: longer than 4096 letters.", [{"field": "new", "message": "too long", "bound": "4096 letters"}])
    try:
        validate_password(password, user)
    except ValidationError as error:
        said = " ".join(error.messages)
        raise Refusal(422, f"new: {said}", [{"field": "new", "message": said}]) from error


@router.get("/list", response=list[SessionOut])
def list_sessions(request: HttpRequest) -> list[dict[str, Any]]:
    """Where one is signed in."""
    return sessions_of(request.user.pk, request.session.session_key)


@router.delete("/list/{name}", response={204: None})
def end_session(request: HttpRequest, name: str) -> Status:
    """Sign out somewhere else; `others` means everywhere else."""
    rows = Session.objects.filter(person_id=request.user.pk).exclude(pk=request.session.session_key)
    chosen = rows if name == "others" else rows.filter(pk__in=[row.pk for row in rows if row.name == name])
    note(request, What.SESSIONS_ENDED, more=str(sessions.end(chosen)))
    return Status(204, None)


def sessions_of(person: int, here: str | None) -> list[dict[str, Any]]:
    """One's own sessions."""
    rows = [row for row in Session.objects.filter(person_id=person).order_by("-seen_at") if not row.idle]
    plain = ("name", "address", "agent", "opened_at", "seen_at")
    return [{**{name: getattr(row, name) for name in plain}, "here": row.pk == here} for row in rows]


@router.patch("/preferences", response=Person)
def change_preferences(request: HttpRequest, payload: PreferencesPatch) -> Person:
    """Change one's preferences."""
    found = preferences_of(request)
    for name, value in payload.dict(exclude_none=True).items():
        setattr(found, name, value)
    found.save()
    return _person(request)


def _person(request: HttpRequest) -> Person:
    token = get_token(request)
    if not request.user.is_authenticated:
        return Person(
            name=None,
            role=None,
            must_change=False,
            must_have_factor=False,
            units="mm",
            theme="system",
            letter_keys=True,
            first_steps=False,
            panes={},
            currency=currency(),
            token=token,
        )
    found = preferences_of(request)
    return Person(
        name=request.user.get_username(),
        role=found.role,
        must_change=found.must_change,
        must_have_factor=factor.wanted_of(found) and not factor.asked_of(request.user),
        units=found.units,
        theme=found.theme,
        letter_keys=found.letter_keys,
        first_steps=found.first_steps,
        panes=found.panes,
        currency=currency(),
        token=token,
    )
