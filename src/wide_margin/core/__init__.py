"""What is true of the document: no Qt, no windows, usable from a plain test."""
