"""The command line: the second thin face on core. Qt is loaded only to open the window."""

import json
import sys
import time
from collections.abc import Iterator
from dataclasses import replace
from enum import StrEnum
from importlib import import_module
from pathlib import Path
from typing import Annotated, Any

import typer

from wide_margin import __version__
from wide_margin.core.answers import (
    MOST_TERMS,
    WHOLE,
    Answer,
    Helped,
    Parts,
    budget_of,
    compose,
    find_helped,
    request_for,
    vocabulary_of,
)
from wide_margin.core.digest import DocumentKind, Field, as_csv, questions_in
from wide_margin.core.errors import PasswordNeededError, WideMarginError
from wide_margin.core.export import (
    export_digest,
    export_outline,
    fields_as_json,
    read_outline,
    section_row,
    write_bookmarks,
)
from wide_margin.core.export.saving import save_whole
from wide_margin.core.jobs import CancelToken
from wide_margin.core.layout import page_shown
from wide_margin.core.margin import Store, default_store_path
from wide_margin.core.outline import Outline
from wide_margin.core.outline.editing import OutlineEditor, from_store
from wide_margin.core.plain import counted, for_json_on_screen, plain
from wide_margin.core.search.analysis import Analyser
from wide_margin.core.services import WritingModel, load_settings
from wide_margin.core.services.keys import model_key
from wide_margin.core.services.writing_model import first_model
from wide_margin.core.session import DigestRequest, ReadSummary, Session
from wide_margin.start import COMMANDS, is_file, told_in_a_sentence

app = typer.Typer(
    help="Read one long PDF with a wide margin beside it.\n\n"
    "wide-margin FILE opens the window on a PDF; the commands below work without a window.",
    no_args_is_help=False,
    add_completion=False,
    rich_markup_mode=None,
    pretty_exceptions_enable=False,
)
MAX_SENT = 8
"""Excerpts that go to a writing model."""
FileArgument = Annotated[Path, typer.Argument(metavar="FILE", help="The PDF.", show_default=False)]
PasswordOption = Annotated[
    Path | None,
    typer.Option(
        "--password-file", metavar="PATH", help="A file whose first line is the password."
    ),
]
_ELSEWHERE = {
    "annotate": "cli_entries", "entries": "cli_entries", "explain": "cli_passages",
    "recognise": "cli_recognise", "say": "cli_say", "talk": "cli_talk", "translate": "cli_passages",
}  # fmt: skip
"""Commands that are in modules of their own, loaded when they are asked for."""
_HERE = COMMANDS - _ELSEWHERE.keys()
JsonOption = Annotated[bool, typer.Option("--json", help="Print JSON.")]


@app.callback(invoke_without_command=True)
def _start(
    context: typer.Context,
    version: Annotated[bool, typer.Option("--version", help="Print the version and stop.")] = False,
) -> None:
    if version:
        typer.echo(f"wide-margin {__version__}")
        raise typer.Exit
    if context.invoked_subcommand is None:
        _open_window(None, None, None, None)


@app.command("open")
def open_command(
    file: Annotated[
        str, typer.Argument(metavar="FILE", help="The PDF, or its address.", show_default=False)
    ],
    page: Annotated[
        str | None, typer.Option("--page", metavar="P", help="Open at this page, as printed.")
    ] = None,
    model: Annotated[
        str | None,
        typer.Option("--model", metavar="ADDRESS", help="Address of a writing model service."),
    ] = None,
    password_file: PasswordOption = None,
) -> None:
    """Open the window on a PDF ("wide-margin FILE" does the same)."""
    _open_window(file, page, model, _password_from(password_file))


class OutlineFormat(StrEnum):
    """Formats of an outline."""

    MARKDOWN = "md"
    OPML = "opml"
    JSON = "json"
    CSV = "csv"
    HTML = "html"


