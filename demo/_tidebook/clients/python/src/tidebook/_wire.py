"""What the service sends, before it is anything else."""

from __future__ import annotations

import json
from typing import Any


def decode(text: str | bytes) -> dict[str, Any]:
    """Decodes an answer of the service.

    Args:
        text: The body of the answer, UTF-8 where it is bytes.

    Returns:
        The fields of the answer.

    Raises:
        ValueError: If the text is no JSON object.
    """
    fields = json.loads(text)
    if not isinstance(fields, dict):
        raise ValueError("the service sent no object")
    return fields
