import re


def spelled_out(text: str) -> str:
    """Spell a time out as `fromisoformat` reads it before Python 3.11."""
    text = re.sub(r"\.(\d+)", lambda digits: f".{digits[1]:0<6}", text)
    return re.sub(r"[Zz]$", "+00:00", text)
