"""The sub-commands of ./bench."""

from __future__ import annotations

import argparse
import contextlib
import ctypes
import os
import signal
import socket
import subprocess
import sys
import tempfile
import time
import urllib.request
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from types import FrameType

from house import backup, database, ground, packages
from house.ground import LOGS, PYTHON, ROOT, VAR, WEB, SetupProblem, application_environment, run_logged, say
from server.people.demo_people import PEOPLE

BACKUPS = Path(os.environ.get("ARROW_BENCH_BACKUPS", VAR / "backups"))  # better on another disk
TRY_AGAIN = 5.0  # s until a database that does not start is tried again
LOOK_EVERY = 600.0  # s between two looks whether a backup is due
DEMO_SIGN_IN = "   or   ".join(f"{name} / {password}" for name, password, _ in PEOPLE)


def main(arguments: list[str]) -> int:
    parser = argparse.ArgumentParser(prog="./bench", description="Arrow Bench: plan, check and record turning and holemaking.")
    commands = parser.add_subparsers(dest="command", required=True, metavar="COMMAND")
    start = commands.add_parser("start", help="install what is missing and start the application")
    start.add_argument("--port", type=int, default=8321, help="port on 127.0.0.1 (default 8321)")
    test = commands.add_parser("test", help="install what is missing and run every check and test")
    test.add_argument("rest", nargs=argparse.REMAINDER, help="arguments for pytest; without any, all checks run")
    for name, text in (("solve", "evaluate set-ups, print results"), ("advise", "read a request, print the ranking")):
        door = commands.add_parser(name, help=f"{text} (open JSON form, see docs/json-form.md)")
        door.add_argument("file", help="a JSON file, or - for standard input")
    for name, text in (
        ("export", "write everything the shop keeps, or one table"),
        ("import", "import a file (preview unless --apply)"),
    ):
        mover = commands.add_parser(name, help=f"{text} (CSV, XLSX, JSON)")
        mover.add_argument("file", help="where to write or what to read; the ending says the format")
        mover.add_argument("--table", default="", help="tools, geometries, grades, windows, materials or machines")
        if name == "import":
            mover.add_argument("--apply", action="store_true", help="write what the preview shows, all or nothing")
    saver = commands.add_parser("backup", help="write everything into one file, also while it is in use")
    saver.add_argument("file", help="the file, or a folder: then it is named by its time and old backups are deleted by the retention rule")
    bringer = commands.add_parser("restore", help="bring everything back from a backup, with the application stopped")
    bringer.add_argument("file")
    bringer.add_argument("--replace", action="store_true", help="in place of the jobs that are here")
    commands.add_parser("setup", help="only install what is missing, for a server that is started otherwise (docs/deploy)")
    commands.add_parser("types", help="write the OpenAPI document and the TypeScript types made from it")
    commands.add_parser("shots", help="take the pictures in docs/screenshots from the demo data")
    commands.add_parser("licences", help="write docs/licences.md from what the packages say of themselves")
    commands.add_parser("lint", help="run the style and type checks")
    measuring = commands.add_parser("benchmark", help="measure speed; prints figures")
    measuring.add_argument("--small", action="store_true", help="little of each, to see that it runs")
    manage = commands.add_parser("manage", help="run a management command against the private database")
    manage.add_argument("rest", nargs=argparse.REMAINDER)
    chosen = parser.parse_args(arguments)
    ground.keep_private()
    try:
        return _run(chosen)
    except SetupProblem as problem:
        print(f"\nArrow Bench: {problem}", file=sys.stderr)
        return 1
    except KeyboardInterrupt:
        return 130


