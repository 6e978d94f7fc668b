"""The command that recognises the text of pages that are only pictures."""

from typing import Annotated

import typer

from wide_margin.cli import FileArgument, PasswordOption, app, read_document
from wide_margin.core.plain import counted
from wide_margin.core.session import Session


@app.command()
def recognise(
    file: FileArgument,
    language: Annotated[
        str, typer.Option("--language", metavar="CODE", help="Of the text, such as de.")
    ] = "",
    password_file: PasswordOption = None,
) -> None:
    """Recognise the text of pages that are only pictures; it is kept, and searched from then on."""
    with Session(file) as session:
        summary = read_document(session, password_file)
        pages = summary.to_recognise
        if not pages:
            typer.echo("Every page has text of its own.", err=True)
            return
        sha256 = session.fingerprint().result()

        def told(done: int, of: int) -> None:
            typer.echo(f"\r{done} of {counted(of, 'page')}", err=True, nl=False)

        failed = session.recognise(sha256, pages, language or summary.language, told).result()
        typer.echo("", err=True)
        typer.echo(f"{counted(len(pages) - len(failed), 'page')} recognised", err=True)
        for page in failed:
            typer.echo(f"file page {page + 1} could not be recognised", err=True)
