"""Sessions that know whose they are, and that end when nobody does anything in them."""

from __future__ import annotations

from datetime import timedelta
from typing import Any

from django.contrib.auth import SESSION_KEY
from django.contrib.sessions.backends.db import SessionStore as DatabaseStore
from django.db.models import QuerySet
from django.utils import timezone

from server.people.models import Session

WRITTEN_EVERY = timedelta(minutes=1)  # a nudge costs no write


class SessionStore(DatabaseStore):
    """Django's sessions in the database, with the columns of ours."""

    def __init__(self, session_key: str | None = None) -> None:
        super().__init__(session_key)
        self.row: Session | None = None
        self.address = self.agent = ""

    @classmethod
    def get_model_class(cls) -> type[Session]:
        return Session

    def create_model_instance(self, data: dict[str, Any]) -> Session:
        made: Session = super().create_model_instance(data)
        made.person_id = int(data[SESSION_KEY]) if SESSION_KEY in data else None
        if self.row is not None and self.row.person_id == made.person_id:
            made.address, made.agent, made.opened_at = self.row.address, self.row.agent, self.row.opened_at
        else:
            made.address, made.agent = self.address, self.agent
        return made

    def _get_session_from_db(self) -> Session | None:
        found: Session | None = super()._get_session_from_db()
        if found is not None and found.person_id is not None and found.idle:
            found.delete()
            self._session_key = found = None
        self.row = found
        return found

    def touch(self) -> None:
        """The person does something here."""
        if self.row is not None and timezone.now() - self.row.seen_at > WRITTEN_EVERY:
            self.row.seen_at = timezone.now()
            Session.objects.filter(pk=self.row.pk).update(seen_at=self.row.seen_at)


def sweep() -> int:
    """Clear away what has ended; gives how many."""
    return Session.objects.filter(expire_date__lt=timezone.now()).delete()[0]


def end(sessions: QuerySet[Session]) -> int:
    """End a session."""
    return sessions.delete()[0]