def _run(chosen: argparse.Namespace) -> int:
    match chosen.command:
        case "start":
            return start(chosen.port)
        case "test":
            return test(chosen.rest)
        case "solve" | "advise":
            packages.ensure_debian_packages(with_tests=False)
            packages.ensure_python_packages(with_tests=False)
            return _python("-m", "cutting.doors.command_line", chosen.command, chosen.file)
        case "export" | "import":
            packages.ensure_everything()
            more = ["--apply"] if getattr(chosen, "apply", False) else []
            file = str(Path(chosen.file).resolve())
            return _with_database("-m", "django", f"{chosen.command}_shop", file, "--table", chosen.table, *more)
        case "backup":
            return back_up(Path(chosen.file).resolve())
        case "restore":
            return restore(Path(chosen.file).resolve(), chosen.replace)
        case "setup":
            packages.ensure_everything()
            return 0
        case "types":
            return types()
        case "lint":
            packages.ensure_everything(with_tests=True)
            return lint()
        case "licences":
            packages.ensure_everything()
            return _python("-m", "house.licences")
        case "shots":
            packages.ensure_everything(with_tests=True)
            return _with_database("tests/browser/take_screenshots.py")
        case "benchmark":
            packages.ensure_everything(with_tests=True)
            return _with_database("-m", "benchmarks", *(["--small"] if chosen.small else []))
        case "manage":
            packages.ensure_everything()
            return _with_database("-m", "django", *chosen.rest)
    raise AssertionError(chosen.command)


def start(port: int) -> int:
    began = time.monotonic()
    _refuse_busy_port(port)
    packages.ensure_everything()
    instance = database.default_instance()
    if (there := database.owner(instance)) and " start" in there[1]:
        raise SetupProblem(f"Arrow Bench is already running from this folder, as process {there[0]} ({there[1]}). Stop it first.")
    owned = database.claim(instance)
    say("database: starting the private MariaDB instance")
    database.start(instance)
    server: subprocess.Popen[bytes] | None = None
    workers: subprocess.Popen[bytes] | None = None
    device: subprocess.Popen[bytes] | None = None
    beside: subprocess.Popen[bytes] | None = None
    signal.signal(signal.SIGTERM, _as_interrupt)
    try:
        gauge, instruments = _free_port(), (_free_port(), _free_port())
        ports = {"ARROW_BENCH_DYNAMOMETER": str(gauge), "ARROW_BENCH_INSTRUMENTS": ",".join(map(str, instruments))}
        environment = application_environment(instance.environment()) | ports
        saved = backup.before_update(instance.environment(), BACKUPS)
        if saved is not None:
            say(f"backup: {saved}, as it was before this release")
        run_logged(
            "migrate: bringing the database up to date and filling in the demo data",
            [PYTHON, "-m", "django", "prepare"],
            "The database could not be brought up to date."
            + (f" ./bench restore {saved} --replace with the release before brings back what was." if saved else ""),
            env=environment,
            cwd=ROOT,
        )
        LOGS.mkdir(parents=True, exist_ok=True)
        server = subprocess.Popen(
            [
                str(PYTHON),
                "-m",
                "gunicorn",
                "server.served:application",
                "--bind",
                f"127.0.0.1:{port}",
                "--workers",
                str(database.WEB_PROCESSES),
                "--threads",
                str(database.WEB_THREADS),  # most of them wait: of heavy questions one is answered at a time
                "--preload",
                "--config",
                "server/workers.py",
                "--access-logfile",
                str(LOGS / "access.log"),
                "--error-logfile",
                str(LOGS / "server.log"),
                "--no-control-socket",
                "--graceful-timeout",
                "5",
            ],
            cwd=ROOT,
            env=environment,
            start_new_session=True,
            preexec_fn=_end_with_parent,
        )
        workers = _workers(environment)
        device = _dynamometer(gauge)
        beside = _instruments(*instruments)
        _wait_until_served(port, server)
        print(
            f"\nArrow Bench is at http://127.0.0.1:{port}/   (ready after {time.monotonic() - began:.1f} s)\n"
            f"Demo sign-in, where nobody of your own is entered: {DEMO_SIGN_IN}\nStop with Ctrl-C.",
            flush=True,
        )
        look_again = time.monotonic() + LOOK_EVERY
        while server.poll() is None:
            if time.monotonic() > look_again:
                look_again += LOOK_EVERY
                _back_up_daily()
            if owned and database.running_pid(instance) is None:
                say("database: it ended; starting it again")
                try:
                    database.start(instance, moving=False)
                except SetupProblem as problem:  # a full disk, say: the pages keep what is typed until somebody has made room
                    say(f"database: {problem}")
                    time.sleep(TRY_AGAIN)
            if workers.poll() is not None:  # it takes up what it left; nothing half-written stays
                workers = _workers(environment)
            if device.poll() is not None:
                device = _dynamometer(gauge)
            if beside.poll() is not None:
                beside = _instruments(*instruments)
            time.sleep(0.5)
        return server.returncode
    except KeyboardInterrupt:
        print("\nStopping.", file=sys.stderr)
        return 0
    finally:
        signal.signal(signal.SIGINT, signal.SIG_IGN)
        for process in (device, beside, workers, server):
            if process is not None and process.poll() is None:
                process.terminate()
                try:
                    process.wait(timeout=10)
                except subprocess.TimeoutExpired:
                    os.killpg(process.pid, signal.SIGKILL)
        if owned:
            database.stop(instance)


