"""The plan as a document: self-contained HTML to print or to send, and its tables as CSV."""
