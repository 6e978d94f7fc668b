"""What a reading worker does: read the whole document, then answer about it."""

from pathlib import Path

from wide_margin.core.answers import Answer, Reach, answer_quoted
from wide_margin.core.errors import NotReadyError
from wide_margin.core.explain import Explanation, explain, find_definitions
from wide_margin.core.explain.definitions import Definitions
from wide_margin.core.jobs import CancelToken
from wide_margin.core.layout import tidy
from wide_margin.core.pages.document import PdfFile, sha256_of
from wide_margin.core.search import Hit, ReadDocument, find_all, understand
from wide_margin.core.session import cache
from wide_margin.core.session.blocks import gather_blocks, n_blocks, read_blocks
from wide_margin.core.session.model import Figure, FoundHit, ReadSummary
from wide_margin.core.session.worker import Send

MAX_HITS = 5000


class ReadingService:
    """One document, read or being read."""

    def __init__(self) -> None:
        """Nothing is read yet."""
        self._document: ReadDocument | None = None
        self._definitions: Definitions | None = None

    def read(
        self,
        send: Send,
        path: Path,
        password: str | None,
        skip: frozenset[int],
        use_bookmarks: bool,
    ) -> ReadSummary:
        """Read a document, or take it from the cache.

        Reports ("page", (index, n_pages)) before each page and ("step", (done, of)) after.
        """
        sha256 = sha256_of(path)
        variant = "" if use_bookmarks else "no bookmarks"
        if not skip and (known := cache.load(sha256, variant)):
            self._document = known
            return self._summary(from_cache=True)
        pdf = PdfFile(path, password)
        try:
            facts = pdf.facts()
            folder = cache.block_folder(sha256)
            read_blocks(
                pdf, folder, range(n_blocks(pdf.n_pages)), skip,
                lambda page, n: send("page", (page, n)),
            )  # fmt: skip
            bookmarks = list(pdf.bookmarks()) if use_bookmarks else []
        finally:
            pdf.close()
        lines, failed = gather_blocks(folder, facts.n_pages)
        self._document = understand(
            facts, bookmarks, lines, failed, CancelToken(), lambda done, n: send("step", (done, n))
        )
        cache.save(self._document, sha256, variant)
        cache.drop_blocks(sha256)
        return self._summary(from_cache=False)

    def help_read(self, send: Send, path: Path, password: str | None, skip: frozenset[int]) -> None:
        """Read blocks from the back, for the worker that reads from the front."""
        sha256 = sha256_of(path)
        if not skip and cache.load(sha256) is not None:
            return
        pdf = PdfFile(path, password)
        try:
            blocks = reversed(range(n_blocks(pdf.n_pages)))
            folder = cache.block_folder(sha256)
            read_blocks(pdf, folder, blocks, skip, lambda page, n: send("page", (page, n)))
        finally:
            pdf.close()

    def ask(self, send: Send, question: str, reach: Reach) -> Answer:
        """A quoted answer."""
        return answer_quoted(self._read(), question, reach)

    def find(self, send: Send, wanted: str) -> list[FoundHit]:
        """Every place where some words stand."""
        document = self._read()
        hits = find_all(document.findable, document.paragraphs, wanted)[:MAX_HITS]
        return [self._found(document, hit) for hit in hits]

    def explain(self, send: Send, text: str) -> Explanation:
        """What the document says about a selection."""
        if self._definitions is None:
            self._definitions = find_definitions(self._read())
        return explain(self._read(), self._definitions, text)

    def close(self) -> None:
        """Nothing is held that needs giving back."""

    def _read(self) -> ReadDocument:
        if self._document is None:
            raise NotReadyError("The document is still being read.", hint="Try again in a moment.")
        return self._document

    def _summary(self, *, from_cache: bool) -> ReadSummary:
        document = self._read()
        return ReadSummary(
            n_pages=document.facts.n_pages,
            labels=document.labels,
            outline=document.outline,
            figures=_figures(document),
            n_sentences=len(document.text.sentences),
            language=document.index.language,
            without_text=document.without_text,
            failed=document.failed,
            from_cache=from_cache,
        )

    def _found(self, document: ReadDocument, hit: Hit) -> FoundHit:
        paragraph = document.paragraphs[hit.paragraph]
        spans = paragraph.spans(hit.start, hit.end)
        around = paragraph.text[max(0, hit.start - 40) : hit.end + 60]
        section = document.outline.at_paragraph(hit.paragraph)
        title = document.outline.sections[section].title if section >= 0 else ""
        page = spans[0].page if spans else paragraph.page
        return FoundHit(page, spans, tidy(around), title)


def _figures(document: ReadDocument) -> tuple[Figure, ...]:
    return tuple(
        Figure(tidy(p.text)[:200], p.page, p.spans(0, len(p.text)))
        for p in document.paragraphs
        if p.kind == "caption"
    )


def make_service() -> ReadingService:
    """The service of role "reading"."""
    return ReadingService()