@app.command()
def outline(
    file: FileArgument,
    no_bookmarks: Annotated[
        bool, typer.Option("--no-bookmarks", help="Go without the bookmarks in the file.")
    ] = False,
    no_contents_page: Annotated[
        bool, typer.Option("--no-contents-page", help="Go without the printed contents page.")
    ] = False,
    edited: Annotated[
        bool, typer.Option("--edited", help="The outline as you have changed it in the window.")
    ] = False,
    take_from: Annotated[
        Path | None,
        typer.Option("--from", metavar="OUTLINE", help="An outline in OPML or JSON, for this PDF."),
    ] = None,
    as_json: JsonOption = False,
    form: Annotated[OutlineFormat | None, typer.Option("--format", help="Another format.")] = None,
    output: Annotated[
        Path | None, typer.Option("-o", "--output", metavar="OUT", help="Write to a file.")
    ] = None,
    write_pdf: Annotated[
        Path | None,
        typer.Option("--write-pdf", metavar="OUT", help="A copy of the PDF with these bookmarks."),
    ] = None,
    password_file: PasswordOption = None,
) -> None:
    """Print the sections of a PDF, found by bookmarks, contents page and headings."""
    hide = {"bookmark": no_bookmarks, "contents": no_contents_page}
    hidden = frozenset(name for name, is_hidden in hide.items() if is_hidden)
    with Session(file) as session:
        summary = read_document(session, password_file, hide=hidden)
        session.settle()
        title, password = summary.title or file.stem, session.password
        heights = [height for _, height in session.sizes().result()]
        sha256 = session.fingerprint().result()
    if edited:
        summary = replace(summary, outline=_edited(sha256, summary.outline, heights))
    if take_from is not None:
        editor = OutlineEditor(heights)
        taken = editor.from_rows(summary.outline, read_outline(take_from))
        summary = replace(summary, outline=taken)
    if write_pdf is not None:
        n = write_bookmarks(file, write_pdf, summary.outline, password=password)
        typer.echo(f"{n} bookmarks are in {write_pdf}", err=True)
        if form is None and not as_json:
            return
    text = _outline_as(summary, title, form, as_json=as_json)
    if not summary.outline.sections:
        typer.echo("No sections were found.", err=True)
    elif summary.outline.is_by_pages:
        typer.echo("No headings, bookmarks or contents page: these are parts by pages.", err=True)
    put_text(text, output)


def _outline_as(
    summary: ReadSummary, title: str, form: OutlineFormat | None, *, as_json: bool
) -> str:
    """The outline as a text: the short JSON, a format, or indented lines."""
    if as_json:
        rows = [section_row(s, summary.labels) for s in summary.outline.sections]
        keys = ("title", "level", "page", "label", "y")
        short = [{key: row[key] for key in keys} for row in rows]
        return json.dumps(short, ensure_ascii=False, indent=1) + "\n"
    if form is not None:
        return export_outline(summary.outline, summary.labels, form.value, title)
    return "".join(
        f"{'  ' * s.level}{s.title}  {summary.labels.listed(s.page)}\n"
        for s in summary.outline.sections
    )


def _edited(sha256: str, found: Outline, heights: list[float]) -> Outline:
    """The outline as the reader left it in the window; as found where they changed nothing."""
    path = default_store_path()
    if not path.exists():
        return found
    store = Store(path)
    try:
        kept = store.outline_of(sha256)
    finally:
        store.close()
    return from_store(kept, found, heights) if kept is not None else found


def put_text(text: str, output: Path | None) -> None:
    """Print a text, or write it to a file."""
    if output is None:
        typer.echo(_for_screen(text), nl=False)
        return
    save_whole(output, text.encode())


def _text_of(path: Path) -> str:
    try:
        return path.read_text(encoding="utf-8")
    except (OSError, UnicodeDecodeError) as error:
        raise WideMarginError(f"The questions in “{path}” cannot be read.") from error


def _for_screen(text: str) -> str:
    """Text or JSON without what turns the direction of a terminal's line."""
    if text.lstrip()[:1] in ("{", "["):
        return for_json_on_screen(text)
    return plain(text)


class DigestFormat(StrEnum):
    """Formats of a digest."""

    MARKDOWN = "md"
    HTML = "html"
    WORD = "docx"


