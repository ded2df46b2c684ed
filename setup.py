"""Compiles the translations when the package is built, or installed to be worked on; all else is in pyproject.toml."""

from pathlib import Path

from babel.messages.mofile import write_mo
from babel.messages.pofile import read_po
from setuptools import setup
from setuptools.command.build_py import build_py


class BuildWithTranslations(build_py):
    """The usual building, with each catalogue's machine-readable form made beside it first."""

    def run(self) -> None:
        """Compile, then build."""
        for source in Path(__file__).parent.glob("src/kavlet/core/messages/languages/*/LC_MESSAGES/*.po"):
            with source.open("rb") as texts, source.with_suffix(".mo").open("wb") as out:
                write_mo(out, read_po(texts))
        super().run()


setup(cmdclass={"build_py": BuildWithTranslations})
