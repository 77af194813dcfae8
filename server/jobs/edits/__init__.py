"""The edits a person can make, one class per gesture; each changes a document and says in words what it did."""

from server.jobs.edits.every import Edit, edited
from server.jobs.edits.tools import Becomes, ChainStep

__all__ = ["Becomes", "ChainStep", "Edit", "edited"]