@app.command()
def digest(
    file: FileArgument,
    section: Annotated[
        str | None,
        typer.Option("--section", metavar="NAME", help="The gist of a section: number or heading."),
    ] = None,
    pages: Annotated[
        str | None,
        typer.Option("--pages", metavar="A-B", help="The gist of these pages; 2- to the end."),
    ] = None,
    n_words: Annotated[
        int | None,
        typer.Option("--words", min=1, help="Words of the gist.", show_default=False),
    ] = None,
    n_sentences: Annotated[
        int | None, typer.Option("--sentences", min=1, help="Its sentences.", show_default=False)
    ] = None,
    n_points: Annotated[
        int | None, typer.Option("--points", min=1, help="Its points.", show_default=False)
    ] = None,
    kind: Annotated[
        DocumentKind | None, typer.Option("--kind", help="Take it for a document of this kind.")
    ] = None,
    fields: Annotated[
        Path | None,
        typer.Option(
            "--fields", metavar="FIELDS", help="A file with one question a line: name, value, page."
        ),
    ] = None,
    as_json: JsonOption = False,
    form: Annotated[
        DigestFormat | None, typer.Option("--format", help="Another format; md unless given.")
    ] = None,
    output: Annotated[
        Path | None, typer.Option("-o", "--output", metavar="OUT", help="Write to a file.")
    ] = None,
    password_file: PasswordOption = None,
) -> None:
    """Tell what a document is and says: facts, gist, by kind, section by section, terms."""
    if pages and section:
        raise typer.BadParameter("Give --pages or --section, not both.")
    if sum(map(bool, (n_words, n_sentences, n_points))) > 1:
        raise typer.BadParameter("Give one of --words, --sentences and --points.")
    if form is DigestFormat.WORD and output is None:
        raise typer.BadParameter("A Word file needs a name: give one with -o.")
    asked = tuple(questions_in(_text_of(fields))) if fields else ()
    reach = f"pages {pages}" if pages else section or WHOLE
    request = DigestRequest(reach, n_words or 0, n_sentences or n_points or 0, kind)
    with Session(file) as session:
        outline = read_document(session, password_file).outline
        if fields:
            written = _fields_as(session.fields(asked).result(), as_json=as_json)
        else:
            made = session.digest(request).result()
            written = export_digest(made, outline, "json" if as_json else form or "md")
        session.settle()
    if output is None:
        typer.echo(_for_screen(written.decode()), nl=False)
    else:
        save_whole(output, written)


def _fields_as(fields: tuple[Field, ...], *, as_json: bool) -> bytes:
    if as_json:
        return (json.dumps(fields_as_json(fields), ensure_ascii=False, indent=1) + "\n").encode()
    return as_csv(fields).encode()


@app.command()
def ask(
    file: FileArgument,
    question: Annotated[str | None, typer.Argument(metavar="QUESTION", show_default=False)] = None,
    questions: Annotated[
        Path | None,
        typer.Option("--questions", metavar="JSONL", help="A file with one question a line."),
    ] = None,
    pages: Annotated[
        str | None,
        typer.Option("--pages", metavar="A-B", help="Ask of these pages only, by their labels."),
    ] = None,
    section: Annotated[
        str | None,
        typer.Option("--section", metavar="NAME", help="Ask of a section: its number or heading."),
    ] = None,
    composed: Annotated[
        bool,
        typer.Option("--composed", help="Have a writing model compose the answer; it is checked."),
    ] = False,
    model: Annotated[
        str | None,
        typer.Option("--model", metavar="ADDRESS", help="The model for --composed."),
    ] = None,
    alone: Annotated[
        bool,
        typer.Option("--found-alone", help="With --composed: find without the model's help."),
    ] = False,
    as_json: JsonOption = False,
    password_file: PasswordOption = None,
) -> None:
    """Answer a question from the document's own sentences, with their pages."""
    if (question is None) == (questions is None):
        raise typer.BadParameter("Give a QUESTION, or a file of them with --questions.")
    if pages and section:
        raise typer.BadParameter("Give --pages or --section, not both.")
    asked = list(_questions_in(questions)) if questions else [{"question": question}]
    by_id = {str(item["id"]): str(item["question"]) for item in asked if "id" in item}
    chosen = f"pages {pages}" if pages else section
    writer = writing_model(model) if composed else None
    with Session(file) as session:
        summary = read_document(session, password_file)
        for item in asked:
            before = by_id.get(str(item.get("after", "")))
            reach = item.get("reach") or chosen or WHOLE
            text = " ".join(filter(None, (str(item["question"]), str(item.get("form") or ""))))
            identity = {"id": item["id"]} if "id" in item else {}
            started = time.perf_counter()
            try:
                answer = session.ask(text, reach, before).result()
                ms = 1000 * (time.perf_counter() - started)
                if writer is not None:
                    answer = _composed(session, answer, writer, before, summary, alone=alone)
            except WideMarginError as error:
                if questions is None:
                    raise
                _tell_failed(item, identity, error, as_json=as_json)
                continue
            line = identity | answer_as_json(answer) | {"ms": round(ms, 1)}
            say(json.dumps(line, ensure_ascii=False) if as_json else answer_as_text(answer))
        session.settle()


def say(text: str) -> None:
    """Print a line that may hold anything."""
    typer.echo(_for_screen(text))


