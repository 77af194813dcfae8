"""Backups: everything that the shop keeps in one file, taken while it is in use, and brought back whole or not at all."""

from __future__ import annotations

import contextlib
import fcntl
import hashlib
import json
import os
import re
import secrets
import subprocess
import tempfile
import zipfile
from collections.abc import Callable, Iterator, Mapping
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import IO, Any

from house.ground import ROOT, SetupProblem

FORM = 1  # of the file: raised when an older release could not read it
DUMP, MANIFEST = "database.sql", "manifest.json"
BESIDE = re.compile(r"arrow_bench_[0-9a-f]{8}")
PART = re.compile(r".+\.zip\.[0-9a-f]{8}\.part")
NAMED = re.compile(r"^arrow-bench-(\d{8}-\d{6})\.zip$")
DAYS, MONTHS = 14, 12  # how long a folder keeps one a day, and one a month
CHUNK = 1 << 20
PACKET = "--max-allowed-packet=64M"  # as the server takes it: a print may have 10 MB
OF_PACKAGES = {"auth", "axes", "contenttypes", "django_tasks_database", "sessions"}  # their migrations go with packages, which are locked
COUNTED = {"jobs": "jobs_job", "revisions": "jobs_revision", "tools": "crib_tool", "materials": "shelf_material", "people": "auth_user"}
Door = Mapping[str, str]  # how to reach a database: ARROW_BENCH_DB_HOST, _PORT, _NAME, _USER, _PASSWORD


def back_up(door: Door, file: Path) -> Path:
    """Write a backup, and give its file: one that is named by its time where a folder is given. Raises `SetupProblem`."""
    if file.is_dir():
        file = file / f"arrow-bench-{datetime.now(UTC):%Y%m%d-%H%M%S}.zip"
    part = file.with_name(f"{file.name}.{secrets.token_hex(4)}.part")
    _clear_parts(file.parent)
    try:
        with open(part, "xb", opener=lambda path, flags: os.open(path, flags, 0o600)) as out:
            fcntl.flock(out, fcntl.LOCK_EX)  # as long as somebody writes it
            with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED, compresslevel=3) as archive:
                manifest = {
                    "what": "Arrow Bench backup",
                    "form": FORM,
                    "made": datetime.now(UTC).isoformat(timespec="seconds"),
                    "migrations": migrations_in(door),
                    "sha256": {DUMP: _dump(door, archive)},
                }
                archive.writestr(MANIFEST, json.dumps(manifest, indent=1))
            out.flush()
            os.fsync(out.fileno())
        os.replace(part, file)
        _settle(file.parent)
    except OSError as error:
        raise SetupProblem(f"The backup could not be written to {file}: {error.strerror or error}.") from error
    finally:
        part.unlink(missing_ok=True)
    return file


def _clear_parts(folder: Path) -> None:
    """Delete what backups that were killed left behind: parts that nobody writes any more."""
    for one in folder.glob("*.zip.*.part"):
        with contextlib.suppress(OSError), open(one, "rb") as left:
            if PART.fullmatch(one.name):
                fcntl.flock(left, fcntl.LOCK_EX | fcntl.LOCK_NB)
                one.unlink()


def restore(door: Door, file: Path, replace: bool, bring_up: Callable[[Door], None], use: Callable[[str], None]) -> dict[str, int]:
    """Bring a backup back, and give how much of the main things it holds.

    It is read whole and brought up to date beside what is there; only then `use` makes its database the one in use, and what was
    there goes. Killed before that, nothing has changed. Raises `SetupProblem`.
    """
    manifest = read_manifest(file)
    if (there := _jobs(door)) and not replace:
        raise SetupProblem(f"{there} jobs are here already. --replace puts the backup in their place; they are gone then.")
    before, beside = door["ARROW_BENCH_DB_NAME"], f"arrow_bench_{secrets.token_hex(4)}"
    new = {**door, "ARROW_BENCH_DB_NAME": beside}
    _sql(door, f"CREATE DATABASE {beside} CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci", "")
    try:
        with _opened(file) as archive, archive.open(DUMP) as dumped:
            _load(new, dumped)
        if missing := set(manifest["migrations"]) - set(migrations_in(new)):
            raise SetupProblem(f"{file.name} is damaged: its contents lack what its manifest names, {min(missing)} among it.")
        bring_up(new)
        _sql(new, "DELETE FROM people_session")  # who was signed in then is not signed in now
        counts = {what: int(_sql(new, f"SELECT COUNT(*) FROM {table}") or 0) for what, table in COUNTED.items()}
        use(beside)
    except BaseException:
        _sql(door, f"DROP DATABASE IF EXISTS {beside}", "")
        raise
    for name in {before, *(one for one in _sql(door, "SHOW DATABASES", "").split() if BESIDE.fullmatch(one))} - {beside}:
        _sql(door, f"DROP DATABASE IF EXISTS {name}", "")  # also what a restore that was killed left
    return counts


