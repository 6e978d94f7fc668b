"""What the recognising worker does: text for pages that are only pictures, one after the other."""

from __future__ import annotations

from pathlib import Path
from typing import TYPE_CHECKING

from wide_margin.core.errors import PageFailedError, WideMarginError
from wide_margin.core.pages.document import PdfFile
from wide_margin.core.pages.recognising import (
    RecognisedPages,
    engine_languages,
    languages_for,
    recognise,
)

if TYPE_CHECKING:
    from wide_margin.core.session.worker import Send


class RecogniseService:
    """Keeps each page as soon as it is there: what was broken off goes on where it stopped."""

    def recognise(
        self,
        send: Send,
        path: Path,
        password: str | None,
        folder: Path,
        pages: tuple[int, ...],
        language: str,
    ) -> tuple[int, ...]:
        """Recognise pages that are not known yet; reports ("page", (done, of)).

        Returns:
            The pages on which the engine failed.
        """
        languages = languages_for(language)
        kept = RecognisedPages(folder)
        wanted = [page for page in pages if page not in kept.known()]
        failed: list[int] = []
        pdf = PdfFile(path, password)
        try:
            for k, page in enumerate(wanted):
                send("page", (k, len(wanted)))
                try:
                    kept.keep(page, recognise(pdf, page, languages))
                except PageFailedError:
                    failed.append(page)
                except OSError as error:
                    raise WideMarginError(
                        "What was recognised could not be kept.", hint="Is the disk full?"
                    ) from error
        finally:
            pdf.close()
        send("page", (len(wanted), len(wanted)))
        return tuple(failed)

    def languages(self, send: Send) -> frozenset[str]:
        """The languages of the engine; empty where it is not installed."""
        return engine_languages()

    def afterwards(self) -> None:
        """Nothing waits."""

    def close(self) -> None:
        """Nothing is held."""


def make_service() -> RecogniseService:
    """The service of role "recognise"."""
    return RecogniseService()