def _tell_failed(
    item: dict[str, Any], identity: dict[str, Any], error: WideMarginError, *, as_json: bool
) -> None:
    """One question of many could not be asked; the others are."""
    said = f"{error.message} {error.hint}".strip()
    if as_json:
        values = identity | {"question": item["question"], "error": said}
        say(json.dumps(values, ensure_ascii=False))
    else:
        say(f"{item['question']}\n{said}")


@app.command("stand-in")
def stand_in(
    port: Annotated[int, typer.Option("--port", help="0 for a free one.")] = 0,
    dictionary_port: Annotated[
        int, typer.Option("--dictionary-port", help="Of the dictionary; 0 for a free one.")
    ] = 0,
) -> None:
    """Serve the stand-ins for a writing model and a dictionary on this machine."""
    from wide_margin.core.services.stand_in import StandIn
    from wide_margin.core.services.stand_in_dictionary import DictionaryStandIn

    with StandIn(port=port) as server, DictionaryStandIn(dictionary_port) as dictionary:
        typer.echo(f"Stand-in model at {server.address} (simulated; ends with Ctrl+C)")
        typer.echo(f"Stand-in dictionary at {dictionary.address}")
        try:
            server.wait()
        except KeyboardInterrupt:
            typer.echo("Ended.")


def answer_as_json(answer: Answer) -> dict[str, Any]:
    """The answer in the form that scorers and scripts read; pages are file pages from 1."""

    def place(locator: Any) -> dict[str, Any]:
        return {"page": locator.page + 1, "label": locator.label, "section": list(locator.path)}

    return {
        "question": answer.question,
        "kind": answer.kind,
        "reach": answer.reach.name,
        "declined": answer.declined,
        "sure": round(answer.sure, 3),
        "state": "declined" if answer.declined else "perhaps" if answer.is_perhaps else "answered",
        "reason": answer.reason or None,
        "answer": [
            {"text": q.text, "backing": q.backing, "locators": [place(at) for at in q.locators]}
            | ({"notes": list(q.notes)} if q.notes else {})
            for q in answer.quotes
        ],
        "model": answer.model or None,
        "excerpts": [
            {"text": e.text, "score": round(e.score, 3)} | place(e.locator) for e in answer.excerpts
        ],
        "missing": list(answer.missing),
        "pages_searched": answer.n_searched,
        "pages_total": answer.n_pages,
        "pages_without_text": [page + 1 for page in answer.without_text],
        "pages_read_so_far": answer.so_far or None,
        "found": answer.n_found or None,
        "recognised": [
            {"page": page + 1, "sure": round(sure, 3)} for page, sure in answer.recognised
        ],
    }


def answer_as_text(answer: Answer) -> str:
    """The answer as lines for a terminal."""
    lines = []
    if answer.declined:
        said = " ".join(filter(None, ("The document does not say.", answer.reason)))
        lines.append(f"{said} Nearest passages:")
        for excerpt in answer.excerpts[:3]:
            where = " / ".join(excerpt.locator.path)
            lines.append(f"  {excerpt.locator.shown}  {where}\n    {excerpt.text}")
    if answer.is_perhaps:
        lines.append("Perhaps; these are the nearest sentences:")
    for quote in answer.quotes:
        places = ", ".join(dict.fromkeys(locator.shown for locator in quote.locators))
        said = quote.text if answer.model else f"“{quote.text}”"
        doubt = "" if quote.backing == "backed" else f" ({quote.backing})"
        lines.append(f"{said} [{places or 'no place'}]{doubt}")
        lines.extend(f"    {note}" for note in quote.notes)
    if answer.missing:
        lines.append(f"Not covered: {', '.join(answer.missing)}")
    lines.append(coverage_line(answer))
    return "\n".join(lines)


def coverage_line(answer: Answer) -> str:
    """Pages searched out of pages there are."""
    line = f"{answer.n_searched} of {counted(answer.n_pages, 'page')} searched"
    if answer.n_found > len(answer.quotes):
        line = f"{len(answer.quotes)} of {answer.n_found} shown; {line}"
    if len(answer.without_text) == 1:
        line += f"; {page_shown(None, answer.without_text[0])} has no readable text"
    elif answer.without_text:
        line += f"; {len(answer.without_text)} have no readable text"
    for page, sure in answer.recognised:
        line += f"; {page_shown(None, page)} was recognised in its picture, {sure:.0%} sure"
    return line