def read_manifest(file: Path) -> dict[str, Any]:
    """What a backup says of itself, once its contents are what was written. Raises `SetupProblem`."""
    with _opened(file) as archive:
        manifest = _manifest(archive, file)
        unknown = {one for one in manifest["migrations"] if one.split(".")[0] not in OF_PACKAGES} - migrations_here()
        if manifest["form"] > FORM or unknown:
            what = ", ".join(sorted(unknown)) or f"form {manifest['form']}"
            raise SetupProblem(f"{file.name} was made by a newer Arrow Bench ({what}): update this one first.")
        found = hashlib.sha256()
        with archive.open(DUMP) as dumped:
            while chunk := dumped.read(CHUNK):
                found.update(chunk)
    if found.hexdigest() != manifest["sha256"][DUMP]:
        raise SetupProblem(f"{file.name} is damaged: its contents are not what was written. Take another backup.")
    return dict(manifest)


def _manifest(archive: zipfile.ZipFile, file: Path) -> dict[str, Any]:
    """The manifest, in the form in which it is written. Raises `SetupProblem`."""
    broken = f"{file.name} is damaged or not a backup of Arrow Bench: its {MANIFEST} cannot be read"
    try:
        found = json.loads(archive.read(MANIFEST))
        form, made, sums = found["form"], found["migrations"], found["sha256"]
        whole = isinstance(form, int) and isinstance(made, list) and all(isinstance(one, str) for one in made) and bool(made)
        if whole and isinstance(sums, dict) and isinstance(sums.get(DUMP), str):
            return dict(found)
    except (ValueError, KeyError, TypeError, RecursionError) as error:
        raise SetupProblem(f"{broken}.") from error
    raise SetupProblem(f"{broken}.")


def keep(folder: Path, now: datetime | None = None) -> list[Path]:
    """Delete the backups of a folder that its rule lets go, and give them: one a day and one a month stay for a time, and the newest."""
    now = now or datetime.now(UTC)
    kept, days, months = set[Path](), set[str](), set[str]()
    found = sorted(((match[1], one) for one in folder.iterdir() if (match := NAMED.match(one.name))), reverse=True)
    for stamp, one in found:
        age = now - datetime.strptime(stamp, "%Y%m%d-%H%M%S").replace(tzinfo=UTC)
        day, month = stamp[:8], stamp[:6]
        if (age < timedelta(days=DAYS) and day not in days) or (age < timedelta(days=31 * MONTHS) and month not in months) or not kept:
            kept.add(one)
        days.add(day)
        months.add(month)
    gone = [one for _, one in found if one not in kept]
    for one in gone:
        one.unlink()
    return gone


def is_due(folder: Path, now: datetime | None = None) -> bool:
    """Whether a folder's newest backup is a day old."""
    now = now or datetime.now(UTC)
    stamps = [match[1] for one in folder.iterdir() if (match := NAMED.match(one.name))] if folder.is_dir() else []
    made = [datetime.strptime(stamp, "%Y%m%d-%H%M%S").replace(tzinfo=UTC) for stamp in stamps]
    # one that a wrong clock dates into the future says nothing of today
    return not any(now - timedelta(days=1) < one <= now for one in made)


def before_update(door: Door, folder: Path) -> Path | None:
    """A backup before the tables are brought up to date, where there are any: a change that is killed midway stays half done."""
    there = set(migrations_in(door))
    if not there or not migrations_here() - there:
        return None
    folder.mkdir(parents=True, exist_ok=True, mode=0o700)
    return back_up(door, folder)


def migrations_here() -> set[str]:
    """The migrations that this check-out knows."""
    return {f"{one.parent.parent.name}.{one.stem}" for one in (ROOT / "server").glob("*/migrations/[0-9]*.py")}


