"""What is kept in the margin: entries, where they are anchored, and the store."""

from wide_margin.core.margin.entries import Anchor, Entry, new_entry
from wide_margin.core.margin.store import DocumentRecord, Store, default_store_path

__all__ = ["Anchor", "DocumentRecord", "Entry", "Store", "default_store_path", "new_entry"]