def _own_server() -> dict[str, str]:
    """How to reach the shop's own database server; nothing where the private one serves."""
    if not os.environ.get("DJANGO_SETTINGS_MODULE", "").endswith(".production"):
        return {}
    return {name: value for name, value in os.environ.items() if name.startswith("ARROW_BENCH_DB_")}


def back_up(file: Path) -> int:
    packages.ensure_debian_packages(with_tests=False)
    if door := _own_server():
        return _backed_up(door, file)
    if not (instance := database.default_instance()).data.exists():
        raise SetupProblem("There is nothing to back up: the application was never started here.")
    with _running(instance):
        return _backed_up(instance.environment(), file)


def _backed_up(door: dict[str, str], file: Path) -> int:
    try:
        made = backup.back_up(door, file)
    except SetupProblem as problem:
        _note_backup(door, "failed", str(problem))
        raise
    size = f"{made.stat().st_size / 1e6:.1f} MB"
    say(f"backup: {made}, {size}")
    if file.is_dir():
        for one in backup.keep(file):
            say(f"backup: {one.name} deleted by the retention rule")
    _note_backup(door, "taken", f"{made}, {size}")
    return 0


def _note_backup(door: dict[str, str], what: str, words: str) -> None:
    """Where administrators read it; a backup is as good without, where the database is away or no application was set up here."""
    if PYTHON.exists():
        command = [str(PYTHON), "-m", "django", "note_backup", what, words]
        subprocess.run(command, cwd=ROOT, env=application_environment(door), capture_output=True, check=False)


def _back_up_daily() -> None:
    """Take the day's backup beside everything else, where none was taken."""
    BACKUPS.mkdir(parents=True, exist_ok=True, mode=0o700)
    if backup.is_due(BACKUPS):
        with (LOGS / "backup.log").open("ab") as log:
            subprocess.Popen(
                [sys.executable, str(ROOT / "bench"), "backup", str(BACKUPS)], stdout=log, stderr=log, stdin=subprocess.DEVNULL
            )


def restore(file: Path, replace: bool) -> int:
    packages.ensure_everything()
    if _own_server():
        raise SetupProblem(
            "On the shop's own database server an administrator brings a backup back: into a new database, as docs/deploy says. "
            "Nothing was changed."
        )
    instance = database.default_instance()
    with _running(instance) as owned:
        if not owned:
            raise SetupProblem("The application is running here. Stop it first: what people type meanwhile would be lost.")
        counts = backup.restore(instance.environment(), file, replace, _bring_up, instance.use)
    say("restore: " + ", ".join(f"{count} {what}" for what, count in counts.items()))
    return 0


def _bring_up(door: backup.Door) -> None:
    run_logged(
        "migrate: bringing the backup up to date",
        [PYTHON, "-m", "django", "migrate", "--no-input"],
        "The backup could not be brought up to date; nothing was changed.",
        env=application_environment(door),
        cwd=ROOT,
    )


