"""Commands of the command line that work on passages: explaining and translating them."""

import json
from collections.abc import Sequence
from pathlib import Path
from typing import Annotated, Any

import typer

from wide_margin.cli import (
    FileArgument,
    JsonOption,
    PasswordOption,
    app,
    put_text,
    read_document,
    say,
    writing_model,
)
from wide_margin.core.answers import WHOLE, Reach
from wide_margin.core.document import Locator
from wide_margin.core.errors import ServiceError, WideMarginError
from wide_margin.core.explain import Explanation, FigureExplanation, SectionExplanation
from wide_margin.core.export.translations import TranslationFormat, export_pairs
from wide_margin.core.jobs import CancelToken
from wide_margin.core.margin import default_store_path
from wide_margin.core.services import load_settings
from wide_margin.core.services.dictionary import Dictionary, Sense
from wide_margin.core.session import ReadSummary, Session
from wide_margin.core.translate import (
    LANGUAGES,
    MEMORY,
    Memory,
    Pair,
    awaited,
    from_memory,
    translate,
)


@app.command()
def explain(
    file: FileArgument,
    text: Annotated[
        str | None, typer.Option("--text", metavar="WORDS", help="The words to explain.")
    ] = None,
    page: Annotated[
        str | None, typer.Option("--page", metavar="P", help="Where they stand, as printed.")
    ] = None,
    section: Annotated[
        str | None,
        typer.Option("--section", metavar="NAME", help="Explain a section: number or heading."),
    ] = None,
    figure: Annotated[
        str | None,
        typer.Option("--figure", metavar="NAME", help="Explain a figure or table: “Table 2”."),
    ] = None,
    senses: Annotated[
        bool, typer.Option("--senses", help="With what the dictionary service says.")
    ] = False,
    as_json: JsonOption = False,
    password_file: PasswordOption = None,
) -> None:
    """Explain a term, a sentence, a page or a section from the document itself."""
    if not (text or page or section or figure):
        raise WideMarginError(
            "Nothing to explain.", hint="Give --text, --page, --section or --figure."
        )
    with Session(file) as session:
        summary = read_document(session, password_file)
        if figure is not None:
            shown = session.query("explain_figure", figure).result()
            put_text(_figure_shown(shown, as_json=as_json), None)
            return
        if section is not None:
            _explain_section(session, section, as_json=as_json, each=text is None and not as_json)
            return
        at = _page_index(summary, page) if page else -1
        if text is not None:
            explanations = [session.explain(text, at).result()]
        else:
            paragraphs = session.paragraphs(Reach("pages", at, at)).result()
            explanations = [
                session.explain(" ".join(p.sentences), at).result()
                for p in paragraphs if p.kind in ("body", "item", "entry", "note")
            ]  # fmt: skip
        found = _senses_of(text) if senses and text else ()
    if as_json:
        values = [_as_json(each) for each in explanations]
        if senses and text:
            values[0]["senses"] = [sense._asdict() for sense in found]
        put_text(
            json.dumps(values[0] if text else values, ensure_ascii=False, indent=1) + "\n", None
        )
        return
    put_text("\n\n".join(map(_as_text, explanations)) + "\n", None)
    for sense in found:
        say(f"{sense.title}\n  " + sense.text.replace("\n", "\n  "))


def _explain_section(session: Session, section: str, *, as_json: bool, each: bool) -> None:
    told = session.explain_section(section).result()
    put_text(_section_shown(told, as_json=as_json), None)
    for paragraph in session.paragraphs(section).result() if each else ():
        if paragraph.kind in ("body", "item", "entry", "note"):
            said = " ".join(paragraph.sentences)
            say("\n" + _as_text(session.explain(said, paragraph.locator.page).result()))


def _page_index(summary: ReadSummary, page: str) -> int:
    pages = summary.labels.find(page)
    if not pages:
        raise WideMarginError(f"There is no page “{page}”.", hint="Give it as it is printed.")
    return int(pages[0])


def _senses_of(text: str) -> tuple[Sense, ...]:
    address = load_settings().dictionary_address
    try:
        with Dictionary(address) as dictionary:
            return dictionary.define(text)
    except ServiceError as error:
        typer.echo(f"{error.message} {error.hint}", err=True)
        return ()


