"""Asked what something is: the document's own definition goes first."""

from dataclasses import replace

from wide_margin.core.answers import Answer, read_question
from wide_margin.core.answers.quoting import quote_rows
from wide_margin.core.answers.signs import defined_term
from wide_margin.core.document import Locator, ReadDocument
from wide_margin.core.explain import define

MOST_SENTENCES = 3
"""Of an entry in a list of terms."""


def with_definition(document: ReadDocument, answer: Answer) -> Answer:
    """The answer with the definition of what is asked after, where the document clearly has one.

    An answer that begins with the definition stays as it is, with what it goes on to say.
    """
    question = read_question(answer.question)
    if question.kind != "what is" or answer.reach.kind != "document":
        return answer
    definition = define(document, defined_term(question.text))
    if definition is None:
        return answer
    sentences = document.text.sentences
    at = definition.sentence
    first = definition.first if definition.first >= 0 else at
    end = at + 1
    if definition.kind in ("glossary", "entry"):
        last = min(at + MOST_SENTENCES, len(sentences))
        while end < last and sentences[end].paragraph == sentences[at].paragraph:
            end += 1
    quote = quote_rows(document, question, first, end)
    if answer.quotes and _overlap(answer.quotes[0].locators[0], quote.locators[0]):
        return answer
    sure = max(answer.sure, definition.weight)
    return replace(answer, quotes=(quote,), missing=(), reason="", sure=sure)


def _overlap(one: Locator, other: Locator) -> bool:
    return any(
        a.page == b.page and a.start < b.end and b.start < a.end
        for a in one.spans for b in other.spans
    )  # fmt: skip