@contextlib.contextmanager
def _running(instance: database.Instance) -> Iterator[bool]:
    """The instance running for as long; gives whether nobody else has it in use."""
    owned = database.claim(instance)
    database.start(instance)
    try:
        yield owned
    finally:
        if owned:
            database.stop(instance)


def _workers(environment: dict[str, str]) -> subprocess.Popen[bytes]:
    """The processes that take up imports, exports and sheets."""
    return subprocess.Popen(
        [str(PYTHON), "-m", "django", "work"], cwd=ROOT, env=environment, start_new_session=True, preexec_fn=_end_with_parent
    )


def _dynamometer(port: int) -> subprocess.Popen[bytes]:
    """The simulated dynamometer, which records holes for the bench."""
    return subprocess.Popen(
        [str(PYTHON), "-m", "devices.dynamometer", "--port", str(port)], cwd=ROOT, start_new_session=True, preexec_fn=_end_with_parent
    )


def _instruments(gauge: int, agent: int) -> subprocess.Popen[bytes]:
    """The simulated micrometer and the machine's agent."""
    command = [str(PYTHON), "-m", "devices.instruments", "--gauge", str(gauge), "--agent", str(agent)]
    return subprocess.Popen(command, cwd=ROOT, start_new_session=True, preexec_fn=_end_with_parent)


def _free_port() -> int:
    """A port of the loopback that nobody listens on."""
    with socket.socket() as there:
        there.bind(("127.0.0.1", 0))
        return int(there.getsockname()[1])


def test(rest: list[str]) -> int:
    packages.ensure_everything(with_tests=True)
    pytest = ("-m", "pytest", "--ds", "tests.settings")
    if rest:
        return _with_database(*pytest, *rest)
    if failed := lint():
        return failed
    instance = database.Instance(VAR / "test-database")
    owned = database.claim(instance)
    database.start(instance)
    there = instance.environment()
    try:
        # the core shares nothing with the server, nor the two halves of each, on databases of their own
        say("tests: the server's beside the core and its outside checks")
        backup = str(ROOT / "tests" / "server" / "test_backup.py")  # takes as long as what the core has less to do
        core = (*pytest, "tests/core", "tests/outside", "cutting", backup)
        own = there | {"ARROW_BENCH_DB_NAME": "arrow_bench_half"}
        if failed := _side_by_side(((*pytest, "tests/server", "--ignore", backup), there), (core, own)):
            return failed
        say("tests: the real interface, in two halves that take about as long")
        files = {str(file) for file in (ROOT / "tests" / "browser").glob("test_*.py")}
        others = sorted(files - {str(ROOT / one) for one in HALF})
        return _side_by_side(((*pytest, *others), there), ((*pytest, *HALF), own))
    finally:
        if owned:
            database.stop(instance)


# every view, and the stories of all kinds but turning
HALF = tuple(
    f"tests/browser/test_{name}.py"
    for name in ("every_view", "legible", "hole_stories", "slot_stories", "thread_stories", "bore_stories", "milled_and_heavy_stories")
)


def _side_by_side(*runs: tuple[tuple[str, ...], dict[str, str]]) -> int:
    """Run Python with each of the arguments and environments at once; the first one speaks as it goes, the others at the end."""
    with contextlib.ExitStack() as files:
        said = [None, *(files.enter_context(tempfile.TemporaryFile()) for _ in runs[1:])]
        started = [
            subprocess.Popen([str(PYTHON), *arguments], cwd=ROOT, env=application_environment(extra), stdout=out, stderr=out)
            for (arguments, extra), out in zip(runs, said, strict=True)
        ]
        codes = [process.wait() for process in started]
        for out in filter(None, said):
            out.seek(0)
            print(out.read().decode(errors="replace"), flush=True)
    return next((code for code in codes if code), 0)


Check = tuple[str, list[str], Path]  # what it is, its command, where it runs


