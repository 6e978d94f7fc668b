"""What a reading worker does: read the whole document, then answer about it."""

from __future__ import annotations

import gc
from collections.abc import Callable
from dataclasses import replace
from functools import partial
from typing import TYPE_CHECKING

# What only answers need is loaded when something is first asked: reading begins the sooner.
from wide_margin.core import answers, digest, explain
from wide_margin.core.document import (
    figure_numbered,
    find_figures,
    texts_of,
    understand,
    with_outline,
)
from wide_margin.core.errors import NotReadyError, WideMarginError
from wide_margin.core.jobs import CancelToken, here
from wide_margin.core.layout import tidy
from wide_margin.core.pages.document import PdfFile
from wide_margin.core.pages.files import recognised_folder, sha256_of
from wide_margin.core.pages.recognising import RecognisedPages
from wide_margin.core.session import cache
from wide_margin.core.session.beside import beside
from wide_margin.core.session.blocks import Order, around, gather_blocks, n_blocks, read_blocks
from wide_margin.core.session.cache import Keeping
from wide_margin.core.session.model import MOST_FOUND, FoundHit, ReadSummary
from wide_margin.core.session.pace import Pace
from wide_margin.core.session.requests import MIN_PAGES_FOR_TWO
from wide_margin.core.session.so_far import SoFar

if TYPE_CHECKING:
    from wide_margin.core.answers import Answer, Reach
    from wide_margin.core.digest import Digest, Field, GistLine
    from wide_margin.core.digest.structure import Occurrence, Related
    from wide_margin.core.digest.talk import Talk
    from wide_margin.core.document import ParagraphText, ReadDocument
    from wide_margin.core.document.spoken import Spoken
    from wide_margin.core.explain import (
        Explanation,
        FigureExplanation,
        OwnWords,
        SectionExplanation,
    )
    from wide_margin.core.geometry import Box
    from wide_margin.core.jobs import Aside
    from wide_margin.core.layout import PageLabels
    from wide_margin.core.margin import Entry
    from wide_margin.core.outline import Outline
    from wide_margin.core.pages import Bookmark, Frame
    from wide_margin.core.search import Hit
    from wide_margin.core.session.prepared import Prepared
    from wide_margin.core.session.requests import DigestRequest, ReadRequest
    from wide_margin.core.session.worker import Send

MOST_FIRST = 64
"""Pages that a question can have read before the others."""