def _place(locator: Locator | None) -> dict[str, Any] | None:
    if locator is None:
        return None
    return {"page": locator.page + 1, "label": locator.label, "section": list(locator.path)}


def _as_json(explanation: Explanation) -> dict[str, Any]:
    return {
        "text": explanation.text,
        "meanings": [
            {"term": m.term, "text": m.text, "kind": m.kind, "long_form": m.long_form,
             "locator": _place(m.locator)} for m in explanation.meanings
        ],
        "references": [
            {"text": r.text, "title": r.title, "locator": _place(r.locator)}
            for r in explanation.references
        ],
        "taken_apart": [[p._asdict() for p in parts] for parts in explanation.parts],
        "stands_for": [s._asdict() for s in explanation.stands_for],
        "leans_on": [_leaning(each) for each in explanation.leans_on],
        "taken_up_again": [_leaning(each) for each in explanation.later],
        "measures": [m._asdict() for m in explanation.measures],
        "noun_chains": [c._asdict() for c in explanation.chains],
        "often": explanation.often and {
            **explanation.often._asdict(), "locator": _place(explanation.often.locator)
        },
    }  # fmt: skip


def _leaning(leaning: Any) -> dict[str, Any]:
    return {"about": leaning.about, "text": leaning.text, "locator": _place(leaning.locator)}


def _as_text(explanation: Explanation) -> str:
    lines = [f"“{explanation.text}”"]
    for m in explanation.meanings:
        long = f" ({m.long_form})" if m.long_form else ""
        note = " is not defined here; first used" if m.kind == "used" else ""
        lines.append(f"  {m.term}{long}{note}: “{m.text}” [{m.locator.shown}]")
    for parts in explanation.parts:
        for part in parts:
            lines.append(f"    {part.tie.lower() or part.kind}: {part.text}")
    for s in explanation.stands_for:
        lines.append(f"  “{s.word}” stands for {' or '.join(s.candidates)}")
    for r in explanation.references:
        where = f"{r.title} [{r.locator.shown}]" if r.locator else "not found in this document"
        lines.append(f"  {r.text} → {where}")
    for name, around in (("leans on", explanation.leans_on), ("taken up", explanation.later)):
        lines += [f"  {name}: “{each.text}” [{each.locator.shown}]" for each in around]
    lines += [f"  “{c.text}”: {c.said}" for c in explanation.chains]
    lines += [f"  {m.written} is {m.other}" for m in explanation.measures]
    if often := explanation.often:
        lines.append(f"  {often.said} [{often.locator.shown}]")
    if len(lines) == 1:
        lines.append("  The document says nothing else of these words.")
    return "\n".join(lines)


def _figure_shown(told: FigureExplanation, *, as_json: bool) -> str:
    if as_json:
        values = {
            "caption": told.caption, "locator": _place(told.locator), "rows": told.n_rows,
            "columns": [column._asdict() for column in told.columns],
            "spoken_of": [_leaning(each) for each in told.spoken_of],
        }  # fmt: skip
        return json.dumps(values, ensure_ascii=False, indent=1) + "\n"
    lines = [f"{told.caption} [{told.locator.shown}]"]
    for column in told.columns:
        unit = f" in {column.unit}" if column.unit else ""
        reach = f": {column.least} to {column.greatest}" if column.least else ""
        lines.append(f"  column {column.name}{unit}{reach}")
    lines += [f"  spoken of: “{s.text}” [{s.locator.shown}]" for s in told.spoken_of]
    return "\n".join(lines) + "\n"


def _section_shown(told: SectionExplanation, *, as_json: bool) -> str:
    if as_json:
        values = {
            "title": told.title, "locator": _place(told.locator), "words": told.n_words,
            "begins": _leaning(told.begins) if told.begins else None,
            "terms": [_leaning(each) for each in told.terms],
            "refers_to": [_leaning(each) for each in told.refers_to],
            "referred_from": [_leaning(each) for each in told.referred_from],
        }  # fmt: skip
        return json.dumps(values, ensure_ascii=False, indent=1) + "\n"
    lines = [f"{told.title} [{told.locator.shown}], {told.n_words} words"]
    if told.begins:
        lines.append(f"  begins: “{told.begins.text}”")
    lines += [f"  brings {t.about}: “{t.text}” [{t.locator.shown}]" for t in told.terms]
    lines += [f"  refers to {r.about} → {r.text} [{r.locator.shown}]" for r in told.refers_to]
    lines += [f"  referred to: “{r.text}” [{r.locator.shown}]" for r in told.referred_from]
    return "\n".join(lines) + "\n"