def lint() -> int:
    """The checks of Python beside those of the interface: the two share nothing. The first that finds something speaks."""
    npm, environment = packages.npm_command(), packages.npm_environment()
    lanes: tuple[tuple[Check, ...], ...] = (
        (
            ("ruff: style", [str(PYTHON), "-m", "ruff", "check", "."], ROOT),
            ("ruff: form", [str(PYTHON), "-m", "ruff", "format", "--check", "."], ROOT),
            ("mypy: types of core, server and house", [str(PYTHON), "-m", "mypy"], ROOT),
        ),
        (
            ("svelte-check: types of the interface", [*npm, "run", "--silent", "check"], WEB),
            ("eslint: style of the interface", [*npm, "run", "--silent", "lint"], WEB),
            ("prettier: form of the interface", [*npm, "run", "--silent", "format"], WEB),
            ("vitest: the state files of the interface", [*npm, "run", "--silent", "test"], WEB),
        ),
    )

    def through(lane: tuple[Check, ...]) -> bool:
        for what, command, folder in lane:
            say(what)
            ran = subprocess.run(command, cwd=folder, env=environment, check=False, capture_output=True, text=True)
            if ran.returncode:
                print(f"{ran.stdout}{ran.stderr}\nArrow Bench: the check '{what}' found something, see above.", file=sys.stderr)
                return False
        return True

    with ThreadPoolExecutor(len(lanes)) as pool:
        return 0 if all(list(pool.map(through, lanes))) else 1


def _npm(script: str, what: str) -> int:
    say(what)
    return subprocess.run(
        [*packages.npm_command(), "run", "--silent", script], cwd=WEB, env=packages.npm_environment(), check=False
    ).returncode


def types() -> int:
    packages.ensure_everything()
    status = _python("-m", "django", "write_openapi", str(WEB / "openapi.json"))
    if status:
        return status
    return _npm("types", "types of the interface")


def _with_database(*arguments: str) -> int:
    """Run Python with an instance of its own for tests, so that nobody's data is touched."""
    if arguments[:2] == ("-m", "django") and (door := _own_server()):
        return _python(*arguments, extra=door)
    instance = database.Instance(VAR / "test-database") if arguments[:2] != ("-m", "django") else database.default_instance()
    with _running(instance):
        return _python(*arguments, extra=instance.environment())


def _python(*arguments: str, extra: dict[str, str] | None = None) -> int:
    return subprocess.run(
        [str(PYTHON), *arguments], cwd=Path.cwd() if extra is None else ROOT, env=application_environment(extra), check=False
    ).returncode


def _refuse_busy_port(port: int) -> None:
    if not 1 <= port <= 65535:
        raise SetupProblem(f"--port {port} is not a port; choose one from 1 to 65535.")
    with socket.socket() as probe:
        probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            probe.bind(("127.0.0.1", port))
        except PermissionError as error:
            raise SetupProblem(f"Port {port} is reserved for the administrator; choose one with --port N.") from error
        except OSError as error:
            raise SetupProblem(f"Port {port} is in use by another program; choose one with --port N.") from error


def _wait_until_served(port: int, server: subprocess.Popen[bytes], timeout: float = 30) -> None:
    ours = urllib.request.build_opener(urllib.request.ProxyHandler({}))  # no proxy of the machine's stands between
    deadline = time.monotonic() + timeout
    while time.monotonic() < deadline:
        if server.poll() is not None:
            raise SetupProblem(f"The server stopped at its start. Details: {LOGS / 'server.log'}")
        with contextlib.suppress(OSError), ours.open(f"http://127.0.0.1:{port}/alive", timeout=timeout):
            return
        time.sleep(0.05)
    raise SetupProblem(f"The server did not answer within {timeout:.0f} s. Details: {LOGS / 'server.log'}")


def _end_with_parent() -> None:
    """Asks the kernel to end the server when this command is killed outright (Linux: PR_SET_PDEATHSIG)."""
    ctypes.CDLL(None).prctl(1, signal.SIGTERM)


def _as_interrupt(_signal: int, _frame: FrameType | None) -> None:
    raise KeyboardInterrupt