def writing_model(address: str | None) -> WritingModel:
    """The model at an address, or that of the settings."""
    settings = load_settings()
    address = address or settings.model_address
    if not address:
        raise WideMarginError(
            "No writing model is connected.",
            hint="Give its address with --model, or put it under [writing_model] in the settings.",
        )
    key = model_key(address)
    name = settings.model_name if address == settings.model_address else ""
    return WritingModel(address, name, key) if name else first_model(address, key)


def _helped(
    session: Session, answer: Answer, model: WritingModel, before: str | None, summary: ReadSummary
) -> Helped | None:
    """What is found with the model's help; None where the settings ask for none of it."""
    parts = Parts.wanted(load_settings(), answer.kind)
    if not parts.any:
        return None
    n_words = parts.n_words(answer.excerpts)
    typer.echo(
        f"Sending about {counted(n_words, 'word')} for finding, to {model.address}", err=True
    )
    terms: tuple[str, ...] = session.query("terms", MOST_TERMS).result()
    helped = find_helped(
        answer.question, answer.excerpts,
        lambda wording: session.ask(wording, answer.reach, before).result().excerpts,
        vocabulary_of(summary.outline, terms, answer.excerpts), model, CancelToken(), parts,
    )  # fmt: skip
    said = f"{counted(helped.n_words, 'word')} in {counted(helped.n_requests, 'request')}"
    typer.echo(f"Sent {said} for finding", err=True)
    return helped


def _composed(
    session: Session, answer: Answer, model: WritingModel, before: str | None,
    summary: ReadSummary, *, alone: bool,
) -> Answer:  # fmt: skip
    """The answer with the model's statements in place of the quotes."""
    helped = None if alone else _helped(session, answer, model, before, summary)
    if answer.declined and not (helped is not None and helped.n_judged):
        return answer
    excerpts = (helped.excerpts if helped is not None else answer.excerpts)[:MAX_SENT]
    question = f"{before} {answer.question}" if before else answer.question
    budget = budget_of(request_for(question, excerpts), len(excerpts), model.address)
    typer.echo(f"Sending {budget.shown}", err=True)
    quotes = compose(question, excerpts, model, CancelToken(), analyser=Analyser(summary.language))
    return replace(answer, quotes=quotes, excerpts=excerpts, model=model.name)


def _questions_in(path: Path) -> Iterator[dict[str, Any]]:
    for number, line in enumerate(_text_of(path).splitlines(), start=1):
        if not line.strip():
            continue
        try:
            item = json.loads(line)
            item["question"] = str(item["question"])
        except (ValueError, KeyError, TypeError, RecursionError) as error:
            raise WideMarginError(
                f"Line {number} of “{path.name}” is not an object with a question."
            ) from error
        yield item


def read_document(
    session: Session, password_file: Path | None, *, hide: frozenset[str] = frozenset()
) -> ReadSummary:
    """Open and read a document, asking for its password where it needs one."""
    password = _password_from(password_file)
    while True:
        try:
            session.open(password).result()
            break
        except PasswordNeededError:
            if password_file is not None or not sys.stdin.isatty():
                raise
            password = typer.prompt("Password", hide_input=True)
    return session.read(hide=hide).result()


def _password_from(path: Path | None) -> str | None:
    if path is None:
        return None
    try:
        return (path.read_text(encoding="utf-8").splitlines() or [""])[0]
    except OSError as error:
        raise WideMarginError(f"The password file “{path}” cannot be read.") from error


def _open_window(
    file: str | None, page: str | None, model: str | None, password: str | None
) -> None:
    from wide_margin.desktop.app import run

    raise typer.Exit(run(file, page=page, model=model, password=password))


def main() -> None:
    """Entry point; "wide-margin FILE" is "wide-margin open FILE"."""
    arguments = sys.argv[1:]
    if arguments and is_file(arguments[0]):
        arguments.insert(0, "open")
    for module in _modules_for(arguments[0] if arguments else ""):
        import_module(f"wide_margin.{module}")  # its commands join the app
    with told_in_a_sentence():
        app(args=arguments, prog_name="wide-margin")


def _modules_for(first: str) -> list[str]:
    """The modules that a first argument needs: all of them for the list of commands."""
    if first in _HERE:
        return []
    return [_ELSEWHERE[first]] if first in _ELSEWHERE else sorted(set(_ELSEWHERE.values()))


if __name__ == "__main__":
    from wide_margin.cli import main as run

    run()  # of the module that the other commands have joined
