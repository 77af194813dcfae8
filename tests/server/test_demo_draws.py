"""The demo jobs, a thousand deliveries each: what they are called, and what comes of it."""

from __future__ import annotations

from server.jobs.models import Job
from server.jobs.shown.state import state_of
from server.jobs.studies import whole_part
from server.shop import shop
from server.work.progress import Progress


def test_a_demo_job_that_is_called_sound_holds() -> None:
    stock = shop()
    for job in Job.objects.filter(archived_at=None).order_by("pk"):
        revision = job.revisions.first()
        state = state_of(revision, None, stock)
        try:
            found = whole_part.chances(revision, stock, Progress())
        except Exception as e:
            print(job.name if hasattr(job,'name') else job, 'none', e); continue
        print(f"{str(job)[:40]:42}", found["all_hold"], [ (o["number"], o["worst"], round(o["worst_share"],2)) for o in found["operations"] if o["worst_share"]<0.95], {k: state[k] for k in state if k in ("standing","sound","verdict","chance","holds")}, [r.get("standing") for r in state["operations"]])
    assert False