def migrations_in(door: Door) -> list[str]:
    """The migrations that a database has run; none where it has no tables yet."""
    there = _has(door, "django_migrations")
    return _sql(door, "SELECT CONCAT(app, '.', name) FROM django_migrations ORDER BY 1").split() if there else []


def _jobs(door: Door) -> int:
    return int(_sql(door, "SELECT COUNT(*) FROM jobs_job")) if _has(door, "jobs_job") else 0


def _has(door: Door, table: str) -> bool:
    return bool(_sql(door, f"SHOW TABLES LIKE '{table}'"))


def _client(door: Door, program: str, *more: str) -> tuple[list[str], dict[str, str]]:
    """A client's command line and environment; the password is not on the command line, where others see it."""
    line = [program, "--no-defaults", "--protocol=TCP", f"--host={door['ARROW_BENCH_DB_HOST']}", f"--port={door['ARROW_BENCH_DB_PORT']}"]
    line += [f"--user={door['ARROW_BENCH_DB_USER']}", "--default-character-set=utf8mb4", *more]
    return line, {**os.environ, "MYSQL_PWD": door["ARROW_BENCH_DB_PASSWORD"]}


def _sql(door: Door, statement: str, name: str | None = None) -> str:
    line, there = _client(
        door, "mariadb", "--batch", "--skip-column-names", *filter(None, [door["ARROW_BENCH_DB_NAME"] if name is None else name])
    )
    done = subprocess.run(line, env=there, input=statement, encoding="utf-8", errors="surrogateescape", capture_output=True, check=False)
    if done.returncode:
        raise SetupProblem(f"The database answered: {done.stderr.strip()}")
    return done.stdout.strip()


def _dump(door: Door, archive: zipfile.ZipFile) -> str:
    """Write the database as it stood at one moment, and give its checksum."""
    line, there = _client(
        door,
        "mariadb-dump",
        "--single-transaction",
        "--quick",
        "--hex-blob",
        "--skip-lock-tables",
        "--triggers",
        PACKET,
        door["ARROW_BENCH_DB_NAME"],
    )
    found, last = hashlib.sha256(), b""
    with subprocess.Popen(line, env=there, stdout=subprocess.PIPE, stderr=subprocess.PIPE) as dumping:
        assert dumping.stdout is not None
        assert dumping.stderr is not None
        with archive.open(DUMP, "w", force_zip64=True) as out:
            while chunk := dumping.stdout.read(CHUNK):
                found.update(chunk)
                out.write(chunk)
                last = (last + chunk)[-200:]
        said = dumping.stderr.read().decode(errors="replace")
    if dumping.returncode or b"-- Dump completed" not in last:
        raise SetupProblem(f"The database could not be read whole: {said.strip() or 'it broke off'}")
    return found.hexdigest()


def _load(door: Door, dumped: IO[bytes]) -> None:
    line, there = _client(door, "mariadb", PACKET, door["ARROW_BENCH_DB_NAME"])
    # what it says goes to a file: in a pipe that nobody reads both would wait for each other for ever
    with tempfile.TemporaryFile() as words, subprocess.Popen(line, env=there, stdin=subprocess.PIPE, stderr=words) as loading:
        assert loading.stdin is not None
        with contextlib.suppress(BrokenPipeError):  # the client tells why it went
            while chunk := dumped.read(CHUNK):
                loading.stdin.write(chunk)
            loading.stdin.close()
        loading.wait()
        words.seek(0)
        said = words.read(CHUNK).decode(errors="replace")
    if loading.returncode:
        raise SetupProblem(f"The backup could not be read into the database: {said.strip()}")


@contextlib.contextmanager
def _opened(file: Path) -> Iterator[zipfile.ZipFile]:
    try:
        with zipfile.ZipFile(file) as archive:
            if {MANIFEST, DUMP} - set(archive.namelist()):
                raise SetupProblem(f"{file.name} is not a backup of Arrow Bench.")
            yield archive
    except FileNotFoundError as error:
        raise SetupProblem(f"There is no file {file}.") from error
    except (zipfile.BadZipFile, zipfile.zlib.error, EOFError) as error:  # type: ignore[attr-defined]
        raise SetupProblem(f"{file.name} is damaged or not a backup of Arrow Bench: {error}.") from error


def _settle(folder: Path) -> None:
    """A file's name is on the disk only when its folder is."""
    place = os.open(folder, os.O_RDONLY)
    try:
        os.fsync(place)
    finally:
        os.close(place)
