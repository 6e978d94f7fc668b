"""The Digest view: what the document is and says, as a page of a reference book."""

from wide_margin.desktop.digest_view.digest_view import DigestView

__all__ = ["DigestView"]
