def read_boolean(text: str) -> bool:
    """Read a truth in letters."""
    if text not in ("true", "false"):
        msg = f"neither true nor false: {text}"
        raise ValueError(msg)
    return text == "true"
