"""Web Annotations as a JSON-LD library of others reads them, by the terms of the W3C's context.

`standards/anno-context.json` maps the terms of the Web Annotation Vocabulary (W3C Recommendation,
2017, appendix A) to their IRIs.
"""

import json
import re
from pathlib import Path

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from pyld import jsonld

from wide_margin.core.export.annotations import CONTEXT, as_annotations
from wide_margin.core.layout import SpanOnPage
from wide_margin.core.margin import (
    Anchor,
    CuttingBody,
    EntryKind,
    Ink,
    MarkBody,
    MarkForm,
    NoteBody,
    new_entry,
)

TERMS = json.loads((Path(__file__).parent / "standards" / "anno-context.json").read_text())
OA, AS = "http://www.w3.org/ns/oa#", "http://www.w3.org/ns/activitystreams#"
SOURCE = "file:///books/red%20book.pdf"
DATE_TIME = re.compile(r"\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d(\.\d+)?(Z|[+-]\d\d:\d\d)")
IRI = re.compile(r"[a-z][a-z0-9+.-]*:[^\s<>\"{}|\\^`]+")


def read(text):
    """The annotations as the library expands them, each term an IRI; it drops what it knows not."""

    def load(url, options):
        assert url == CONTEXT
        return {"contextUrl": None, "documentUrl": url, "document": TERMS}

    return jsonld.expand(json.loads(text), {"documentLoader": load})


def n_terms(value):
    """How many terms there are, at any depth, without the context."""
    if isinstance(value, list):
        return sum(map(n_terms, value))
    if not isinstance(value, dict):
        return 0
    return sum(1 + n_terms(inner) for key, inner in value.items() if key != "@context")


def n_expanded(value):
    """The same of what was expanded, where values and lists are wrapped."""
    if isinstance(value, list):
        return sum(map(n_expanded, value))
    if not isinstance(value, dict) or "@value" in value:
        return 0
    if "@list" in value:
        return n_expanded(value["@list"])
    if set(value) == {"@id"}:  # a bare reference is a value, not a term
        return 0
    return sum(1 + n_expanded(inner) for inner in value.values())


def names(value):
    """Every IRI that stands as a term, a type, a name or a reference."""
    if isinstance(value, list):
        for inner in value:
            yield from names(inner)
    elif isinstance(value, dict):
        for key, inner in value.items():
            if key in ("@id", "@type"):
                yield from [inner] if isinstance(inner, str) else inner
            elif key != "@value":
                yield from [] if key == "@list" else [key]
                yield from names(inner)


WORDS = st.text(min_size=1, max_size=40).filter(str.strip)
ENTRIES = st.lists(
    st.builds(
        lambda kind, quote, said, ink, form, tags, page: new_entry(
            kind,
            Anchor(page, 10.0, (SpanOnPage(page, 0, 9),), quote),
            MarkBody(ink=ink, form=form) if kind is EntryKind.MARK
            else NoteBody(said) if kind is EntryKind.NOTE else CuttingBody(),
        ).with_tags(tags),
        st.sampled_from([EntryKind.MARK, EntryKind.NOTE, EntryKind.CUTTING]),
        WORDS, WORDS, st.sampled_from(list(Ink)), st.sampled_from(list(MarkForm)),
        st.lists(WORDS, max_size=3), st.integers(0, 2000),
    ),
    max_size=4,
)  # fmt: skip


@settings(max_examples=60, deadline=None)
@given(ENTRIES)
def test_every_term_is_of_the_standard_and_every_name_an_iri(entries):
    text = as_annotations(entries, SOURCE)
    expanded = read(text)
    assert n_expanded(expanded) == n_terms(json.loads(text))
    assert all(IRI.fullmatch(name) for name in names(expanded))


def test_what_an_annotation_says_is_what_the_library_reads():
    anchor = Anchor(4, 10.0, (SpanOnPage(4, 0, 9),), "never erased")
    note = new_entry(EntryKind.NOTE, anchor, NoteBody("why?")).with_tags(["to check"])
    [collection] = read(as_annotations([note], SOURCE))
    assert collection["@type"] == [f"{AS}OrderedCollection"]
    [page] = collection[f"{AS}first"]
    assert page[f"{AS}partOf"] == [{"@id": collection["@id"]}]
    [annotation] = page[f"{AS}items"][0]["@list"]
    assert annotation["@type"] == [f"{OA}Annotation"]
    assert annotation[f"{OA}motivatedBy"] == [{"@id": f"{OA}commenting"}]
    [target] = annotation[f"{OA}hasTarget"]
    assert target[f"{OA}hasSource"] == [{"@id": SOURCE}]
    fragment, quoted = target[f"{OA}hasSelector"]
    assert fragment["@type"] == [f"{OA}FragmentSelector"]
    assert quoted[f"{OA}exact"] == [{"@value": "never erased"}]
    purposes = [body[f"{OA}hasPurpose"][0]["@id"] for body in annotation[f"{OA}hasBody"]]
    assert purposes == [f"{OA}commenting", f"{OA}tagging"]
    [created] = annotation["http://purl.org/dc/terms/created"]
    assert created["@type"] == "http://www.w3.org/2001/XMLSchema#dateTime"
    assert re.fullmatch(
        r"\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d(\.\d+)?(Z|[+-]\d\d:\d\d)", created["@value"]
    )


def test_a_term_that_is_not_of_the_standard_is_noticed():
    values = json.loads(as_annotations([], SOURCE))
    values["inkColour"] = "red"
    assert n_expanded(read(json.dumps(values))) < n_terms(values)


@pytest.mark.parametrize("kind", list(EntryKind))
def test_every_kind_has_a_motivation_of_the_standard(kind):
    from wide_margin.core.export.annotations import _MOTIVATION

    assert TERMS["@context"][_MOTIVATION[kind]].startswith("oa:")
