"""What a reading worker does: read the whole document, then answer about it."""

import gc
from pathlib import Path

from wide_margin.core.answers import (
    Answer,
    Reach,
    answer_quoted,
    find_figures,
    kind_of_document,
    named_reach,
    worth_asking,
)
from wide_margin.core.errors import NotReadyError, WideMarginError
from wide_margin.core.explain import Explanation, explain, find_definitions
from wide_margin.core.explain.definitions import Definitions
from wide_margin.core.jobs import CancelToken
from wide_margin.core.layout import tidy
from wide_margin.core.outline import Outline
from wide_margin.core.pages.document import PdfFile, sha256_of
from wide_margin.core.search import (
    Findable,
    Hit,
    ReadDocument,
    find_all,
    make_findable,
    understand,
    with_outline,
)
from wide_margin.core.session import cache
from wide_margin.core.session.blocks import gather_blocks, n_blocks, read_blocks
from wide_margin.core.session.model import FoundHit, ReadSummary
from wide_margin.core.session.worker import Send

MAX_HITS = 5000


class ReadingService:
    """One document, read or being read."""

    def __init__(self) -> None:
        """Nothing is read yet."""
        self._document: ReadDocument | None = None
        self._definitions: Definitions | None = None
        self._findable: Findable | None = None
        self._to_save: tuple[str, str] | None = None

    def read(
        self,
        send: Send,
        path: Path,
        password: str | None,
        skip: frozenset[int],
        hide: frozenset[str] = frozenset(),
    ) -> ReadSummary:
        """Read a document, or take it from the cache; ``hide`` names witnesses to go without.

        Reports ("page", (index, n_pages)) before each page and ("step", (done, of)) after.
        """
        # Reading makes some hundred thousand small values and drops few: collecting in between
        # costs a fifth of the time. What was read is then left out of later collections.
        gc.disable()
        try:
            return self._read_file(send, path, password, skip, hide)
        finally:
            gc.freeze()
            gc.enable()

    def _read_file(
        self,
        send: Send,
        path: Path,
        password: str | None,
        skip: frozenset[int],
        hide: frozenset[str],
    ) -> ReadSummary:
        sha256 = sha256_of(path)
        variant = ",".join(sorted(hide))
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
            done = gather_blocks(folder, facts.n_pages)
            bookmarks = [] if "bookmark" in hide else list(pdf.bookmarks(done.frames))
        finally:
            pdf.close()
        self._document = understand(
            facts, bookmarks, done.lines, done.failed, CancelToken(),
            lambda k, n: send("step", (k, n)), words=done.words, listings=done.listings,
            use_contents="contents" not in hide,
        )  # fmt: skip
        self._to_save = sha256, variant
        return self._summary(from_cache=False)

    def afterwards(self) -> None:
        """Cache what was read, once it can be asked."""
        if self._to_save is not None and self._document is not None:
            sha256, variant = self._to_save
            self._to_save = None
            cache.save(self._document, sha256, variant)
            cache.drop_blocks(sha256)

    def help_read(self, send: Send, path: Path, password: str | None, skip: frozenset[int]) -> None:
        """Read blocks from the back, for the worker that reads from the front."""
        sha256 = sha256_of(path)
        if not skip and cache.load(sha256) is not None:
            return
        gc.disable()  # this process ends with its work
        pdf = PdfFile(path, password)
        try:
            blocks = reversed(range(n_blocks(pdf.n_pages)))
            folder = cache.block_folder(sha256)
            read_blocks(pdf, folder, blocks, skip, lambda page, n: send("page", (page, n)))
        finally:
            pdf.close()

    def ask(
        self, send: Send, question: str, reach: Reach | str, before: str | None = None
    ) -> Answer:
        """A quoted answer."""
        document = self._read()
        if isinstance(reach, str):
            found = named_reach(document, reach)
            if found is None:
                raise WideMarginError(
                    f"The document has no “{reach}”.",
                    hint="Name pages (“40-60”), a section (“section 4.2”) or a heading.",
                )
            reach = found
        return answer_quoted(document, question, reach, before)

    def worth(self, send: Send, kind: str) -> tuple[str, list[str]]:
        """The kind of the document, found where empty, and questions worth asking of it."""
        document = self._read()
        kind = kind or kind_of_document(document)
        return kind, [worth.question for worth in worth_asking(document, kind)]

    def use_outline(self, send: Send, outline: Outline) -> None:
        """Go by an outline that the reader has changed: paths, reach and ranking follow it."""
        self._document = with_outline(self._read(), outline)
        self._definitions = None

    def find(
        self, send: Send, wanted: str, whole_words: bool = False, exactly: bool = False
    ) -> list[FoundHit]:
        """Every place where some words stand."""
        document = self._read()
        if self._findable is None:
            self._findable = make_findable(document.paragraphs)
        hits = find_all(
            self._findable, document.paragraphs, wanted, whole_words=whole_words, exactly=exactly
        )[:MAX_HITS]
        return [self._found(document, hit) for hit in hits]

    def n_characters(self, send: Send) -> int:
        """How many characters the document's paragraphs have."""
        return sum(len(paragraph.text) for paragraph in self._read().paragraphs)

    def ping(self, send: Send) -> None:
        """Nothing: the process is there."""

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
            title=document.facts.title,
            n_pages=document.facts.n_pages,
            labels=document.labels,
            outline=document.outline,
            figures=find_figures(document),
            n_sentences=len(document.text.sentences),
            language=document.index.language,
            without_text=document.without_text,
            failed=document.failed,
            from_cache=from_cache,
        )

    def _found(self, document: ReadDocument, hit: Hit) -> FoundHit:
        paragraph = document.paragraphs[hit.paragraph]
        spans = paragraph.spans(hit.start, hit.end)
        text = paragraph.text
        first = text.find(" ", max(0, hit.start - 40), hit.start) + 1 if hit.start > 40 else 0
        around = text[first or max(0, hit.start - 40) : hit.end + 60]
        section = document.outline.at_paragraph(hit.paragraph)
        title = document.outline.sections[section].title if section >= 0 else ""
        page = spans[0].page if spans else paragraph.page
        return FoundHit(page, spans, tidy(around), title)


def make_service() -> ReadingService:
    """The service of role "reading"."""
    return ReadingService()
