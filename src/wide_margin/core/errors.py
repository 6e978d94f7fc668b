"""Failures the reader can understand; our own mistakes stay ``ValueError`` or ``assert``."""


class WideMarginError(Exception):
    """Something failed that the reader can understand: one sentence, and what to try."""

    def __init__(self, message: str, *, hint: str = "") -> None:
        """Keep the sentence and the hint apart, so that each face can lay them out."""
        super().__init__(message)
        self.message, self.hint = message, hint

    def __reduce__(self) -> tuple[object, ...]:
        """Pickle with the hint: errors cross from worker processes to the window."""
        return (_rebuild, (type(self), self.message, self.hint))


def _rebuild(kind: type[WideMarginError], message: str, hint: str) -> WideMarginError:
    return kind(message, hint=hint)


class UnreadableFileError(WideMarginError):
    """The file cannot be opened as a PDF."""


class PasswordNeededError(WideMarginError):
    """The file is encrypted, and the password given (if any) does not open it."""


class PageFailedError(WideMarginError):
    """One page cannot be read or drawn; the rest of the document can."""


class WorkerLostError(WideMarginError):
    """A worker process ended, hung or outgrew its limits while it had work."""


class EntryStoreError(WideMarginError):
    """An entry could not be written to, or read from, the store."""


class ServiceError(WideMarginError):
    """An outside service (a writing model, say) did not answer as it should."""


class NotReadyError(WideMarginError):
    """The document is still being read in, so this cannot be answered yet."""