class ReadingService:
    """One document, read or being read."""

    EARLY = frozenset([
        "ask", "find", "explain", "paragraphs", "paths_of", "own_words", "come_near",
        "listed_so_far", "hold_back",
    ])  # fmt: skip
    """Requests that are answered while reading goes on, from what has been read."""

    CHANGING = frozenset(["read", "use_outline"])
    """Requests after which others are answered otherwise."""

    def __init__(self) -> None:
        """Nothing is read yet."""
        self._document: ReadDocument | None = None
        self._kept: tuple[str, str] | None = None
        """Under what the document is cached that has been told of and not been taken up yet."""
        self._prepared: Prepared | None = None
        self._to_save: tuple[str, ReadRequest] | None = None
        self._key: tuple[str, str] | None = None
        """What the document and what is made of it are cached under; None where neither is."""
        self.give_way: Callable[[], None] = lambda: None
        self.give_way_to_any: Callable[[], None] = lambda: None
        self.is_asked: Callable[[], bool] = lambda: False
        self._so_far: SoFar | None = None
        """What can be asked while reading goes on."""
        self._order = Order(())
        self._pace = Pace()

    def hold_back(self, send: Send, on: bool) -> None:
        """Leave most of the machine to others while reading goes on, or no longer."""
        self._pace.holds_back = on

    def read(self, send: Send, request: ReadRequest) -> ReadSummary:
        """Read a document, or take it from the cache.

        Reports ("page", (index, n_pages)) before each page, ("part", name) before and ("part", "")
        after each other part of the file, and ("step", (done, of)) between the steps that follow.
        """
        # Reading makes some hundred thousand small values and drops few: collecting in between
        # costs a fifth of the time. What was read is then left out of later collections.
        gc.disable()
        self._document = self._prepared = self._key = self._kept = None
        try:
            return self._read_file(send, request)
        finally:
            self._so_far = None
            gc.freeze()
            gc.enable()

    def _read_file(self, send: Send, request: ReadRequest) -> ReadSummary:
        sha256 = sha256_of(request.path)
        over = RecognisedPages(recognised_folder(sha256))
        request = replace(request, recognised=over.known())
        if request.is_whole and (known := cache.summary_of(sha256, request.variant)):
            self._kept = sha256, request.variant
            return known

        at_page = partial(self._at_page, send)

        def at_step(done: int, of: int) -> None:
            send("step", (done, of))
            self.give_way()

        pdf = PdfFile(request.path, request.password)
        try:
            facts = pdf.facts(without=request.without, at_part=lambda name: send("part", name))
            folder = cache.block_folder(request.owner, sha256)
            self._order = Order(range(n_blocks(pdf.n_pages)))
            self._order.put_first((*around(request.near), 0))
            listed = self._bookmarks(send, pdf, None, request)
            self._so_far = SoFar(facts, folder, listed)
            unwritten = read_blocks(pdf, folder, self._order, request.skip, at_page, over)
            done = gather_blocks(pdf, folder, unwritten, request.skip, at_page, over)
            bookmarks = self._bookmarks(send, pdf, done.frames, request)
        finally:
            pdf.close()
        self._document = understand(
            facts, bookmarks, done.lines, done.failed, CancelToken(),
            at_step, words=done.words, listings=done.listings, blank=done.blank,
            damaged=done.garbled,
            use_contents="contents" not in request.hide,
            aside=self._aside(request, facts.n_pages),
        )  # fmt: skip
        self._document = replace(
            self._document, recognised=tuple(sorted(done.recognised.items()))
        )  # fmt: skip
        self._to_save = sha256, request
        return self._summary()

    def _aside(self, request: ReadRequest, n_pages: int) -> Aside:
        """Who does half of the work where the document is long: a copy of this process."""
        is_worth_it = n_pages >= MIN_PAGES_FOR_TWO and not request.is_alone
        return beside if is_worth_it and not self._pace.holds_back else here

    def _bookmarks(
        self, send: Send, pdf: PdfFile, frames: list[Frame | None] | None, request: ReadRequest
    ) -> list[Bookmark]:
        """The bookmarks; without heights, and at once, where the pages' frames are not known."""
        if "bookmark" in request.hide or "bookmarks" in request.without:
            return []
        send("part", "bookmarks")
        found = list(pdf.bookmarks(frames or (), with_heights=frames is not None))
        send("part", "")
        return found

    def afterwards(self) -> None:
        """Cache what was read, once it can be asked; a reading with gaps is made anew next time."""
        if self._to_save is None or self._document is None:
            return
        sha256, request = self._to_save
        self._to_save = None
        if request.is_whole:
            cache.save(self._document, self._summary(), sha256, request.variant)
            self._key = sha256, request.variant
        cache.drop_blocks(request.owner, sha256)

    def help_read(self, send: Send, request: ReadRequest) -> None:
        """Read blocks from the back, for the worker that reads from the front."""
        sha256 = sha256_of(request.path)
        over = RecognisedPages(recognised_folder(sha256))
        request = replace(request, recognised=over.known())
        if request.is_whole and cache.is_kept(sha256, request.variant):
            return
        folder = cache.block_folder(request.owner, sha256)
        if folder is None:
            return  # there is no way to give them to the other worker
        gc.disable()  # this process ends with its work
        pdf = PdfFile(request.path, request.password)
        try:
            blocks = reversed(range(n_blocks(pdf.n_pages)))
            read_blocks(pdf, folder, blocks, request.skip, partial(self._at_page, send), over)
        finally:
            pdf.close()

    def _at_page(self, send: Send, page: int, n_pages: int) -> None:
        """Before each page: say which, serve others, rest where that is due."""
        send("page", (page, n_pages))
        self.give_way()
        self._pace()

    def anchor_again(self, send: Send, entries: tuple[Entry, ...]) -> tuple[Entry, ...]:
        """Entries of an older version of the document, each place where its words stand now."""
        from wide_margin.core.margin import Letters, anchored_again  # rarely needed, and large

        document = self._read()
        letters = Letters(document.paragraphs)
        return tuple(anchored_again(entry, letters, document.labels.of) for entry in entries)

    def ask(
        self, send: Send, question: str, reach: Reach | str, before: str | None = None
    ) -> Answer:
        """A quoted answer."""
        reach = self._reach(reach)
        self._read_first(question, reach)
        return self._made.digester.answer(question, reach, before)

    def _read_first(self, question: str, reach: Reach) -> None:
        """While reading goes on: what is asked of pages waits until these are read, next of all."""
        if self._so_far is None or self._document is not None:
            return
        made = self._so_far.made or self._read()
        pages = answers.pages_named(question, made.labels)
        if reach.kind == "pages":
            pages += range(reach.first_page, reach.last_page + 1)
        if unread := self._so_far.unread_of(pages[:MOST_FIRST]):
            self._order.put_first(unread)
            raise NotReadyError("These pages are still being read.", hint="Try again in a moment.")
        if made.unread.intersection(pages):
            self._so_far.renew()

    def come_near(self, send: Send, page: int) -> None:
        """While reading goes on: the reader is at a page, read on around it."""
        self._order.put_first(around(page))

    def listed_so_far(self, send: Send) -> tuple[Outline, PageLabels] | None:
        """The sections as far as they are known while reading goes on, None where none are."""
        listed = self._document or (self._so_far.listed() if self._so_far is not None else None)
        return (listed.outline, listed.labels) if listed is not None else None

    def digest(self, send: Send, request: DigestRequest) -> Digest:
        """Everything a reader wants to know before reading on."""
        reach = self._reach(request.reach)
        return self._made.digester.digest(
            self._made.definitions, reach, n_words=request.n_words, n_sentences=request.n_sentences,
            kind=request.kind,
        )  # fmt: skip

    def gist(self, send: Send, request: DigestRequest) -> tuple[GistLine, ...]:
        """The gist alone, as when its length is changed."""
        return self._made.digester.gist(
            self._reach(request.reach), n_words=request.n_words, n_sentences=request.n_sentences
        )

    def fields(self, send: Send, questions: tuple[str, ...]) -> tuple[Field, ...]:
        """What the front of the document says, and answers to questions, as fields."""
        digester = self._made.digester
        asked = [digest.field_of(q, digester.answer(q, answers.WHOLE, None)) for q in questions]
        return (*digest.fields_of(digester.facts), *asked)

    @property
    def _made(self) -> Prepared:
        from wide_margin.core.session.prepared import Prepared

        document = self._read()
        if self._prepared is None or self._prepared.document is not document:
            # Of more pages than before, or by another outline.
            self._prepared = Prepared(
                document,
                lambda: self.give_way(),
                lambda: self.give_way_to_any(),
                Keeping(self._key),
            )
        return self._prepared

    def spare(self) -> bool:
        """Gather what explanations need, so that the first one need not wait for it."""
        if self._kept is not None:
            self._read()
            return True
        is_read = self._document and self._to_save is None
        return bool(is_read) and self._made.go_on(self.is_asked)

    def _reach(self, reach: Reach | str) -> Reach:
        if isinstance(reach, answers.Reach):
            return reach
        found = answers.named_reach(self._read(), reach)
        if found is None:
            raise WideMarginError(
                f"The document has no “{reach}”.",
                hint="Name pages (“40-60”), a section (“section 4.2”) or a heading.",
            )
        return found

    def worth(self, send: Send, kind: str) -> tuple[str, list[str]]:
        """The kind of the document, found where empty, and questions worth asking of it."""
        made = self._made
        found = made.digester.facts.kind
        read_as = digest.DocumentKind(kind) if kind else found
        questions = made.worth if read_as is found else made.worth_as(read_as)
        return str(read_as), list(questions)

    def use_outline(self, send: Send, outline: Outline) -> None:
        """Go by an outline that the reader has changed: paths, reach and ranking follow it."""
        self._document, self._key = with_outline(self._read(), outline), None

    def find(
        self, send: Send, wanted: str, whole_words: bool = False, exactly: bool = False,
        near: int = 0,
    ) -> list[FoundHit]:  # fmt: skip
        """Every place where some words stand, at most MOST_FOUND from a page on."""
        from wide_margin.core.search import find_all

        document = self._read()
        hits = find_all(
            self._made.findable,
            document.paragraphs,
            wanted,
            whole_words=whole_words,
            exactly=exactly,
            most=MOST_FOUND,
            near=near,
        )
        return [_found(document, hit) for hit in hits]

    def n_characters(self, send: Send) -> int:
        """How many characters the document's paragraphs have."""
        return sum(len(paragraph.text) for paragraph in self._read().paragraphs)

    def ping(self, send: Send) -> None:
        """Nothing: the process is there."""

    def explain(self, send: Send, text: str, page: int = -1) -> Explanation:
        """What the document says about a selection on a page."""
        return self._made.explainer.explain(text, page)

    def explain_section(self, send: Send, name: str) -> SectionExplanation:
        """What can be told of a section, named by its number or heading."""
        document, reach = self._read(), self._reach(name)
        if reach.kind != "section":
            raise WideMarginError(f"“{name}” is no section.", hint="Name its number or heading.")
        row = document.outline.at_place(reach.first_page, reach.first_y)
        return explain.explain_section(document, self._made.explainer, row)

    def explain_figure(self, send: Send, wanted: str | tuple[int, Box]) -> FigureExplanation:
        """What is told of a figure or table, by its name ("Table 2") or by its page and box."""
        document = self._read()
        if isinstance(wanted, str):
            word, _, number = wanted.strip().rpartition(" ")
            figure = figure_numbered(document, word, number)
        else:
            figure = explain.figure_at(document, *wanted)
        if figure is None:
            name = f" “{wanted}”" if isinstance(wanted, str) else ""
            raise WideMarginError(
                f"No figure or table{name} was found there.",
                hint="Name it as its caption does, such as “Table 2”.",
            )
        return explain.explain_figure(document, figure)

    def spoken(
        self, send: Send, reach: Reach | str, with_notes: bool = False
    ) -> tuple[Spoken, ...]:
        """What is read aloud of a reach, sentence by sentence."""
        from wide_margin.core.digest.overview import rows_within
        from wide_margin.core.document.spoken import spoken

        document, found = self._read(), self._reach(reach)
        rows = None if found == answers.WHOLE else rows_within(document, found)
        return spoken(document, rows, with_notes=with_notes)

    def talk(self, send: Send, reach: Reach | str, minutes: int) -> Talk:
        """A talk of a reach, for a length in minutes."""
        from wide_margin.core.digest.talk import make_talk

        return make_talk(self._read(), self._made.digester, self._reach(reach), minutes)

    def section_told(self, send: Send, row: int) -> tuple[SectionExplanation, tuple[Related, ...]]:
        """What is told of a section by its row, and the sections that belong with it."""
        document = self._read()
        told = explain.explain_section(document, self._made.explainer, row)
        return told, self._made.sections.related(row)

    def occurrences(self, send: Send, term: str) -> tuple[Occurrence, ...]:
        """Every place where a term stands, in pages from the start."""
        from wide_margin.core.digest.structure import occurrences

        return occurrences(self._read(), self._made.findable, term)

    def related_terms(self, send: Send, term: str) -> tuple[str, ...]:
        """Words that go along with a term from section to section."""
        return self._made.sections.related_terms(term)

    def terms(self, send: Send, n: int) -> tuple[str, ...]:
        """The terms that tell most of the document, those first that tell its shape."""
        from wide_margin.core.digest.structure import uneven_first

        document = self._read()
        defined = self._made.definitions_so_far  # gathering them takes longer than all else here
        found = self._made.digester.terms(defined, n)
        return uneven_first(document, [term.term for term in found])

    def own_words(self, send: Send, text: str, passage: str) -> OwnWords:
        """A restatement held against its passage, and the slips of the pen in it."""
        index = self._read().index

        def known(word: str) -> bool:
            return any(term in index.term_ids for term in index.analyser.terms_of(word))

        return explain.check_own_words(text, passage, index.analyser, known)

    def paths_of(self, send: Send, places: tuple[tuple[int, int], ...]) -> list[tuple[str, ...]]:
        """The section path at each (page index, character of the page)."""
        return [self._made.paths.at(page, at) for page, at in places]

    def annotations_in(
        self, send: Send, text: str, record: int, known: frozenset[str]
    ) -> tuple[list[Entry], list[str]]:
        """Web Annotations as entries at their places, and the quotes that have none here.

        Args:
            send: Not needed.
            text: JSON-LD.
            record: Id of the document's record.
            known: Ids of its entries.
        """
        from wide_margin.core.export.annotations import read_annotations

        return read_annotations(text, self._read().paragraphs, record, known)

    def annotations_of(self, send: Send, entries: tuple[Entry, ...], source: str) -> str:
        """Entries as Web Annotations."""
        from wide_margin.core.export.annotations import as_annotations

        return as_annotations(entries, source, self._read().paragraphs)

    def paragraphs(self, send: Send, reach: Reach | str) -> tuple[ParagraphText, ...]:
        """The text of a reach by paragraphs: each with its sentences and its place."""
        from wide_margin.core.answers.within import allowed_sentences

        document = self._read()
        return texts_of(document, allowed_sentences(document, self._reach(reach)))

    def close(self) -> None:
        """Nothing is held that needs giving back."""

    def _read(self) -> ReadDocument:
        if self._kept is not None:
            self._document = _taken_up(*self._kept)  # where it fails, the next request says so too
            self._key, self._kept = self._kept, None
        if self._document is not None:
            return self._document
        so_far = self._so_far.document() if self._so_far is not None else None
        if so_far is None:
            raise NotReadyError("The document is still being read.", hint="Try again in a moment.")
        return so_far

    def _summary(self) -> ReadSummary:
        return _summary_of(self._read())


def _summary_of(document: ReadDocument) -> ReadSummary:
    """What is told of a document once it is read."""
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
        from_cache=False,
        left_out=document.facts.left_out,
        recognised=document.recognised,
        garbled=document.garbled,
    )


def _taken_up(sha256: str, variant: str) -> ReadDocument:
    """The document that was told of, from the cache; it was whole then."""
    gc.disable()
    try:
        known = cache.load(sha256, variant)
    finally:
        gc.freeze()
        gc.enable()
    if known is None:
        raise WideMarginError(
            "What was kept of this document is gone.", hint="Open the document again."
        )
    return known


def _found(document: ReadDocument, hit: Hit) -> FoundHit:
    """A place that was found, with what stands around it."""
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