@app.command("translate")
def translate_command(
    file: FileArgument,
    to: Annotated[str, typer.Option("--to", metavar="CODE", help="Language, such as de.")],
    pages: Annotated[
        str | None, typer.Option("--pages", metavar="A-B", help="These pages, as printed.")
    ] = None,
    section: Annotated[
        str | None, typer.Option("--section", metavar="NAME", help="A section.")
    ] = None,
    text: Annotated[
        str | None, typer.Option("--text", metavar="WORDS", help="These words.")
    ] = None,
    as_json: JsonOption = False,
    html: Annotated[bool, typer.Option("--html", help="Side by side, as a page.")] = False,
    xliff: Annotated[bool, typer.Option("--xliff", help="XLIFF 2.0.")] = False,
    tmx: Annotated[bool, typer.Option("--tmx", help="TMX 1.4b.")] = False,
    output: Annotated[
        Path | None, typer.Option("-o", "--output", metavar="OUT", help="Write to a file.")
    ] = None,
    model: Annotated[
        str | None, typer.Option("--model", metavar="ADDRESS", help="A writing model service.")
    ] = None,
    password_file: PasswordOption = None,
) -> None:
    """Translate pages, a section or words, sentence by sentence, each pair checked."""
    if to not in LANGUAGES:
        raise WideMarginError(f"No language “{to}”.", hint=f"One of {', '.join(LANGUAGES)}.")
    with Session(file) as session:
        summary = read_document(session, password_file)
        sentences = _sentences(session, pages, section, text)
        sha256, title = session.fingerprint().result(), summary.title or file.stem
    pairs = _translated(sentences, to, sha256, model)
    form = TranslationFormat.TEXT
    for wanted, is_wanted in (
        (TranslationFormat.JSON, as_json), (TranslationFormat.HTML, html),
        (TranslationFormat.XLIFF, xliff), (TranslationFormat.TMX, tmx),
    ):  # fmt: skip
        form = wanted if is_wanted else form
    put_text(export_pairs(pairs, summary.language, to, form, title=title), output)
    doubtful = sum(bool(pair.doubts) for pair in pairs)
    if doubtful:
        typer.echo(f"{doubtful} of {len(pairs)} pairs are marked by the checks.", err=True)


def _sentences(
    session: Session, pages: str | None, section: str | None, text: str | None
) -> list[str]:
    if text is not None:
        from wide_margin.core.passages import split_sentences

        return [text[a:b] for a, b in split_sentences(" ".join(text.split()))]
    reach: Reach | str = WHOLE
    if section is not None:
        reach = section
    elif pages is not None:
        reach = f"pages {pages}" if "-" in pages else f"page {pages}"
    found = session.paragraphs(reach).result()
    return [sentence for paragraph in found for sentence in paragraph.sentences]


def _translated(sentences: Sequence[str], to: str, sha256: str, address: str | None) -> list[Pair]:
    """Pairs from the memory where it has the sentence, else from the writing model."""
    path = default_store_path().parent / MEMORY
    memory = Memory(path if path.exists() else None)
    try:
        rules = memory.terms(sha256, to)
        pairs = from_memory([awaited(s) for s in sentences], to, memory, rules)
    finally:
        memory.close()
    rows = [row for row, pair in enumerate(pairs) if not pair.target]
    if rows:
        wanted = [pairs[row].source for row in rows]
        typer.echo(f"Sending {len(wanted)} sentences", err=True)
        done = translate(wanted, to, writing_model(address), CancelToken(), lambda *_: None, rules)
        for row, pair in zip(rows, done, strict=True):
            pairs[row] = pair._replace(near=pairs[row].near)
    return pairs
